import { powerDb } from "@/core/dsp/decibels";
import { amplitudeSpectrum } from "@/core/dsp/amplitude-spectrum";
import { median } from "@/core/dsp/quantile";
import type { Samples } from "@/core/dsp/signal";

/** What is heard that a tape must not be played on with. */
export interface Squeal {
  kind: "squeal" | "drag";
  /** Where it whistles; null where it roughens a tone. */
  frequencyHz: number | null;
  /** When it began, on the clock of the watch. */
  sinceSeconds: number;
}

const SIZE = 4096;
const HOP = 2048;
/** Where tapes squeal. */
const [LOWEST_HZ, HIGHEST_HZ] = [700, 9000];
/** A whistle stands so much above what is around it, dB. */
const WHISTLE_DB = 24;
/** Around it: so many bins either way, without the nearest. */
const [NEAR_BINS, AROUND_BINS] = [4, 40];
/** From frame to frame it moves by less, and over all its time it is not as steady as a tone, share. */
const MOVES = 0.02;
const STEADIER = 0.0004;
const [WHISTLES_SECONDS, MISSED_SHARE] = [2, 0.3];
/** What is most of all that is heard may be a tone that somebody plays, and is known as one by then. */
const [MOST_SHARE, MOST_SECONDS] = [0.4, 5] as const;
/** With a partner at one of these, most of the time, it is of a harmonic series: a voice or an instrument. */
const PARTNERS = [1 / 3, 1 / 2, 2 / 3, 3 / 2, 2] as const;
const [PARTNER_DB, PARTNER_SHARE] = [12, 0.7] as const;
/** What lies beside a tone and its harmonics: from here, and so far from each of them. */
const [REST_FROM_HZ, REST_TO_HZ, BESIDE_HZ, HARMONICS] = [400, 12_000, 160, 8] as const;
/** It has to be heard so long before it is known what is usual. */
const USUAL_SECONDS = 3;
/** So much more beside the tone, for so long, is a squeal that roughens it; more than so much below the tone matters to nobody. */
const [ROUGHER_DB, ROUGH_DBC, ROUGH_SECONDS] = [14, -50, 1.5] as const;
const GONE_DB = 6;
/** A drag grows: half as rough already, and so much slower than at first, percent. */
const [DRAG_ROUGHER_DB, DRAG_SLOWER_PERCENT] = [6, 0.35] as const;
const SLOW_FRAMES = 60;
const FORGOTTEN_SECONDS = 3;
const LEAST_LEVEL_DB = -70;

interface Frame {
  seconds: number;
  whistleHz: number | null;
  /** Which of the partners it has. */
  partners: readonly boolean[];
  /** Its share of all that is heard. */
  share: number;
}

/**
 * Hears a tape that squeals or drags while it plays. In programme: a whistle that wanders a little and has no partner in
 * a harmonic series, for two seconds. On a steady tone: what lies beside the tone and its harmonics rises against what it
 * was at first; with the speed falling it is a drag. Push blocks of one channel, full scale = ±1.
 */
export class SquealWatch {
  private readonly held = new Float64Array(SIZE);
  private filled = 0;
  private frames: Frame[] = [];
  private frame = 0;
  private tone: {
    hz: number;
    rest: number[];
    levels: number[];
    speeds: number[];
    roughSince: number | null;
  } | null = null;
  private slowerPercent = 0;
  private squeal: Squeal | null = null;
  private heardAt = -Infinity;

  constructor(private readonly sampleRateHz: number) {}

  /**
   * What plays, as far as it is known: its frequency, and how far off its speed is now.
   * @param hz null while no steady tone is known
   * @param speedPercent null while it cannot be told
   */
  plays(hz: number | null, speedPercent: number | null): void {
    if (hz === null) this.tone = null;
    else if (this.tone === null || Math.abs(hz / this.tone.hz - 1) > MOVES)
      this.tone = { hz, rest: [], levels: [], speeds: [], roughSince: null };
    if (!this.tone || speedPercent === null) return;
    this.tone.speeds.push(speedPercent);
    const { speeds } = this.tone;
    if (speeds.length > 2 * SLOW_FRAMES)
      this.slowerPercent = median(speeds.slice(0, SLOW_FRAMES)) - median(speeds.slice(-SLOW_FRAMES / 2));
    else this.slowerPercent = 0;
  }

  push(x: Samples): void {
    for (let i = 0; i < x.length; i++) {
      this.held[this.filled++] = x[i];
      if (this.filled < SIZE) continue;
      this.look();
      this.held.copyWithin(0, HOP);
      this.filled = SIZE - HOP;
    }
  }

  /** What is heard now; null while there is nothing to fear. */
  get result(): Squeal | null {
    return this.seconds - this.heardAt < FORGOTTEN_SECONDS ? this.squeal : null;
  }

  private get seconds(): number {
    return (this.frame * HOP) / this.sampleRateHz;
  }

  private look(): void {
    this.frame++;
    const { amplitude } = amplitudeSpectrum(this.held, this.sampleRateHz, SIZE);
    const power = amplitude.subarray(0, SIZE / 2).map((one) => one * one);
    if (this.tone) {
      this.frames = [];
      this.lookBeside(this.tone, power);
    } else this.lookForWhistle(power);
  }

  private tell(kind: Squeal["kind"], frequencyHz: number | null, sinceSeconds: number): void {
    if (this.result === null) this.squeal = { kind, frequencyHz, sinceSeconds };
    this.heardAt = this.seconds;
  }

  private lookForWhistle(power: Float64Array): void {
    const binHz = this.sampleRateHz / SIZE;
    const [from, to] = [LOWEST_HZ, HIGHEST_HZ].map((hz) => Math.round(hz / binHz));
    const last = this.frames.findLast(({ whistleHz }) => whistleHz !== null)?.whistleHz ?? null;
    const top =
      (last !== null && loudest(power, (last * (1 - MOVES)) / binHz, (last * (1 + MOVES)) / binHz)) || null;
    const k = top !== null && isWhistle(power, top) ? top : loudest(power, from, to);
    const whistles = isWhistle(power, k);
    this.frames.push({
      seconds: this.seconds,
      whistleHz: whistles ? binHz * summit(power, k) : null,
      partners: PARTNERS.map((ratio) => whistles && hasPartner(power, k, ratio)),
      share: sumOf(power, k - NEAR_BINS, k + NEAR_BINS) / sumOf(power, 0, power.length - 1),
    });
    this.frames = this.frames.filter(({ seconds }) => seconds > this.seconds - MOST_SECONDS);
    const most = median(this.frames.map(({ share }) => share)) > MOST_SHARE;
    const wanted = most ? MOST_SECONDS : WHISTLES_SECONDS;
    const begin = this.seconds - wanted;
    const frames = this.frames.filter(({ seconds }) => seconds > begin);
    if (frames.length < (0.95 * wanted * this.sampleRateHz) / HOP) return;
    const heard = frames.flatMap(({ whistleHz }) => whistleHz ?? []);
    if (heard.length < (1 - MISSED_SHARE) * frames.length) return;
    const alone = PARTNERS.every(
      (_, i) => frames.filter(({ partners }) => partners[i]).length < PARTNER_SHARE * heard.length,
    );
    if (!alone) return;
    const middle = median(heard);
    if (heard.some((hz) => Math.abs(hz / middle - 1) > 3 * MOVES)) return;
    const steps = heard.slice(1).map((hz, i) => Math.abs(hz / heard[i] - 1));
    if (steps.some((step) => step > MOVES)) return;
    const spread = Math.sqrt(heard.reduce((sum, hz) => sum + (hz / middle - 1) ** 2, 0) / heard.length);
    // what holds as still as that was recorded or comes from a generator
    if (spread < STEADIER) return;
    this.tell("squeal", middle, begin);
  }

  private lookBeside(tone: NonNullable<SquealWatch["tone"]>, power: Float64Array): void {
    const binHz = this.sampleRateHz / SIZE;
    let rest = 0;
    for (let k = Math.round(REST_FROM_HZ / binHz); k < Math.min(power.length, REST_TO_HZ / binHz); k++) {
      const order = Math.round((k * binHz) / tone.hz);
      const isTone = order >= 1 && order <= HARMONICS && Math.abs(k * binHz - order * tone.hz) < BESIDE_HZ;
      if (!isTone) rest += power[k];
    }
    const at = Math.round(tone.hz / binHz);
    const ownDb = powerDb(sumOf(power, at - NEAR_BINS, at + NEAR_BINS));
    const restDbc = powerDb(rest) - ownDb;
    const usualFrames = (USUAL_SECONDS * this.sampleRateHz) / HOP;
    if (tone.rest.length < usualFrames) {
      tone.rest.push(restDbc);
      tone.levels.push(ownDb);
      return;
    }
    // the tone has ended, or was turned down: what is beside it tells nothing
    if (ownDb < median(tone.levels) - GONE_DB) {
      tone.roughSince = null;
      return;
    }
    const rougher = restDbc - median(tone.rest);
    const drags = rougher > DRAG_ROUGHER_DB && this.slowerPercent > DRAG_SLOWER_PERCENT;
    const rough = restDbc > ROUGH_DBC && (rougher > ROUGHER_DB || drags);
    if (!rough) {
      tone.roughSince = null;
      return;
    }
    tone.roughSince ??= this.seconds;
    if (this.seconds - tone.roughSince > ROUGH_SECONDS)
      this.tell(drags ? "drag" : "squeal", null, tone.roughSince);
  }
}

/** By how much a bin stands above what is around it, dB. */
function standsOut(power: Float64Array, k: number): number {
  const around: number[] = [];
  for (let d = NEAR_BINS; d <= AROUND_BINS; d++) around.push(power[Math.max(0, k - d)], power[k + d] ?? 0);
  return powerDb(power[k]) - powerDb(median(around));
}

const isWhistle = (power: Float64Array, k: number): boolean =>
  powerDb(power[k]) > LEAST_LEVEL_DB && standsOut(power, k) > WHISTLE_DB;

function sumOf(power: Float64Array, from: number, to: number): number {
  let sum = 0;
  for (let k = Math.max(0, from); k <= to; k++) sum += power[k] ?? 0;
  return sum;
}

/** The loudest bin between two places. */
function loudest(power: Float64Array, from: number, to: number): number {
  let top = Math.round(from);
  for (let k = top; k <= Math.round(to); k++) if (power[k] > power[top]) top = k;
  return top;
}

function hasPartner(power: Float64Array, k: number, ratio: number): boolean {
  const near = Math.round(k * ratio);
  if (near < NEAR_BINS || near + 2 >= power.length) return false;
  return standsOut(power, loudest(power, near - 2, near + 2)) > PARTNER_DB;
}

/** Where the summit lies between the bins, by a parabola through the levels. */
function summit(power: Float64Array, k: number): number {
  const [a, b, c] = [power[k - 1], power[k], power[k + 1]].map(powerDb);
  const bend = a - 2 * b + c;
  return bend === 0 ? k : k + (0.5 * (a - c)) / bend;
}
