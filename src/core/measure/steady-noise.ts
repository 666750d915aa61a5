import { HighPass } from "@/core/dsp/filter-section";
import { powerDb } from "@/core/dsp/decibels";
import { median } from "@/core/dsp/quantile";
import type { Samples } from "@/core/dsp/signal";

/** The stretch of a recording of silence that a noise figure may be taken from. */
export interface SteadyNoise {
  /** Frames of the sound, the last not counted; nothing where no figure can be given. */
  from: number;
  to: number;
  usedSeconds: number;
  /** What was left out, in sentences; also why there is no figure. */
  notes: string[];
  /** Why no figure of noise can be given, in a sentence; null where one can. */
  doubt: string | null;
}

const FRAME_SECONDS = 0.1;
/** Hum is not noise, and wanders. */
const ABOVE_HZ = 200;
const SECTIONS = 2;
/** A frame of noise is this near to all others of it, dB: four standard deviations of a tenth of a second of tape hiss. */
const USUAL_DB = 1.8;
/** Fewer frames than this beside each other are a click, which belongs to the noise. */
const CLICK_FRAMES = 1;
/** What is left out on both sides of what is no noise. */
const MARGIN_FRAMES = 2;
/** Two floors that differ by more are of two conditions, dB. */
const OTHER_FLOOR_DB = 3;
const FLOOR_FRAMES = 5;
const SHORTEST_SECONDS = 1;
/** A floor that is not noise in more than this share of the time is no floor. */
const LEAST_SHARE = 0.25;

/**
 * Finds the longest stationary stretch of what should be silence in a channel: what is louder or softer for a
 * while (voices, a recording that ends, a gate that opens and closes) and digital silence are left out. Two floors in one
 * recording leave open which of them is the machine's.
 * @param x full scale = ±1
 */
export function steadyNoise(x: Samples, sampleRateHz: number): SteadyNoise {
  const size = Math.round(FRAME_SECONDS * sampleRateHz);
  const count = Math.floor(x.length / size);
  const none = (doubt: string, notes: string[] = []): SteadyNoise => ({
    from: 0,
    to: 0,
    usedSeconds: 0,
    notes: [...notes, doubt],
    doubt,
  });
  if (count < 2)
    return { from: 0, to: x.length, usedSeconds: (count * size) / sampleRateHz, notes: [], doubt: null };
  const levels = framesOf(x, sampleRateHz, size, count);
  const isDigital = levels.map((db) => db === -Infinity);
  const digital = isDigital.filter(Boolean).length;
  const seconds = (frameCount: number) => ((frameCount * size) / sampleRateHz).toFixed(1);
  const notes =
    digital > 0 ? [`${seconds(digital)} s of digital silence left out: muted, edited, or a noise gate.`] : [];
  if (digital > (1 - LEAST_SHARE) * count)
    return none("Digital silence: no analogue path has that. Record it again without a gate or mute.", notes);
  const typical = median(levels.filter((db) => db > -Infinity));
  const usual = withoutClicks(
    levels.map((db) => Math.abs(db - typical) < USUAL_DB),
    isDigital,
  );
  const [from, to] = longestRun(usual);
  const used = to - from;
  if (
    (used * size) / sampleRateHz < Math.min(SHORTEST_SECONDS, (LEAST_SHARE * count * size) / sampleRateHz) ||
    used < LEAST_SHARE * count
  )
    return none(
      "The noise is not steady: its level comes and goes. Record silence for longer, without sound, gate or noise suppression.",
      notes,
    );
  const other = otherFloorDb(levels, typical, usual, isDigital);
  if (other !== null)
    return none(
      `The noise floor changes by ${other.toFixed(0)} dB on the way: a gate or noise suppressor, or the recording ends. Which of the two is the machine's is open: record it in one condition.`,
      notes,
    );
  const leftOut = count - used - digital;
  return {
    from: from * size,
    to: to === count ? x.length : to * size,
    usedSeconds: (used * size) / sampleRateHz,
    notes:
      leftOut > 2 * MARGIN_FRAMES
        ? [
            ...notes,
            `${seconds(leftOut)} s left out in which it is louder or softer; ${seconds(used)} s measured.`,
          ]
        : notes,
    doubt: null,
  };
}

/** Level of each frame without hum, dBFS; of one in which nothing moves −∞. */
function framesOf(x: Samples, sampleRateHz: number, size: number, count: number): number[] {
  const highPass = new HighPass(ABOVE_HZ, SECTIONS, sampleRateHz);
  return Array.from({ length: count }, (_, f) => {
    const frame = x.subarray(f * size, (f + 1) * size);
    const moves = frame.some((value) => value !== frame[0]);
    const power = highPass.push(frame).reduce((sum, value) => sum + value * value, 0);
    return moves ? powerDb(power / size) : -Infinity;
  });
}

/** A single odd frame is a click, and part of the noise; what lasts longer is not, with a little on both sides of it. */
function withoutClicks(usual: readonly boolean[], isDigital: readonly boolean[]): boolean[] {
  const odd = usual.map((one, i) => {
    if (one) return false;
    if (isDigital[i]) return true;
    let [first, last] = [i, i];
    while (first > 0 && !usual[first - 1]) first--;
    while (last + 1 < usual.length && !usual[last + 1]) last++;
    return last - first + 1 > CLICK_FRAMES;
  });
  return odd.map((_, i) => !odd.slice(Math.max(0, i - MARGIN_FRAMES), i + MARGIN_FRAMES + 1).some(Boolean));
}

function longestRun(is: readonly boolean[]): [from: number, to: number] {
  let best: [number, number] = [0, 0];
  let from = 0;
  for (let i = 0; i <= is.length; i++) {
    if (i < is.length && is[i]) continue;
    if (i - from > best[1] - best[0]) best = [from, i];
    from = i + 1;
  }
  return best;
}

/** Another steady floor in what is left out, dB from the usual one; null where there is none. */
function otherFloorDb(
  levels: readonly number[],
  typical: number,
  usual: readonly boolean[],
  isDigital: readonly boolean[],
): number | null {
  for (let i = 0; i + FLOOR_FRAMES <= levels.length; i++) {
    const part = levels.slice(i, i + FLOOR_FRAMES);
    const odd = part.every((_, k) => !usual[i + k] && !isDigital[i + k]);
    if (!odd || Math.max(...part) - Math.min(...part) > USUAL_DB) continue;
    const off = Math.abs(median(part) - typical);
    if (off > OTHER_FLOOR_DB) return off;
  }
  return null;
}
