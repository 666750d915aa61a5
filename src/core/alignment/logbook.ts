import type { Adjustment } from "@/core/records/adjustment";
import { inForce } from "@/core/records/job-records";
import type { Adjuster } from "@/core/records/machine";
import type { Circumstances, Phase, Reading } from "@/core/records/reading";
import { frequencyUncertaintyOf } from "@/core/reference/reference-tape";
import { nominalToneHz } from "@/core/reference/speed-tone";
import type { LogContext } from "@/core/stations/log-context";
import type { OnTheBench } from "@/core/stations/on-the-bench";
import type { MeasuringStation } from "@/core/stations/station";

/** What is to be kept yet: the effect of a turn that was logged. */
export interface Logbook {
  awaiting: {
    /** The adjustment that was logged. */
    turn: string;
    /** How often turns had been told to the source by then; null until it was told. */
    marks: number | null;
    /** Where the effect is awaited: at this station, with this tape, direction, head and source only. */
    place: string;
  } | null;
  /** For which turn that was told it was asked already whether it was made; null when it was not asked. */
  asked: string | null;
}

export const CLOSED_LOGBOOK: Logbook = { awaiting: null, asked: null };

export type LogEvent =
  /** Somebody asked for the reading to be logged. */
  | { kind: "log"; phase: Phase }
  /** An adjuster was turned (clockwise positive), or work was done (null). */
  | { kind: "turned"; adjuster: Adjuster; turns: number | null; atStop: boolean }
  /** The source was told of the turn: results with so many marks were heard after it. */
  | { kind: "told"; marks: number }
  /** Something new was heard. */
  | { kind: "heard"; marks: number };

/** Records to append, all of one moment. */
export interface Entries {
  readings: Reading[];
  adjustments: Adjustment[];
}

export interface LogStep {
  logbook: Logbook;
  entries: Entries;
  /** Why nothing was logged; null when something was, or nothing was asked for. */
  refused: string | null;
}

/** What a step needs of the world. */
export interface Pen {
  newId(): string;
  /** Milliseconds since 1970. */
  now: number;
}

export const NO_ENTRIES: Entries = { readings: [], adjustments: [] };

/**
 * What is heard with so many marks may show what a turn did whose effect is to be kept yet. What was heard before the
 * turn was told may arrive only after it.
 */
export const mayShowTurn = (
  { awaiting }: Logbook,
  marks: number,
  station: Pick<MeasuringStation, "id">,
  bench: OnTheBench,
): boolean => {
  const { heard, records } = bench;
  if (awaiting === null || heard === null || heard.gone || isElsewhere({ awaiting }, station, bench))
    return false;
  const turn = records.adjustments.find(({ id }) => id === awaiting.turn);
  if (!turn || awaiting.marks === null) return false;
  // a file that was dropped in since shows it whole; of a live source what comes after the mark does
  return heard.droppedAt !== null ? heard.droppedAt > turn.at : marks >= awaiting.marks;
};

/** What was awaited somewhere else is to be given up. */
export const isElsewhere = (
  { awaiting }: Pick<Logbook, "awaiting">,
  station: Pick<MeasuringStation, "id">,
  bench: OnTheBench,
): boolean => awaiting !== null && bench.heard !== null && awaiting.place !== placeOf(station, bench);

/** What the effect of a turn is awaited at; elsewhere a number shows something else. */
const placeOf = (
  { id }: Pick<MeasuringStation, "id">,
  { here: { job }, tape, circumstances: { side, head, recordingOn }, session, heard }: OnTheBench,
): string =>
  // each file is a source of its own: the next one shows what was turned after the last
  JSON.stringify([
    id,
    job.speedCmPerS,
    tape.id,
    side,
    head,
    recordingOn,
    heard?.source.kind === "file" ? "files" : session,
  ]);

/**
 * What is kept of what happens at a station: a pure step from (what was logged, what is heard, what was pressed) to the
 * records to append. Around every turn a working reading is kept by itself, the last steady one before and the first
 * steady one after, because the turn card learns from the two.
 */
export function logStep(
  logbook: Logbook,
  event: LogEvent,
  station: MeasuringStation,
  bench: OnTheBench,
  pen: Pen,
): LogStep {
  const keep = (readings: Reading[]): LogStep => ({
    logbook: { ...CLOSED_LOGBOOK, asked: logbook.asked },
    entries: { readings, adjustments: [] },
    refused: null,
  });
  const nothing: LogStep = { logbook, entries: NO_ENTRIES, refused: null };
  switch (event.kind) {
    case "log": {
      if (!bench.heard) return { ...nothing, refused: "There is nothing to log yet: start a source first." };
      const outdated = whyOutdated(bench);
      if (outdated) return { ...nothing, refused: outdated };
      const unsaid = turnedUnsaid(bench);
      if (unsaid && logbook.asked !== unsaid.occasion)
        return { ...nothing, logbook: { ...logbook, asked: unsaid.occasion }, refused: unsaid.says };
      const readings = station.readings(bench).toLog(contextAt(pen.now, event.phase, station, bench, pen));
      return typeof readings === "string" ? { ...nothing, refused: readings } : keep(readings);
    }
    case "turned": {
      const at = new Date(pen.now).toISOString();
      const { adjuster, turns, atStop } = event;
      const adjustment: Adjustment = {
        id: pen.newId(),
        jobId: bench.here.job.id,
        station: station.id,
        adjusterId: adjuster.id,
        turns,
        ...(atStop && { atStop }),
        at,
        note: "",
        supersedes: null,
      };
      return {
        logbook: {
          ...CLOSED_LOGBOOK,
          awaiting: { turn: adjustment.id, marks: null, place: placeOf(station, bench) },
        },
        entries: { readings: stoodBefore(station, bench, pen), adjustments: [adjustment] },
        refused: null,
      };
    }
    case "told":
      return logbook.awaiting === null
        ? nothing
        : { ...nothing, logbook: { ...logbook, awaiting: { ...logbook.awaiting, marks: event.marks } } };
    case "heard": {
      if (isElsewhere(logbook, station, bench))
        return { ...nothing, logbook: { ...logbook, awaiting: null } };
      if (!mayShowTurn(logbook, event.marks, station, bench)) return nothing;
      const shown = station.readings(bench).afterTurn(contextAt(pen.now, "working", station, bench, pen));
      return shown && shown.length > 0 ? keep(shown) : nothing;
    }
  }
}

/** Why what is shown is not of the machine as it is now, in a sentence; null where it is. */
function whyOutdated({ heard, here }: OnTheBench): string | null {
  if (heard?.gone) return "The source has stopped, so its last figures are not logged. Start it again.";
  const droppedAt = heard?.droppedAt;
  if (!droppedAt) return null;
  const turned = inForce(here.adjustments).findLast(({ turns, at }) => turns !== 0 && at > droppedAt);
  if (!turned) return null;
  const name = here.machine.adjusters.find(({ id }) => id === turned.adjusterId)?.name ?? "An adjuster";
  return `${name} was turned after this recording was dropped in. Record again, and drop the new recording here.`;
}

/** A turn that was told, and seems to have been made, and was not said: what is logged now would be of two settings. */
function turnedUnsaid({ told, here }: OnTheBench): { occasion: string; says: string } | null {
  if (!told?.moved) return null;
  const name = here.machine.adjusters.find(({ id }) => id === told.adjusterId)?.name ?? "The adjuster";
  return {
    occasion: told.occasion,
    says: `${name} seems to have been turned: say so first, so that it is known what it did. If nothing was turned, log once more.`,
  };
}

/** The last steady reading before the turn, unless it is in the records already. */
function stoodBefore(station: MeasuringStation, bench: OnTheBench, pen: Pen): Reading[] {
  if (!bench.heard || whyOutdated(bench)) return [];
  const context = contextAt(pen.now - 1, "working", station, bench, pen);
  const before = station.readings(bench).beforeTurn(context) ?? [];
  const lastTurn = inForce(bench.records.adjustments).at(-1)?.at ?? "";
  const same = (a: Reading) => (b: Reading) =>
    b.quantity === a.quantity &&
    b.context.channel === a.context.channel &&
    b.context.side === a.context.side &&
    b.context.speedCmPerS === a.context.speedCmPerS &&
    b.context.nominalHz === a.context.nominalHz;
  const known = inForce(bench.records.readings).filter((r) => r.at > lastTurn && r.station === station.id);
  return before.every((one) => known.some(same(one))) ? [] : before;
}

export function contextAt(
  at: number,
  phase: Phase,
  station: MeasuringStation,
  { here, tape, heard, circumstances }: OnTheBench,
  { newId }: Pen,
): LogContext {
  return {
    newId,
    jobId: here.job.id,
    channel: "both",
    tapeId: tape.id,
    tapeUncertaintyPercent: frequencyUncertaintyOf(tape),
    clockPercent: heard?.clockPercent,
    nominalHz: heard?.nominalHz ?? nominalToneHz(tape, here.job.speedCmPerS),
    circumstances: saidAt(station, circumstances),
    speedCmPerS: here.job.speedCmPerS,
    phase,
    at: new Date(at).toISOString(),
    source: heard?.source ?? { kind: "by hand", name: "" },
  };
}

/** Of the circumstances those that matter at a station. */
export const saidAt = (station: MeasuringStation, circumstances: Circumstances): Circumstances =>
  Object.fromEntries(
    Object.entries(circumstances).filter(
      ([key, value]) => value !== undefined && station.circumstances.includes(key as keyof Circumstances),
    ),
  );

/** Context for a reading that is typed, not heard. */
export const typedContext = (
  station: MeasuringStation,
  bench: OnTheBench,
  { name, nominalHz }: { name: string; nominalHz: number },
  pen: Pen,
): LogContext => ({
  ...contextAt(pen.now, "working", station, bench, pen),
  tapeUncertaintyPercent: 0,
  nominalHz,
  source: { kind: "by hand", name },
});
