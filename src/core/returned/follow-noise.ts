import { CrossCorrelator } from "@/core/dsp/cross-correlation";
import { amplitudeOf } from "@/core/dsp/decibels";
import { noisePeriod } from "@/core/dsp/periodic-noise";
import { joined } from "@/core/dsp/joined";
import { INTERPOLATOR_REACH, interpolateIn } from "@/core/dsp/sinc-interpolator";
import type { Samples } from "@/core/dsp/signal";
import { sampled } from "@/core/dsp/sampled";

/** Noise as it was sent. */
export interface SentNoise {
  kind: "pink" | "white";
  /** Peak of the sine whose RMS it has, dBFS. */
  levelDb: number;
}

/** Where it lies in a piece of sound: its beginning and the speed of the tape. */
export interface NoisePlace {
  startSeconds: number;
  speedRatio: number;
}

/** The noise is kept so finely that reading between its samples costs nothing below 20 kHz. */
const TABLE_HZ = 96_000;
/** The band that tells the time: strong in any machine, and narrow enough for the tape's noise. */
const FROM_HZ = 300;
const TO_HZ = 6000;
/** First the whole is found within the error of its mark, then each twentieth of a second after the one before it. */
const FIRST_SECONDS = 1.3;
const FIRST_REACH_SECONDS = 0.03;
const FRAME_SECONDS = 0.043;
const REACH_SECONDS = 0.0006;
const FEWEST_HEIGHT = 0.2;

/**
 * What was sent, sample by sample as it lies in what came back: the wandering of the tape is followed by correlation,
 * a frame after the other. As much as `heard` is long; nought before the noise begins.
 * @param heard the channel that is followed
 * @returns null where it is not that noise
 */
export function followNoise(
  heard: Samples,
  sampleRateHz: number,
  sent: SentNoise,
  place: NoisePlace,
): Float32Array | null {
  const period = noisePeriod(sent.kind, TABLE_HZ);
  const around = joined(
    period.subarray(-INTERPOLATOR_REACH),
    period,
    period.subarray(0, INTERPOLATOR_REACH + 1),
  );
  const gain = amplitudeOf(sent.levelDb) * Math.SQRT1_2;
  const at = (seconds: number) => {
    const place = (seconds * TABLE_HZ) % period.length;
    return gain * interpolateIn(around, INTERPOLATOR_REACH + (place < 0 ? place + period.length : place));
  };
  /** The noise as it would lie in these samples, so many seconds later than the place says. */
  const expected = (from: number, count: number, late: number) =>
    sampled(count, (i) => at(((from + i) / sampleRateHz - place.startSeconds - late) * place.speedRatio));

  const first = Math.min(heard.length, Math.round(FIRST_SECONDS * sampleRateHz));
  const whole = new CrossCorrelator(first, sampleRateHz, FROM_HZ, TO_HZ);
  const begin = Math.max(0, Math.min(heard.length - first, Math.ceil(place.startSeconds * sampleRateHz)));
  const reach = Math.round(FIRST_REACH_SECONDS * sampleRateHz);
  const start = whole.peak(heard.subarray(begin, begin + first), expected(begin, first, 0), reach);
  if (start.height < FEWEST_HEIGHT) return null;

  const size = 2 * Math.round((FRAME_SECONDS * sampleRateHz) / 2);
  const hop = size / 2;
  const near = new CrossCorrelator(size, sampleRateHz, FROM_HZ, TO_HZ);
  const nearReach = Math.max(2, Math.round(REACH_SECONDS * sampleRateHz));
  const lates: number[] = [];
  let late = start.lag / sampleRateHz;
  for (let from = begin; from + size <= heard.length; from += hop) {
    const { lag, height } = near.peak(
      heard.subarray(from, from + size),
      expected(from, size, late),
      nearReach,
    );
    // a drop-out tells nothing of the time
    if (height >= FEWEST_HEIGHT) late += lag / sampleRateHz;
    lates.push(late);
  }
  if (lates.length === 0) return null;
  const sentThere = new Float32Array(heard.length);
  for (let i = 0; i < heard.length; i++) {
    const frame = (i - begin - hop) / hop;
    const before = Math.max(0, Math.min(lates.length - 1, Math.floor(frame)));
    const after = Math.min(lates.length - 1, before + 1);
    const share = Math.max(0, Math.min(1, frame - before));
    const lateness = lates[before] + share * (lates[after] - lates[before]);
    const passed = i / sampleRateHz - place.startSeconds - lateness;
    sentThere[i] = passed < 0 ? 0 : at(passed * place.speedRatio);
  }
  return sentThere;
}
