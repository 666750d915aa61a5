import { atSpeed, speedsOf } from "./job-speeds";
import { limitFor } from "./limits";
import { pitchRange, type PitchRange } from "./pitch-range";
import { QUANTITIES, type Quantity } from "./quantities";
import { inForce, type Adjustment, type Reading, type JobRecords } from "./records";
import { curvesOf, type ResponseCurve } from "./response-curves";
import { decidingQuantities, readingVerdict, seriesOf, stationState, upsetBy } from "./station-state";
import { routeOf, type Station } from "./stations";
import type { Verdict } from "./verdict";

/** A reading as the sheet shows it. */
export interface SheetFigure {
  reading: Reading;
  verdict: Verdict | null;
}

export interface SheetRow {
  quantity: Quantity;
  /** With channel and direction, where there are several. */
  name: string;
  /** Whether the station's verdict rests on this row. */
  deciding: boolean;
  limit: number | null;
  asFound: SheetFigure | null;
  asLeft: SheetFigure | null;
}

export interface SheetStation {
  station: Station;
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
  checklists: Array<{ station: Station; done: string[]; open: string[] }>;
  overall: Verdict | "unfinished";
}

/**
 * The alignment record of a job: for each quantity the first as-found and the last as-left reading with their
 * verdicts. Derived anew from the readings, nothing in it is stored.
 */
export function sheetOf(records: JobRecords): Sheet {
  const speeds = speedsOf(records.job);
  const stations = routeOf(records.job)
    .filter(({ kind }) => kind === "measure")
    .flatMap((station) =>
      // azimuth is one screw for every speed: it is set at one of them
      (station.id === "azimuth" ? speedsWith(records, station, speeds) : speeds).map(({ speedCmPerS }) => ({
        ...sheetStation(atSpeed(records, speedCmPerS), station),
        speedCmPerS: speeds.length > 1 ? speedCmPerS : null,
        pitch: station.id === "speed" ? pitchRange(records.readings, speedCmPerS) : null,
      })),
    );
  const checklists = routeOf(records.job)
    .filter(({ kind }) => kind === "checklist")
    .map((station) => {
      const done = station.checks.filter((line) => records.job.done[station.id]?.includes(line));
      return { station, done, open: station.checks.filter((line) => !done.includes(line)) };
    });
  return { stations, checklists, overall: overallVerdict(records, stations) };
}

function sheetStation(records: JobRecords, station: Station): Omit<SheetStation, "speedCmPerS" | "pitch"> {
  const readings = inForce(records.readings).filter((r) => r.station === station.id);
  const deciding = decidingQuantities(station.id, records.machine);
  const figure = (reading: Reading | undefined): SheetFigure | null =>
    reading ? { reading, verdict: readingVerdict(reading, records.machine) } : null;
  const quantities = (Object.keys(QUANTITIES) as Quantity[]).filter(
    (quantity) => !UNPRINTED.includes(quantity),
  );
  const rows = quantities.flatMap((quantity) =>
    seriesOf(readings.filter((r) => r.quantity === quantity)).map((mine): SheetRow => {
      return {
        quantity,
        name: rowName(mine[0]),
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
    stale: upsetBy(records, station.id).length > 0,
    leftMissing: rows.length > 0 && rows.every(({ asLeft }) => asLeft === null),
  };
}

/** The speeds at which anything was logged at a station; the first where nothing was. */
function speedsWith<S extends { speedCmPerS: number }>(
  records: JobRecords,
  station: Station,
  speeds: S[],
): S[] {
  const logged = speeds.filter(({ speedCmPerS }) =>
    records.readings.some((r) => r.station === station.id && r.context.speedCmPerS === speedCmPerS),
  );
  return logged.length > 0 ? logged : speeds.slice(0, 1);
}

/** Points of a curve are drawn; levels that only the turn card needs mean nothing to an owner. */
const UNPRINTED: readonly Quantity[] = ["response.point", "response.treble", "azimuth.treble"];

/** "Playback level error, left, side B" */
export function rowName({ quantity, station, context: { channel, side, head } }: Reading): string {
  const apart = station === "azimuth" || station === "level" || station === "response";
  return [
    QUANTITIES[quantity],
    apart && channel !== "both" && channel,
    apart && side && `side ${side}`,
    head && `${head} head`,
  ]
    .filter(Boolean)
    .join(", ");
}

/** The worst verdict of the deciding rows; unfinished while any is missing or stale. */
function overallVerdict(records: JobRecords, stations: SheetStation[]): Sheet["overall"] {
  if (stations.some(({ station }) => !["settled", "failed"].includes(stationState(records, station))))
    return "unfinished";
  const verdicts = stations.flatMap(({ rows }) =>
    rows.filter((row) => row.deciding).map((row) => row.asLeft?.verdict),
  );
  if (verdicts.includes("fail")) return "fail";
  return verdicts.includes("close") ? "close" : "pass";
}
