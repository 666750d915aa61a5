import Box from "@mui/material/Box";
import { useMemo, type ReactNode } from "react";
import { humMeans } from "@/core/advice/hum-means";
import type { Circumstances } from "@/core/records/reading";
import { NOISE_UNCERTAINTY_DB, type Erased } from "@/core/stations/erased";
import { NOISE_OF, noiseNow, quietNow, type QuietNow } from "@/core/stations/noise";
import { noiseCauses } from "@/core/stations/noise-causes";
import { fixed, hertzText, THIN_SPACE } from "@/core/text/number-text";
import { READING_FONT } from "@/ui/theme";
import { Figure } from "../figure";
import { OneOf } from "../one-of";
import { RecordSteps } from "../recording/record-steps";
import { onThisTape } from "../recording/record-view";
import { UsualCauses } from "../usual-causes";
import type { PictureProps, StationPicture } from "./picture";

/** Noise of a recorded silence by its three weightings, the mains lines in it, and what comes across between the channels. */
function Noise({ view, bench, listener, station, absent, onCircumstances }: PictureProps) {
  const mine = useMemo(() => onThisTape(view, bench), [view, bench]);
  const { channels, lacks } = noiseNow(bench);
  const { noiseOf } = bench.circumstances;
  const quiet = quietNow(bench);
  const causes = noiseCauses(bench);
  const names = view.machine.channels === 1 ? ["both"] : ["left", "right"];
  return (
    <>
      <Box sx={{ display: "grid", gridTemplateColumns: { sm: `repeat(${names.length}, 1fr)` }, gap: 2 }}>
        {names.map((name) => {
          const own = channels.find(({ channel }) => channel === name);
          const silent = quiet.channels.find(({ channel }) => channel === name);
          const shown = shownOf(noiseOf, own, silent);
          return (
            <Figure
              key={name}
              view={mine}
              quantity={noiseOf ? NOISE_OF[noiseOf].quantity : "noise.a"}
              channel={names.length === 1 ? undefined : name}
              value={shown.db}
              uncertainty={shown.uncertaintyDb}
              settled={noiseOf ? quiet.lacks === null : lacks === null}
              settling={shown.hidden ? "at most" : "look"}
              ends={["quiet", "loud"]}
              absent={absent}
              size="narrow"
            />
          );
        })}
      </Box>
      <RecordSteps
        {...{ bench, listener, station, view }}
        lacks={noiseOf ? quiet.lacks : lacks}
        before={noiseOf === "other side" ? "other-side-tones" : null}
      />
      <OneOf
        label="Noise of"
        choices={NOISES}
        chosen={noiseOf}
        onChoose={(one) => onCircumstances({ ...bench.circumstances, noiseOf: one })}
      />
      <UsualCauses>
        {causes.map((cause) => (
          <li key={cause}>{cause}</li>
        ))}
      </UsualCauses>
      {noiseOf ? (
        <Box sx={{ display: "grid", gridTemplateColumns: { sm: `repeat(${names.length}, 1fr)` }, gap: 2 }}>
          {quiet.channels.map(({ channel, flatDb, hum, across }) => (
            <Rows key={channel}>
              {noiseOf === "other side" ? (
                across.map(({ frequencyHz, db, hidden }) => (
                  <Row
                    key={frequencyHz}
                    what={`${hertzText(frequencyHz)} of the other direction${hidden ? ", at most" : ""}`}
                    db={db}
                  />
                ))
              ) : (
                <Row what="20 Hz to 20 kHz" db={flatDb} />
              )}
              <HumRows hum={hum} />
            </Rows>
          ))}
        </Box>
      ) : (
        <Box sx={{ display: "grid", gridTemplateColumns: { sm: `repeat(${names.length}, 1fr)` }, gap: 2 }}>
          {channels.map(({ channel, noise, hum, crosstalkDb, crosstalkHighDb }) => (
            <Rows key={channel}>
              <Row what="20 Hz to 20 kHz" db={noise?.flatDb ?? null} />
              <Row what="A-weighted" db={noise?.aDb ?? null} />
              <Row what="468 quasi-peak" db={noise?.itu468Db ?? null} />
              {names.length > 1 && (
                <Row
                  what="comes across from the other channel, 1 kHz"
                  db={crosstalkDb}
                  absent="no more than chance"
                />
              )}
              {names.length > 1 && (
                <Row what="the same at 10 kHz" db={crosstalkHighDb} absent="no more than chance" />
              )}
              <HumRows hum={hum} />
            </Rows>
          ))}
        </Box>
      )}
    </>
  );
}

/** The figure that stands large. */
function shownOf(
  noiseOf: Circumstances["noiseOf"],
  own: Erased | undefined,
  silent: QuietNow["channels"][number] | undefined,
): { db: number | null; uncertaintyDb: number; hidden: boolean } {
  switch (noiseOf) {
    case undefined:
      return { db: own?.noise?.aDb ?? null, uncertaintyDb: NOISE_UNCERTAINTY_DB, hidden: false };
    case "machine":
    case "bulk":
      return { db: silent?.aDb ?? null, uncertaintyDb: silent?.uncertaintyDb ?? 0, hidden: false };
    case "other side":
      return silent?.across.at(0) ?? { db: null, uncertaintyDb: 0, hidden: false };
  }
}

const NOISES: ReadonlyArray<[Circumstances["noiseOf"], string]> = [
  [undefined, "a recorded silence"],
  ["machine", NOISE_OF.machine.says],
  ["bulk", NOISE_OF.bulk.says],
  ["other side", NOISE_OF["other side"].says],
];

function Rows({ children }: { children: ReactNode }) {
  return (
    <Box component="table" sx={{ borderCollapse: "collapse", alignSelf: "start", "& td": { py: 0.25 } }}>
      <tbody>{children}</tbody>
    </Box>
  );
}

/** Mains lines by what usually makes them. */
function HumRows({ hum }: { hum: Array<{ frequencyHz: number; levelDb: number }> }) {
  return hum.map(({ frequencyHz, levelDb }) => (
    <Row
      key={frequencyHz}
      what={`mains line at ${hertzText(frequencyHz)}: ${humMeans(frequencyHz)}`}
      db={levelDb}
    />
  ));
}

function Row({ what, db, absent = "cannot be told" }: { what: string; db: number | null; absent?: string }) {
  return (
    <tr>
      <td>{what}</td>
      <Box component="td" sx={{ fontFamily: READING_FONT, textAlign: "right", whiteSpace: "nowrap", pl: 1 }}>
        {db === null ? absent : `${fixed(db, 1)}${THIN_SPACE}dB`}
      </Box>
    </tr>
  );
}

export const noise: StationPicture = { Middle: Noise };
