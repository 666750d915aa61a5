import { meanOf } from "@/core/dsp/mean";
import type { SteadyStretch } from "./steady-stretch";
import { sampled } from "@/core/dsp/sampled";

/** The course of the deviation over some seconds, for drawing. */
export interface FlutterWaveform {
  /** Of the first value, on the clock of the sound. */
  startSeconds: number;
  rateHz: number;
  /** Deviation from its mean over the shown time, percent; unweighted. */
  percent: Float32Array;
}

const SHOWN_SECONDS = 6;
/** Fast enough for what a speed meter calls flutter, few enough to draw. */
const DRAWN_PER_SECOND = 200;

/** The last seconds of a stretch; all of a shorter one. Means of short pieces, so that nothing faster folds down. */
export const latestWaveform = (stretch: SteadyStretch): FlutterWaveform =>
  waveformAt(stretch, stretch.deviation.length);

/** The seconds of a stretch in which it deviates most. */
export function strongestWaveform(stretch: SteadyStretch): FlutterWaveform {
  const { deviation, rateHz } = stretch;
  const length = Math.round(SHOWN_SECONDS * rateHz);
  let [best, most] = [deviation.length, -1];
  for (let end = Math.min(length, deviation.length); end <= deviation.length; end += length >> 1) {
    const from = Math.max(0, end - length);
    const mean = meanOf(deviation, from, end);
    let squares = 0;
    for (let i = from; i < end; i++) squares += (deviation[i] - mean) ** 2;
    const power = squares / (end - from);
    if (power > most) [best, most] = [end, power];
  }
  return waveformAt(stretch, best);
}

function waveformAt({ deviation, rateHz, startSeconds }: SteadyStretch, end: number): FlutterWaveform {
  const each = Math.max(1, Math.round(rateHz / DRAWN_PER_SECOND));
  const count = Math.floor(Math.min(end, SHOWN_SECONDS * rateHz) / each);
  const first = end - count * each;
  const means = sampled(count, (i) => {
    let sum = 0;
    for (let k = 0; k < each; k++) sum += deviation[first + i * each + k];
    return sum / each;
  });
  const middle = means.reduce((a, b) => a + b, 0) / Math.max(1, count);
  return {
    startSeconds: startSeconds + first / rateHz,
    rateHz: rateHz / each,
    percent: Float32Array.from(means, (x) => 100 * (x - middle)),
  };
}
