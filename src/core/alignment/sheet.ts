import { backwards, nameOf, openLines } from "@/core/workshop/strip-down";
import { SWITCH_NAMES } from "@/core/records/machine";
import { worstVerdict, type Verdict } from "@/core/judging/verdict";
import { pitchRange, type PitchRange } from "@/core/guidance/pitch-range";
import type { Adjustment } from "@/core/records/adjustment";
import { inForce, type JobRecords } from "@/core/records/job-records";
import { atSpeed, speedsOf } from "@/core/records/job-speeds";
import type { Reading } from "@/core/records/reading";
import type { ChecklistStation, MeasuringStation } from "@/core/stations/station";
import { limitFor, measuringRouteOf, QUANTITIES, quantityOf, routeOf, stationOf } from "./registry";
import { curvesOf, type ResponseCurve } from "./response-curves";
import { readingVerdict, seriesOf, stationState, upsetBy } from "./station-state";

/** A reading as the sheet shows it. */
export interface SheetFigure {
  reading: Reading;
  verdict: Verdict | null;
}

export interface SheetRow {
  quantity: string;
  /** With channel and direction, where there are several. */
  name: string;
  /** Whether the station's verdict rests on this row. */
  deciding: boolean;
  limit: number | null;
  asFound: SheetFigure | null;
  asLeft: SheetFigure | null;
}

export interface SheetStation {
  station: MeasuringStation;
  /** Tape speed, in a job of several; null in a job of one. */
  speedCmPerS: number | null;
  /** How far the pitch control goes, at the speed station. */
  pitch: PitchRange | null;
  rows: SheetRow[];
  /** Response as found and as left, at the response station. */
  curves: ResponseCurve[];
  /** What was turned or done here, oldest first, with the adjuster's name. */
  adjustments: Array<{ adjustment: Adjustment; name: string }>;
  /** Something was turned after the last reading, so it no longer holds. */
  stale: boolean;
  /** There is no as-left reading; the last one logged stands in its place. */
  leftMissing: boolean;
}

export interface Sheet {
  stations: SheetStation[];
  checklists: Array<{ station: ChecklistStation; done: string[]; open: string[] }>;
  overall: Overall;
  /** Deciding quantities without a limit on this machine, by name: nobody can say that they pass. */
  withoutLimit: string[];
}

/** What a whole job comes to. */
export type Overall = Verdict | "unfinished" | "nothing measured" | "no limit";

/**
 * The alignment record of a job: for each quantity the first as-found and the last as-left reading with their
 * verdicts. Derived anew from the readings, nothing in it is stored.
 */
export function sheetOf(records: JobRecords): Sheet {
  const speeds = speedsOf(records.job);
  const stations = measuringRouteOf(records).flatMap((station) =>
    // where the speed does not matter it is set at one of them
    (station.apartBy.includes("speed") ? speeds : speedsWith(records, station, speeds)).map(
      ({ speedCmPerS }) => ({
        ...sheetStation(atSpeed(records, speedCmPerS), station),
        speedCmPerS: speeds.length > 1 ? speedCmPerS : null,
        pitch: station.circumstances.includes("pitch") ? pitchRange(records.readings, speedCmPerS) : null,
      }),
    ),
  );
  const checklists = routeOf(records)
    .filter((station) => station.kind === "checklist")
    .map((station) => {
      const done = station.checks.filter((line) => records.job.done[station.id]?.includes(line));
      const off = (station.takesApart && openLines(records.stripDown ?? [])) || [];
      return {
        station,
        done,
        open: [
          ...station.checks.filter((line) => !done.includes(line)),
          ...(station.standing?.(records).open ?? []),
          ...backwards(off).map((entry) => `${nameOf(entry)} is not back in its place`),
        ],
      };
    });
  const deciding = stations.flatMap(({ rows }) => rows.filter((row) => row.deciding));
  const withoutLimit = [...new Set(deciding.filter(({ limit }) => limit === null).map(({ name }) => name))];
  return { stations, checklists, overall: overallOf(records, stations), withoutLimit };
}

function sheetStation(
  records: JobRecords,
  station: MeasuringStation,
): Omit<SheetStation, "speedCmPerS" | "pitch"> {
  const readings = inForce(records.readings).filter((r) => r.station === station.id);
  const deciding: readonly string[] = station.deciding(records.machine);
  const figure = (reading: Reading | undefined): SheetFigure | null =>
    reading ? { reading, verdict: readingVerdict(reading, records.machine) } : null;
  const quantities = QUANTITIES.filter((quantity) => !quantityOf(quantity).unprinted);
  const rows = quantities.flatMap((quantity) =>
    seriesOf(readings.filter((r) => r.quantity === quantity)).map((mine): SheetRow => {
      return {
        quantity,
        name: rowName(mine[0], records.blanks),
        deciding: deciding.includes(quantity),
        limit: limitFor(records.machine, quantity),
        asFound: figure(mine.find(({ phase }) => phase === "as found")),
        asLeft: figure(mine.findLast(({ phase }) => phase === "as left")),
      };
    }),
  );
  const adjustments = inForce(records.adjustments)
    .filter((a) => a.station === station.id && a.turns !== 0)
    .map((adjustment) => ({
      adjustment,
      name:
        records.machine.adjusters.find(({ id }) => id === adjustment.adjusterId)?.name ??
        adjustment.adjusterId,
    }));
  return {
    station,
    rows: rows.sort((a, b) => Number(b.deciding) - Number(a.deciding)),
    curves: curvesOf(readings),
    adjustments,
    stale: upsetBy(records, station).length > 0,
    leftMissing: rows.length > 0 && rows.every(({ asLeft }) => asLeft === null),
  };
}

/** The speeds at which anything was logged at a station; the first where nothing was. */
function speedsWith<S extends { speedCmPerS: number }>(
  records: JobRecords,
  station: MeasuringStation,
  speeds: S[],
): S[] {
  const logged = speeds.filter(({ speedCmPerS }) =>
    records.readings.some((r) => r.station === station.id && r.context.speedCmPerS === speedCmPerS),
  );
  return logged.length > 0 ? logged : speeds.slice(0, 1);
}

/** "Playback level error, left, side B" */
export function rowName(
  { quantity, context: { channel, side, head, recordingOn, control, switchedOn = [] } }: Reading,
  blanks: JobRecords["blanks"] = [],
): string {
  const { apartBy, quantities } = stationOf(quantity);
  return [
    quantities[quantity].name,
    apartBy.includes("channel") && channel !== "both" && channel,
    apartBy.includes("side") && side && `side ${side}`,
    head && `${head} head`,
    control && `${control} worked`,
    apartBy.includes("switchedOn") && switchedOn.map((one) => SWITCH_NAMES[one]).join(" and "),
    recordingOn && `on ${blanks.find(({ id }) => id === recordingOn)?.name ?? recordingOn}`,
  ]
    .filter(Boolean)
    .join(", ");
}

/**
 * The worst verdict of the deciding rows. Everything is within its limits only where each deciding quantity has one, and
 * an as-left reading that passes: unfinished while any is missing or stale.
 */
function overallOf(records: JobRecords, stations: SheetStation[]): Overall {
  if (stations.length === 0) return "nothing measured";
  if (stations.some(({ station }) => !["settled", "failed"].includes(stationState(records, station))))
    return "unfinished";
  // figures of a machine of which something lies on the table are not those that it goes home with
  if (openLines(records.stripDown ?? []).length > 0) return "unfinished";
  const deciding = stations.flatMap(({ rows }) => rows.filter((row) => row.deciding));
  const verdicts = deciding.flatMap(({ asLeft }) => asLeft?.verdict ?? []);
  const worst = worstVerdict(verdicts);
  if (worst !== null && worst !== "pass") return worst;
  if (deciding.some(({ asLeft }) => asLeft === null)) return "unfinished";
  return worst === null || deciding.some(({ limit }) => limit === null) ? "no limit" : worst;
}
