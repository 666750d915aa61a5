import type { RatePoint } from "./rate-points";
import type { TransportEvent } from "./transport-events";

/** A long run in few numbers: one value per step of each quantity, null where there was no tone. */
export interface WatchTrack {
  startSeconds: number;
  stepSeconds: number;
  speedPercent: Array<number | null>;
  flutterPercent: Array<number | null>;
  levelDb: Array<number | null>;
  events: TransportEvent[];
  /** Rate spectra one after the other: peak percent in even logarithmic steps from 0.2 to 200 Hz. */
  spectra: number[][];
  /** What nobody heard, the page being away: since the run began. */
  missed: Array<{ fromSeconds: number; toSeconds: number }>;
}

/** A run that is gone on with, and how much of it nobody heard since. */
export interface WatchedBefore {
  track: WatchTrack;
  missedSeconds: number;
}

export const SPECTRA_HZ = { from: 0.2, to: 200, steps: 60 };
/** So many are kept; more are joined two by two. */
export const MOST_SPECTRA = 240;

const FIRST_STEP_SECONDS = 0.5;
/** When so many steps are full they are joined two by two: an hour fits as well as a day. */
export const MOST_STEPS = 3600;
const MOST_EVENTS = 400;
const SAME_EVENT_SECONDS = 0.25;
const STALL_SECONDS = 0.3;

type Quantity = "speedPercent" | "flutterPercent" | "levelDb";
const QUANTITIES: readonly Quantity[] = ["speedPercent", "flutterPercent", "levelDb"];

/** What of a moment is logged; null for what there was not. */
export type WatchMoment = Record<Quantity, number | null>;

/** Logs speed, flutter and level over a run of any length, in bounded memory. */
export class WatchLog {
  private readonly track: WatchTrack;
  private sums = new Map<Quantity, { sum: number; count: number }>();
  private stepEnds: number;
  private goneSince: number | null = null;
  private gathered: number[] | null = null;
  private gatheredCount = 0;
  private spectraPerRow = 1;

  /** @param nowSeconds on the clock of the source. @param before a run that is gone on with */
  constructor(nowSeconds: number, before: WatchedBefore | null = null) {
    this.track = before
      ? takenUp(before, nowSeconds)
      : {
          startSeconds: nowSeconds,
          stepSeconds: FIRST_STEP_SECONDS,
          speedPercent: [],
          flutterPercent: [],
          levelDb: [],
          events: [],
          spectra: [],
          missed: [],
        };
    while (this.track.speedPercent.length >= MOST_STEPS) this.halve();
    this.stepEnds = nowSeconds + this.track.stepSeconds;
  }

  add(seconds: number, moment: WatchMoment): void {
    while (seconds >= this.stepEnds) this.closeStep();
    for (const quantity of QUANTITIES) {
      const value = moment[quantity];
      if (value === null) continue;
      const kept = this.sums.get(quantity) ?? { sum: 0, count: 0 };
      this.sums.set(quantity, { sum: kept.sum + value, count: kept.count + 1 });
    }
    this.watchTone(seconds, moment.speedPercent !== null);
  }

  /** Events found elsewhere; the ones that are in already are passed over. */
  addEvents(events: TransportEvent[]): void {
    const { track } = this;
    for (const event of events) {
      const known = track.events.some(
        (e) => Math.abs(e.atSeconds - event.atSeconds) < SAME_EVENT_SECONDS + 0.5 * e.seconds,
      );
      if (known || event.atSeconds < track.startSeconds || track.events.length >= MOST_EVENTS) continue;
      track.events.push(event);
    }
    track.events.sort((a, b) => a.atSeconds - b.atSeconds);
  }

  /** One more spectrum of the last while. */
  addSpectrum(points: RatePoint[]): void {
    const { from, to, steps } = SPECTRA_HZ;
    const row = new Array<number>(steps).fill(0);
    for (const { rateHz, percent } of points) {
      const step = Math.floor((steps * Math.log(rateHz / from)) / Math.log(to / from));
      if (step >= 0 && step < steps) row[step] = Math.max(row[step], Math.round(percent * 1e5) / 1e5);
    }
    this.gathered = this.gathered?.map((v, i) => Math.max(v, row[i])) ?? row;
    if (++this.gatheredCount < this.spectraPerRow) return;
    this.track.spectra.push(this.gathered);
    this.gathered = null;
    this.gatheredCount = 0;
    if (this.track.spectra.length < MOST_SPECTRA) return;
    const rows = this.track.spectra;
    this.track.spectra = Array.from({ length: rows.length >> 1 }, (_, i) =>
      rows[2 * i].map((v, k) => Math.max(v, rows[2 * i + 1][k])),
    );
    this.spectraPerRow *= 2;
  }

  get snapshot(): WatchTrack {
    const { speedPercent, flutterPercent, levelDb, events, spectra, missed, ...rest } = this.track;
    return {
      ...rest,
      missed: [...missed],
      speedPercent: [...speedPercent],
      flutterPercent: [...flutterPercent],
      levelDb: [...levelDb],
      events: [...events],
      spectra: [...spectra],
    };
  }

  /** A tone that goes and comes back stood still in between. */
  private watchTone(seconds: number, there: boolean): void {
    if (!there) {
      if (this.track.speedPercent.some((v) => v !== null)) this.goneSince ??= seconds;
      return;
    }
    const gone = this.goneSince;
    this.goneSince = null;
    if (gone !== null && seconds - gone >= STALL_SECONDS)
      this.addEvents([{ kind: "stall", atSeconds: gone, seconds: seconds - gone, percent: null }]);
  }

  private closeStep(): void {
    for (const quantity of QUANTITIES) {
      const kept = this.sums.get(quantity);
      this.track[quantity].push(kept ? kept.sum / kept.count : null);
    }
    this.sums = new Map();
    if (this.track.speedPercent.length >= MOST_STEPS) this.halve();
    this.stepEnds += this.track.stepSeconds;
  }

  private halve(): void {
    for (const quantity of QUANTITIES) {
      const values = this.track[quantity];
      this.track[quantity] = Array.from({ length: values.length >> 1 }, (_, i) => {
        const [a, b] = [values[2 * i], values[2 * i + 1]];
        return a === null ? b : b === null ? a : (a + b) / 2;
      });
    }
    this.track.stepSeconds *= 2;
  }
}

/** A run as it stands when it is gone on with: on the clock of another source, with nothing where nobody heard it. */
function takenUp({ track, missedSeconds }: WatchedBefore, nowSeconds: number): WatchTrack {
  const { stepSeconds, speedPercent } = track;
  const steps = Math.round(missedSeconds / stepSeconds);
  const heardSeconds = stepSeconds * speedPercent.length;
  const startSeconds = nowSeconds - heardSeconds - stepSeconds * steps;
  const gap = new Array<null>(steps).fill(null);
  return {
    ...track,
    startSeconds,
    speedPercent: [...speedPercent, ...gap],
    flutterPercent: [...track.flutterPercent, ...gap],
    levelDb: [...track.levelDb, ...gap],
    events: track.events.map((event) => ({
      ...event,
      atSeconds: event.atSeconds - track.startSeconds + startSeconds,
    })),
    spectra: [...track.spectra],
    missed:
      steps > 0
        ? [...track.missed, { fromSeconds: heardSeconds, toSeconds: heardSeconds + stepSeconds * steps }]
        : [...track.missed],
  };
}
