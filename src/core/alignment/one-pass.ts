import { inForce, type JobRecords } from "@/core/records/job-records";
import type { Phase, Reading } from "@/core/records/reading";
import { speedTone } from "@/core/reference/speed-tone";
import type { ReferenceTape } from "@/core/reference/reference-tape";
import { levelTone } from "@/core/playback/playback-level";
import { bandsForResponse } from "@/core/playback/playback-numbers";
import { isWide } from "@/core/playback/wide-band";
import type { OnTheBench } from "@/core/stations/on-the-bench";
import { saidOfTape } from "@/core/stations/said-of-tape";
import type { MeasuringStation } from "@/core/stations/station";
import { contextAt, type Pen } from "./logbook";
import { moves } from "./moves";
import { measuringRouteOf } from "./registry";

/** How far one station of a pass is. */
export type Taking = { station: MeasuringStation } & (
  | {
      state: "open";
      /** Places on the tape of the bands that it is read from. */
      bands: readonly number[];
      /** It follows the tone that plays: what it says at a band's end may have some of the next one in it. */
      stands: boolean;
      /** What could be logged, the newest last: of the last moments only. */
      last: Array<{ atSeconds: number; readings: Reading[] }>;
      /** What it waits for. */
      says: string;
    }
  | { state: "taken"; readings: Reading[] }
  | { state: "not taken"; says: string }
);

/** One pass of a whole alignment tape: each station takes its figures by itself as its bands go by. */
export interface OnePass {
  phase: Extract<Phase, "as found" | "as left">;
  stations: readonly Taking[];
  /** Places on the tape of the bands that went by since it began. */
  heard: readonly number[];
  /** The band that plays, and since when; null while none does. */
  playing: { band: number; since: number } | null;
  /** When a band played last, on the clock of the source. */
  playedAt: number;
}

/** What is heard of the tape at a moment of a pass. */
export interface PassMoment {
  /** On the clock of the source. */
  seconds: number;
  /** Place on the tape of the band that plays; null while none is known. */
  band: number | null;
  /** Why nothing that is heard now can be trusted; null for nothing. */
  doubt: string | null;
}

/**
 * That another band plays is known some seconds late: what follows the tone that plays may have some of the next in it
 * for as long.
 */
const EDGE_SECONDS = 4;
/** A tone is known for sure once it was taken for the same for so long: another of its frequency may be meant before. */
const SURE_SECONDS = 1.5;
/** After so long without any band the last one has gone by, seconds. */
const NOTHING_PLAYS_SECONDS = 5;
const NOT_HEARD_YET = "Not heard yet.";

/** The stations that a whole tape can serve on the route of a job, in working order. */
export const passStations = (records: Pick<JobRecords, "job" | "machine">): readonly MeasuringStation[] =>
  measuringRouteOf(records).filter(({ group }) => group === "transport" || group === "playback");

/** Places on a tape of the bands that a station is read from. */
function bandsOfStation(
  { hears, seeksPeak }: MeasuringStation,
  tape: ReferenceTape,
  records: Pick<JobRecords, "machine">,
): number[] {
  const { bands } = tape;
  const tones = bands.filter(({ kind }) => kind === "tone");
  const placesOf = (wanted: typeof bands) => wanted.map((band) => bands.indexOf(band));
  if (hears.what === "speed tone") {
    const tone = speedTone(tape);
    return tone ? [tone.bandNumber - 1] : [];
  }
  if (hears.role === "level") {
    const tone = levelTone(
      tones.map((band) => ({ band })),
      tape,
    );
    return tone ? placesOf([tone.band]) : [];
  }
  if (hears.role === "response") {
    const meant = bandsForResponse(bands);
    return placesOf(meant.length > 1 ? meant : bands.filter(isWide));
  }
  const ladder = tones.filter(({ role }) => role === hears.role);
  const all = ladder.length > 0 ? ladder : tones;
  // the loudest point is sought on the treble
  return seeksPeak(records.machine)
    ? placesOf(all.toSorted((a, b) => b.frequencyHz - a.frequencyHz).slice(0, 1))
    : placesOf(all);
}

/** The role of the bands that a tape begins with: until a second frequency is heard a tone is taken for one of those. */
export const firstRole = ({ bands }: ReferenceTape): string => bands.at(0)?.role ?? "";

/** Why what is measured at a station now is no longer as it was found; null while it is. */
function whyNotAsFound({ records }: OnTheBench, station: MeasuringStation): string | null {
  const upset = inForce(records.adjustments).find(
    (turn) => moves(turn, station.id) || (turn.station === station.id && turn.turns !== 0),
  );
  if (!upset) return null;
  const name = records.machine.adjusters.find(({ id }) => id === upset.adjusterId)?.name ?? "Something";
  return `${name} was turned or worked at before: this is no longer as found.`;
}

/** A pass before anything was heard. */
export function beginPass(phase: OnePass["phase"], bench: OnTheBench): OnePass {
  const stations = passStations(bench.here).map((station): Taking => {
    const says = saidOfTape(station, bench) ?? (phase === "as found" ? whyNotAsFound(bench, station) : null);
    return says === null
      ? {
          station,
          state: "open",
          bands: bandsOfStation(station, bench.tape, bench.here),
          stands: station.hears.what === "speed tone" || station.seeksPeak(bench.here.machine),
          last: [],
          says: NOT_HEARD_YET,
        }
      : { station, state: "not taken", says };
  });
  return { phase, stations, heard: [], playing: null, playedAt: Infinity };
}

/** Whether nothing is waited for any more. */
export const passIsOver = ({ stations }: OnePass): boolean => stations.every(({ state }) => state !== "open");

/** Something was turned, or the other direction plays: what was not taken yet would be of two settings. */
export const againOpen = (pass: OnePass): OnePass => ({
  ...pass,
  heard: [],
  playing: null,
  stations: pass.stations.map((one) =>
    one.state === "open" ? { ...one, last: [], says: NOT_HEARD_YET } : one,
  ),
});

/**
 * A moment of a pass. A station is taken when its last band has gone by, by what it would have logged before that could
 * be told.
 * @returns the pass as it stands then, and the readings to append
 */
export function passStep(
  pass: OnePass,
  moment: PassMoment,
  bench: OnTheBench,
  pen: Pen,
): { pass: OnePass; readings: Reading[] } {
  if (moment.doubt !== null) return { pass, readings: [] };
  const { band, seconds } = moment;
  const playedAt = band === null ? pass.playedAt : seconds;
  const isQuiet = seconds - playedAt > NOTHING_PLAYS_SECONDS;
  const playing =
    band === null ? null : pass.playing?.band === band ? pass.playing : { band, since: seconds };
  const isSure =
    playing !== null &&
    (bench.tape.bands[playing.band]?.kind !== "tone" || seconds - playing.since >= SURE_SECONDS);
  const heard = isSure && !pass.heard.includes(playing.band) ? [...pass.heard, playing.band] : pass.heard;
  const stations = pass.stations.map((one) => (one.state === "open" ? next(one, heard) : one));
  return taken(pass, { ...pass, heard, playing, playedAt, stations });

  function next(one: Taking & { state: "open" }, so: readonly number[]): Taking {
    const { station, bands: own, stands } = one;
    const plays = band !== null && own.includes(band);
    const offer = station.readings(bench).toLog(contextAt(pen.now, pass.phase, station, bench, pen));
    // what follows the tone that plays belongs to this band only; what is collected stays
    const isOwn = plays || (!stands && own.some((place) => so.includes(place)));
    const last =
      typeof offer === "string" || !isOwn
        ? one.last
        : [
            ...one.last.filter(({ atSeconds }) => atSeconds > seconds - 3 * EDGE_SECONDS),
            { atSeconds: seconds, readings: offer },
          ];
    const goneBy = !plays && (band !== null || isQuiet) && own.every((place) => so.includes(place));
    const kept = goneBy ? beforeItsEnd(last, stands) : null;
    if (kept) return { station, state: "taken", readings: kept };
    return {
      ...one,
      last,
      says: typeof offer === "string" ? offer : "Heard; it is taken when its bands have gone by.",
    };
  }
}

/** The newest that was possible before its band came to its end. */
function beforeItsEnd(
  last: ReadonlyArray<{ atSeconds: number; readings: Reading[] }>,
  stands: boolean,
): Reading[] | null {
  const newest = last.at(-1);
  if (!newest) return null;
  if (!stands) return newest.readings;
  return last.findLast(({ atSeconds }) => atSeconds <= newest.atSeconds - EDGE_SECONDS)?.readings ?? null;
}

/** The pass is ended by hand, or its source is: what can be told is taken, the rest says why not. */
export function endPass(pass: OnePass): { pass: OnePass; readings: Reading[] } {
  return taken(pass, {
    ...pass,
    stations: pass.stations.map((one): Taking => {
      if (one.state !== "open") return one;
      const { station, last, says, stands } = one;
      const kept = beforeItsEnd(last, stands);
      return kept
        ? { station, state: "taken", readings: kept }
        : { station, state: "not taken", says: last.length > 0 ? "Its band was too short." : says };
    }),
  });
}

/** What a step has added. */
const taken = (before: OnePass, pass: OnePass) => ({
  pass,
  readings: pass.stations.flatMap((one, i) =>
    one.state === "taken" && before.stations[i].state !== "taken" ? one.readings : [],
  ),
});
