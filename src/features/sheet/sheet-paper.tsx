import { turnInWords, directionInWords } from "@/core/guidance/turn-guidance";
import { uncertaintyText } from "@/core/reference/reference-tape";
import {
  sheetOf,
  type Overall,
  type SheetFigure,
  type SheetRow,
  type SheetStation,
} from "@/core/alignment/sheet";
import { limitSign } from "@/core/stations/quantity";
import { MEANINGS } from "@/core/workshop/symptoms";
import type { Machine } from "@/core/records/machine";
import { quantityOf } from "@/core/alignment/registry";
import { fixed, THIN_SPACE, withUncertainty } from "@/core/text/number-text";
import { GLYPH_PATHS } from "@/ui/glyph-paths";
import type { Verdict } from "@/core/judging/verdict";
import type { JobView } from "../job/use-job-records";
import { pathEntryText } from "../bench/path-log";
import { SheetCurves } from "./sheet-curves";
import { OwnerCard, tapesForOwner } from "./owner-card";
import { OwnerPage } from "./owner-page";
import { WorkshopSection } from "./workshop-section";
import { FoundAndLeft } from "./found-and-left";

const day = new Intl.DateTimeFormat("en-GB", { dateStyle: "long", timeZone: "UTC" });
const OVERALL: Record<Overall, { says: string; look: "pass" | "close" | "fail" }> = {
  pass: { says: "All within limits", look: "pass" },
  close: { says: "Close to a limit", look: "close" },
  fail: { says: "Outside a limit", look: "fail" },
  "cannot be told": { says: "Cannot be told for every limit", look: "close" },
  unfinished: { says: "Not finished", look: "close" },
  "nothing measured": { says: "Nothing measured", look: "close" },
  "no limit": { says: "Not all of it has a limit", look: "close" },
};

/** The alignment record that the owner gets, in plain HTML with its own style. */
export function SheetPaper({ view }: { view: JobView }) {
  const { job, machine } = view;
  const sheet = sheetOf(view);
  const open = sheet.checklists.flatMap(({ station, open: lines }) =>
    lines.map((line) => `${station.name}: ${line}`),
  );
  return (
    <article className="sheet">
      <div className="head">
        <h1>
          Alignment sheet <span className="soft">{job.number}</span>
        </h1>
        <span className={`overall ${OVERALL[sheet.overall].look}`}>{OVERALL[sheet.overall].says}</span>
      </div>
      <dl>
        <dt>Machine</dt>
        <dd>
          {machine.name}
          {machine.description && `. ${machine.description}`}
        </dd>
        <dt>Complaint</dt>
        <dd>{job.complaint || "none written down"}</dd>
        {job.symptoms && job.symptoms.length > 0 && (
          <>
            <dt>What it meant</dt>
            <dd>{job.symptoms.map((one) => MEANINGS[one].says).join(". ")}</dd>
          </>
        )}
        {job.cameWith && (
          <>
            <dt>Came with</dt>
            <dd>{job.cameWith}</dd>
          </>
        )}
        <dt>In, out</dt>
        <dd>
          {day.format(new Date(job.createdAt))} to{" "}
          {job.finishedAt ? day.format(new Date(job.finishedAt)) : "still here"}
        </dd>
        <dt>Measured with</dt>
        <dd>
          {(view.tapesUsed.length > 0 ? view.tapesUsed : view.speeds.map(({ tape }) => tape)).map((tape) => (
            <div key={tape.id}>
              {tape.name}, ±{uncertaintyText(tape)}
              {THIN_SPACE}%, {tape.speedCmPerS} cm/s
            </div>
          ))}
        </dd>
      </dl>
      <OwnerPage view={view} sheet={sheet} />
      {sheet.stations.map((station) => (
        <StationSection
          key={`${station.station.id} ${station.speedCmPerS}`}
          sheet={station}
          machine={machine}
        />
      ))}
      {tapesForOwner(view).length > 0 && <OwnerCard view={view} />}
      {job.notes && (
        <section>
          <h2>Notes</h2>
          <p style={{ whiteSpace: "pre-wrap" }}>{job.notes}</p>
        </section>
      )}
      {job.pathLog && job.pathLog.length > 0 && (
        <section>
          <h2>Tape path</h2>
          <ul>
            {job.pathLog.map((entry) => (
              <li key={entry.id}>{pathEntryText(entry)}</li>
            ))}
          </ul>
        </section>
      )}
      <WorkshopSection view={view} />
      {open.length > 0 && (
        <section>
          <h2>Not done</h2>
          <ul>
            {open.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
        </section>
      )}
      <p className="soft">
        Uncertainties are ± at 95 % and hold the reference tape&apos;s, the clock&apos;s and the
        measurement&apos;s own. A verdict counts the uncertainty in: pass and fail only when all of it lies on
        one side of the limit.
      </p>
      <div className="sign">
        <div>date</div>
        <div>technician</div>
      </div>
    </article>
  );
}

function StationSection({ sheet, machine }: { sheet: SheetStation; machine: Machine }) {
  const { station, rows, adjustments, stale, leftMissing, speedCmPerS, pitch, curves } = sheet;
  // where several rows decide, the curve or the rows themselves say more than a ruler each
  const deciding = rows.filter((row) => row.deciding).length === 1 ? rows.filter((row) => row.deciding) : [];
  return (
    <section>
      <h2>
        {station.name}
        {speedCmPerS !== null && ` at ${speedCmPerS} cm/s`}
      </h2>
      {rows.length === 0 && <p className="soft">Not measured.</p>}
      {stale && <p className="warn">Something was turned after the last reading; it has to be repeated.</p>}
      {leftMissing && !stale && <p className="warn">Not yet logged as left.</p>}
      {rows.length > 0 && (
        <table>
          <thead>
            <tr>
              <th scope="col">quantity</th>
              <th scope="col">limit</th>
              <th scope="col">as found</th>
              <th scope="col">as left</th>
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => (
              <tr key={row.name} className={row.deciding ? "deciding" : undefined}>
                <td>{row.name}</td>
                <td className="figure">
                  {row.limit === null
                    ? row.deciding
                      ? "none written down"
                      : ""
                    : `${limitSign(quantityOf(row.quantity))}${row.limit}${THIN_SPACE}${quantityOf(row.quantity).unit}`}
                </td>
                <Figure figure={row.asFound} row={row} />
                <Figure figure={row.asLeft} row={row} />
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {deciding.map((row) => (
        <FoundAndLeft key={row.name} row={row} />
      ))}
      <SheetCurves curves={curves} corridor={station.corridorOf(machine)} />
      {pitch && (
        <p>
          Pitch control: {pitchEnd(pitch.slowest)} to {pitchEnd(pitch.fastest)}.
        </p>
      )}
      {adjustments.length > 0 && (
        <p className="soft">
          Turned or done:{" "}
          {adjustments
            .map(({ adjustment: { turns }, name }) =>
              turns === null ? name : `${name} ${turnInWords(turns)} ${directionInWords(turns)}`,
            )
            .join("; ")}
          .
        </p>
      )}
    </section>
  );
}

function Figure({ figure, row }: { figure: SheetFigure | null; row: SheetRow }) {
  if (!figure) return <td className="figure soft">–</td>;
  const { reading, verdict } = figure;
  return (
    <td className="figure">
      {withUncertainty(reading.value, reading.uncertainty, reading.unit, quantityOf(row.quantity).signed)}{" "}
      {verdict && <Mark verdict={verdict} />}
    </td>
  );
}

const pitchEnd = (percent: number | null) =>
  percent === null ? "not read" : `${fixed(percent, 1, true)}${THIN_SPACE}%`;

const GLYPH = { pass: "check", close: "wave", fail: "cross", "cannot be told": "question" } as const;

function Mark({ verdict }: { verdict: Verdict }) {
  return (
    <span className={verdict === "cannot be told" ? "close" : verdict}>
      <svg width="10" height="10" viewBox="0 0 12 12" aria-hidden="true">
        <path d={GLYPH_PATHS[GLYPH[verdict]]} fill="none" stroke="currentColor" strokeWidth="2.2" />
      </svg>{" "}
      {verdict}
    </span>
  );
}
