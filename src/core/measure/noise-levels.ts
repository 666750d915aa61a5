import type { Samples } from "@/core/dsp/signal";
import { powerDb } from "@/core/dsp/decibels";
import { StereoSpectrum } from "@/core/dsp/stereo-spectrum";
import { INDEPENDENT_SHARE, noiseBands } from "./noise-bands";
import type { WideLevel } from "./wide-levels";
import { withoutHum } from "./without-hum";

/** Two thirds of a second, so that a third of an octave at 40 Hz holds a handful of lines. */
const SIZE_AT_48_KHZ = 32_768;
/** The mains holds its phase for so long, and so long tells its lines from the noise around them. */
const HUM_CHUNK_SECONDS = 20;
const BATCH_FRAMES = 4;
const DB_PER_SHARE = 10 / Math.LN10;
const FEWEST_FRAMES = 8;

/**
 * Level of pink noise in each channel, in bands of a third of an octave below 400 Hz and a sixth above: what pink noise
 * would have in the same bins is taken away, so that a flat machine reads one level throughout. Mains hum is taken out
 * first. Only the spectrum of the noise is known, not its samples, so each level is known only as well as chance
 * allows: ±2·4.34 dB ÷ √(bandwidth · time).
 * @param channels one or two, of the same length
 * @returns levels of each channel; empty when there is too little to hear
 */
export function noiseLevels(channels: readonly Samples[], sampleRateHz: number): WideLevel[][] {
  const size = 2 ** Math.round(Math.log2((SIZE_AT_48_KHZ * sampleRateHz) / 48_000));
  const [first, second = null] = channels.map((x) => withoutChunksHum(x, sampleRateHz));
  const spectrum = new StereoSpectrum(size);
  const bands = noiseBands(sampleRateHz, size);
  const total = channels.map(() => bands.map(() => 0));
  const batches: number[][][] = channels.map(() => []);
  let batch = total.map((levels) => [...levels]);
  let frames = 0;
  for (let at = 0; at + size <= first.length; at += size / 2) {
    spectrum.transform(first, second, at);
    frames++;
    [spectrum.leftPower, spectrum.rightPower].slice(0, channels.length).forEach((power, c) =>
      bands.forEach(({ bins }, b) => {
        const share = rePink(power, bins);
        total[c][b] += share;
        batch[c][b] += share;
      }),
    );
    if (frames % BATCH_FRAMES !== 0) continue;
    batch.forEach((levels, c) => batches[c].push(levels.map(powerDb)));
    batch = total.map((levels) => levels.map(() => 0));
  }
  if (frames < FEWEST_FRAMES) return channels.map(() => []);
  return total.map((levels, c) =>
    bands.map(({ frequencyHz, bins }, b) => {
      const each = varianceOf(batches[c].map((one) => one[b]));
      return {
        frequencyHz,
        levelDb: powerDb(levels[b] / frames),
        // what a batch strays more than chance makes it
        spreadDb: Math.sqrt(Math.max(0, each - chanceDb(bins.length, BATCH_FRAMES) ** 2)),
        uncertaintyDb: 2 * chanceDb(bins.length, frames),
      };
    }),
  );
}

/** Sound without its hum, learned in every few seconds of it anew; the mains wander. */
export function withoutChunksHum(x: Samples, rate: number, mayOverwrite = false): Samples {
  const count = Math.max(1, Math.round(x.length / rate / HUM_CHUNK_SECONDS));
  if (count === 1) return withoutHum(x, rate, { mayOverwrite }).samples;
  const out = mayOverwrite ? x : x.slice();
  for (let i = 0; i < count; i++) {
    const from = Math.round((i * x.length) / count);
    withoutHum(out.subarray(from, Math.round(((i + 1) * x.length) / count)), rate, { mayOverwrite: true });
  }
  return out;
}

/** Standard deviation of a level over so many bins and frames, by chance. */
const chanceDb = (bins: number, frames: number): number =>
  DB_PER_SHARE / Math.sqrt(Math.max(1, INDEPENDENT_SHARE * bins * frames));

/** Power of some bins over what pink noise has there. */
function rePink(power: Float64Array, bins: number[]): number {
  let [heard, pink] = [0, 0];
  for (const k of bins) {
    heard += power[k];
    pink += 1 / k;
  }
  return heard / pink;
}

function varianceOf(values: number[]): number {
  if (values.length < 2) return 0;
  const mean = values.reduce((a, b) => a + b, 0) / values.length;
  return values.reduce((sum, value) => sum + (value - mean) ** 2, 0) / (values.length - 1);
}
