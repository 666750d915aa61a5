import { amplitudeOf } from "@/core/dsp/decibels";
import { whiteNoise } from "./fm-tone";
import { sampled } from "@/core/dsp/sampled";

export interface PairToneOptions {
  frequencyHz: number;
  seconds: number;
  sampleRateHz?: number;
  /** How much later the right channel is. */
  delaySeconds?: number;
  /** Slow wander of that delay about its mean, seconds at its peak. */
  weaveSeconds?: number;
  /** Level of each channel, dBFS of the peak. */
  leftDbfs?: number;
  rightDbfs?: number;
  /** White noise in each channel below its tone. */
  snrDb?: number;
  /** Speed variation common to both, peak percent at each rate in Hz. */
  flutter?: ReadonlyArray<readonly [percent: number, rateHz: number]>;
  /** Mains hum in both channels, dBFS at 50 Hz, with its harmonics. */
  humDbfs?: number;
  seed?: number;
}

const mainsAt = (t: number) =>
  [1, 2, 3, 6, 20].reduce((sum, k) => sum + Math.sin(2 * Math.PI * 50 * k * t + k) / Math.sqrt(k), 0);

/** A tone from a tape in two channels, in closed form: one time base, the right channel later, noise and hum. */
export function pairTone(options: PairToneOptions): [Float64Array, Float64Array] {
  const { frequencyHz, seconds, sampleRateHz = 48000, delaySeconds = 0, weaveSeconds = 0 } = options;
  const { leftDbfs = -12, rightDbfs = -12.5, snrDb = 60, flutter = [], humDbfs, seed = 1 } = options;
  const n = Math.round(seconds * sampleRateHz);
  const tapeTime = (t: number) =>
    t +
    flutter.reduce(
      (sum, [percent, rate]) =>
        sum - ((percent / 100) * Math.cos(2 * Math.PI * rate * t)) / (2 * Math.PI * rate),
      0,
    );
  const channel = (dbfs: number, late: (t: number) => number, noiseSeed: number) => {
    const gain = amplitudeOf(dbfs);
    const noise = whiteNoise(n, (gain / Math.SQRT2) * amplitudeOf(-snrDb), noiseSeed);
    return sampled(n, (i) => {
      const t = i / sampleRateHz;
      const hum = humDbfs === undefined ? 0 : amplitudeOf(humDbfs) * mainsAt(t);
      return noise[i] + hum + gain * Math.sin(2 * Math.PI * frequencyHz * (tapeTime(t) - late(t)));
    });
  };
  const weave = (t: number) => weaveSeconds * Math.sin(2 * Math.PI * 0.31 * t + seed);
  return [
    channel(leftDbfs, () => 0, 2 * seed),
    channel(rightDbfs, (t) => delaySeconds + weave(t), 2 * seed + 1),
  ];
}
