import { amplitudeOf } from "@/core/dsp/decibels";
import { noisePeriod } from "@/core/dsp/periodic-noise";
import {
  interpolate,
  interpolateIn,
  interpolateMany,
  INTERPOLATOR_REACH,
} from "@/core/dsp/sinc-interpolator";

import { ordinary, type TapeFormula } from "./tape-formula";
import { WornPlaces } from "./worn-places";

/** A band that a tape was made with; levels in dB relative to the reference fluxivity. */
export interface PrintedBand {
  kind: "tone" | "sweep" | "noise" | "silence";
  frequencyHz: number;
  toFrequencyHz?: number;
  levelDb: number;
  seconds: number;
  correctionDb?: { left: number; right: number };
  frequencyErrorPercent?: number;
}

/** One second of what a deck recorded, at the spatial grid of the tape. */
export interface RecordedSecond {
  left: Float32Array;
  right: Float32Array;
}

/** Grid points for each second of tape at its own speed. */
export const GRID_PER_SECOND = 48_000;
const LEADER_SECONDS = 0.5;
const GAP_SECONDS = 1;

interface PlacedBand extends PrintedBand {
  from: number;
  to: number;
  leftGain: number;
  rightGain: number;
}

/** The frequency that a tone really has, or that a sweep begins at. */
const toneHz = ({ frequencyHz, frequencyErrorPercent = 0 }: PrintedBand): number =>
  frequencyHz * (1 + frequencyErrorPercent / 100);

/** A sine after so many cycles; whole ones are left out, so that far along a tape it is as exact as at its start. */
const sineAfter = (cycles: number): number => Math.sin(2 * Math.PI * (cycles - Math.floor(cycles)));

/** One side of a tape, a pair of tracks: what it was made with, and what was recorded over it. */
export class TapeSide {
  private readonly bands: PlacedBand[] = [];
  /** By whole seconds from the start of the side. */
  readonly recorded = new Map<number, RecordedSecond>();
  /** Seconds that changed since somebody last asked. */
  readonly changed = new Set<number>();
  private last = 0;

  constructor(
    bands: readonly PrintedBand[],
    private readonly worn: WornPlaces | null = null,
  ) {
    let at = LEADER_SECONDS;
    for (const band of bands) {
      const gain = (correction = 0) => amplitudeOf(band.levelDb + correction);
      this.bands.push({
        ...band,
        from: at,
        to: at + band.seconds,
        leftGain: gain(band.correctionDb?.left),
        rightGain: gain(band.correctionDb?.right),
      });
      at += band.seconds + GAP_SECONDS;
    }
  }

  /** Where the printed bands end, in seconds at the tape's own speed. */
  get printedSeconds(): number {
    return this.bands.at(-1)?.to ?? 0;
  }

  /** Playback signal re reference level at a place, for the track on the left (0) or right (1). */
  read(track: 0 | 1, seconds: number): number {
    const flux = this.flux(track, seconds);
    return this.worn ? flux * this.worn.gain(track, seconds) : flux;
  }

  /** The same at many places, one after the other, of tape that is not far apart. */
  readMany(track: 0 | 1, seconds: Float64Array, out: Float64Array): void {
    if (this.recorded.size === 0) this.printedMany(track, seconds, out);
    else {
      const place = this.recordedAround(seconds);
      if (place === null) {
        for (let i = 0; i < seconds.length; i++) out[i] = this.read(track, seconds[i]);
        return;
      }
      const from = Math.floor(seconds[0]);
      const onGrid = new Float64Array(seconds.length);
      for (let i = 0; i < onGrid.length; i++) onGrid[i] = (seconds[i] - from) * GRID_PER_SECOND;
      interpolateMany(track === 0 ? place.left : place.right, onGrid, out);
    }
    if (this.worn) for (let i = 0; i < seconds.length; i++) out[i] *= this.worn.gain(track, seconds[i]);
  }

  /** The recorded second that all of some places lie in, none near its edges; null where there is no such second. */
  private recordedAround(seconds: Float64Array): RecordedSecond | null {
    if (seconds.length === 0) return null;
    const whole = Math.floor(seconds[0]);
    const edge = (INTERPOLATOR_REACH + 1) / GRID_PER_SECOND;
    for (let i = 0; i < seconds.length; i++) {
      const share = seconds[i] - whole;
      if (!(share > edge && share < 1 - edge)) return null;
    }
    return this.recorded.get(whole) ?? null;
  }

  /** Whether there is nothing on it at all. */
  get isEmpty(): boolean {
    return this.bands.length === 0 && this.recorded.size === 0;
  }

  private flux(track: 0 | 1, seconds: number): number {
    const whole = Math.floor(seconds);
    if (this.recorded.size === 0 || !this.nearRecorded(whole, seconds)) return this.printed(track, seconds);
    const at = seconds * GRID_PER_SECOND;
    const place = this.recorded.get(whole);
    const within = at - whole * GRID_PER_SECOND;
    if (place && within > INTERPOLATOR_REACH && within < GRID_PER_SECOND - INTERPOLATOR_REACH - 1)
      return interpolateIn(track === 0 ? place.left : place.right, within);
    return interpolate((index) => this.onGrid(track, index), at);
  }

  /** Puts grid points of both tracks from a first one on; of what stood there so much is left. */
  write(first: number, left: Float64Array, right: Float64Array, residue: number): void {
    for (let i = 0; i < left.length;) {
      const second = Math.floor((first + i) / GRID_PER_SECOND);
      const place = this.placeOf(second);
      const end = Math.min(left.length, (second + 1) * GRID_PER_SECOND - first);
      for (let at = first + i - second * GRID_PER_SECOND; i < end; i++, at++) {
        place.left[at] = left[i] + residue * place.left[at];
        place.right[at] = right[i] + residue * place.right[at];
      }
      this.changed.add(second);
    }
  }

  /** A second that can be written to: until then it is as it was printed. */
  private placeOf(second: number): RecordedSecond {
    const known = this.recorded.get(second);
    if (known) return known;
    const first = second * GRID_PER_SECOND;
    const copy = (track: 0 | 1) => {
      const printed = new Float32Array(GRID_PER_SECOND);
      if (this.bands.length > 0)
        for (let i = 0; i < printed.length; i++)
          printed[i] = this.printed(track, (first + i) / GRID_PER_SECOND);
      return printed;
    };
    const place = { left: copy(0), right: copy(1) };
    this.recorded.set(second, place);
    return place;
  }

  private nearRecorded(second: number, seconds: number): boolean {
    const share = seconds - second;
    return (
      this.recorded.has(second) ||
      (share < 0.001 && this.recorded.has(second - 1)) ||
      (share > 0.999 && this.recorded.has(second + 1))
    );
  }

  private onGrid(track: 0 | 1, index: number): number {
    const second = Math.floor(index / GRID_PER_SECOND);
    const place = this.recorded.get(second);
    if (!place) return this.printed(track, index / GRID_PER_SECOND);
    return (track === 0 ? place.left : place.right)[index - second * GRID_PER_SECOND];
  }

  private printedMany(track: 0 | 1, seconds: Float64Array, out: Float64Array): void {
    let from = 0;
    let to = 0;
    let gain = 0;
    let hz = 0;
    for (let i = 0; i < seconds.length; i++) {
      const at = seconds[i];
      if (at >= from && at < to) {
        // within the tone that the place before lay in
        const cycles = hz * (at - from);
        out[i] = gain * sineAfter(cycles);
        continue;
      }
      out[i] = this.printed(track, at);
      const band = this.bandAt(at);
      if (band?.kind !== "tone") continue;
      ({ from, to } = band);
      gain = track === 0 ? band.leftGain : band.rightGain;
      hz = toneHz(band);
    }
  }

  private printed(track: 0 | 1, seconds: number): number {
    const band = this.bandAt(seconds);
    if (band === null || band.kind === "silence") return 0;
    const gain = track === 0 ? band.leftGain : band.rightGain;
    const t = seconds - band.from;
    if (band.kind === "tone") {
      const cycles = toneHz(band) * t;
      return gain * sineAfter(cycles);
    }
    if (band.kind === "sweep") {
      const span = Math.log((band.toFrequencyHz ?? band.frequencyHz) / band.frequencyHz) || 1e-9;
      const cycles = ((toneHz(band) * band.seconds) / span) * Math.expm1((t / band.seconds) * span);
      return gain * sineAfter(cycles);
    }
    const period = noisePeriod("pink", GRID_PER_SECOND);
    const read = (index: number) => period[((index % period.length) + period.length) % period.length];
    return gain * Math.SQRT1_2 * interpolate(read, t * GRID_PER_SECOND);
  }

  private bandAt(seconds: number): PlacedBand | null {
    const { bands } = this;
    const inside = (i: number) => i < bands.length && seconds >= bands[i].from && seconds < bands[i].to;
    if (inside(this.last)) return bands[this.last];
    for (let i = 0; i < bands.length; i++)
      if (inside(i)) {
        this.last = i;
        return bands[i];
      }
    return null;
  }
}

export interface TapeOptions {
  id: string;
  name: string;
  speedCmPerS: number;
  /** Equalisation that it is recorded with: time constants in microseconds, t1 0 for none. */
  t1Microseconds: number;
  t2Microseconds: number;
  bands: readonly PrintedBand[];
  /** What it is coated with; an ordinary tape of type I, or an open-reel one at its speeds, when left out. */
  formula?: TapeFormula;
  /** Length of a side; at least as long as its bands. */
  seconds?: number;
}

/**
 * A tape that can be loaded, turned over and recorded on. Places on it are seconds from the start of the side at the
 * tape's own speed, so that every machine finds the same wavelengths.
 */
export class Tape {
  readonly id: string;
  readonly name: string;
  readonly speedCmPerS: number;
  readonly t1Microseconds: number;
  readonly t2Microseconds: number;
  readonly seconds: number;
  readonly formula: TapeFormula;
  readonly sides: readonly [TapeSide, TapeSide];

  constructor({ bands, seconds = 0, formula, ...rest }: TapeOptions) {
    ({
      id: this.id,
      name: this.name,
      speedCmPerS: this.speedCmPerS,
      t1Microseconds: this.t1Microseconds,
      t2Microseconds: this.t2Microseconds,
    } = rest);
    this.formula = formula ?? ordinary(this.speedCmPerS > CASSETTE_AT_MOST_CM_PER_S ? "open reel" : "I");
    const { wear } = this.formula;
    const side = (seed: number) => new TapeSide(bands, wear ? new WornPlaces(wear, seed) : null);
    this.sides = [side(SIDE_SEEDS[0]), side(SIDE_SEEDS[1])];
    this.seconds = Math.max(seconds, this.sides[0].printedSeconds + 5);
  }
}

const CASSETTE_AT_MOST_CM_PER_S = 5;
const SIDE_SEEDS = [11, 4711] as const;

/** A tone without an end on both sides. */
export const endlessTone = (
  frequencyHz: number,
  speedCmPerS: number,
  t1Microseconds: number,
  t2Microseconds: number,
) =>
  new Tape({
    id: "tone",
    name: "tone",
    speedCmPerS,
    t1Microseconds,
    t2Microseconds,
    bands: [{ kind: "tone", frequencyHz, levelDb: 0, seconds: 1e9 }],
  });
