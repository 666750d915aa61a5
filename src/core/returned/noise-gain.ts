import { louder } from "@/core/measure/louder";
import { powerDb } from "@/core/dsp/decibels";
import { NOISE_TO_HZ } from "@/core/dsp/periodic-noise";
import type { Samples } from "@/core/dsp/signal";
import { StereoSpectrum } from "@/core/dsp/stereo-spectrum";
import { INDEPENDENT_SHARE, noiseBands } from "@/core/measure/noise-bands";
import { withoutChunksHum } from "@/core/measure/noise-levels";
import { followNoise, type NoisePlace, type SentNoise } from "./follow-noise";

/** What came back of noise at one frequency, re what was sent. */
export interface NoiseGain {
  frequencyHz: number;
  gainDb: number;
  /** How far it strays while it is averaged, standard deviation. */
  spreadDb: number;
  uncertaintyDb: number;
  /** Share of what came back that hangs together with what was sent. */
  coherence: number;
}

/** Two thirds of a second, so that a third of an octave at 40 Hz holds a handful of lines. */
const SIZE_AT_48_KHZ = 32_768;
const FEWEST_FRAMES = 6;
const BATCH_FRAMES = 4;
/** The silence after the noise is cut into pieces of a twentieth of a second. */
const QUIET_SIZE_AT_48_KHZ = 4096;
/**
 * Above this what flutter is too quick to be followed takes off what hangs together, and the noise of the tape, as it
 * stands in the silence after, is taken off the whole instead.
 */
const BY_POWER_ABOVE_HZ = 1000;
/** Where less of it hangs together it is not what was sent. */
const FEWEST_COHERENCE = 0.5;
const TRUSTED_HZ = [400, 2000] as const;
const LEAST_COHERENCE = 1e-3;
const LEAST_UNCERTAINTY_DB = 0.03;
/** Of a small share of a power. */
const DB_PER_SHARE = 10 / Math.LN10;

/**
 * Gain from the noise that was sent to what came back, by H1 = Sxy ÷ Sxx (Bendat and Piersol), bin by bin over half
 * overlapping Hann windows, the time base of the tape followed. The coherence is that of each band. How sure it is: of H1
 * by the coherence (Bendat and Piersol, random errors of frequency response), of powers by how far chance moves them.
 * @param channels one or two, from some time before the noise to its end
 * @param quiet the same channels in the silence after it; null where there is none
 * @param mayOverwrite the channels are nobody else's: hum is taken out of them where they are
 * @returns gains of each channel; null where what came back is not that noise, or too short
 */
export function noiseGain(
  channels: readonly Samples[],
  sampleRateHz: number,
  sent: SentNoise,
  place: NoisePlace,
  quiet: readonly Samples[] | null,
  mayOverwrite = false,
): NoiseGain[][] | null {
  const clean = channels.map((x) => withoutChunksHum(x, sampleRateHz, mayOverwrite));
  const reference = followNoise(louder(clean), sampleRateHz, sent, place);
  if (reference === null) return null;
  const size = 2 ** Math.round(Math.log2((SIZE_AT_48_KHZ * sampleRateHz) / 48_000));
  const bands = noiseBands(sampleRateHz, size, place.speedRatio, NOISE_TO_HZ).filter(
    ({ bins }) => bins.length > 0,
  );
  const from = Math.max(0, Math.ceil(place.startSeconds * sampleRateHz));
  return channels
    .map((_, c) => {
      const { frames, sxx, syy, re, im, batches } = crossSpectra(reference, clean[c], from, size, bands);
      if (frames < FEWEST_FRAMES) return null;
      const beside = quiet && quietPower(quiet[c], sampleRateHz, size);
      const gains = bands.map(({ frequencyHz, bins }, b): NoiseGain => {
        let [together, input, output, hiss] = [0, 0, 0, 0];
        for (const k of bins) {
          const cross = (re[k] ** 2 + im[k] ** 2) / sxx[k];
          // what chance makes of frames that do not hang together
          together += Math.max(0, cross - (syy[k] - cross) / (frames - 1));
          input += sxx[k];
          output += syy[k];
          hiss += beside ? beside.power(k) * frames : 0;
        }
        const coherence = output > 0 ? Math.min(1, together / output) : 0;
        const byPower = beside !== null && frequencyHz > BY_POWER_ABOVE_HZ;
        const came = byPower ? Math.max(together, output - hiss) : together;
        const heard = INDEPENDENT_SHARE * bins.length * frames;
        // variance of the power that came, re its square; by power it is that of the hiss beside it and of the hiss that
        // was taken off, but no less than what does not hang together makes of it: a gap may be quieter than the noise was
        const apart = (2 * (1 / Math.max(coherence, LEAST_COHERENCE) - 1)) / heard;
        const ratio = came > 0 ? hiss / came : 0;
        const variance = byPower
          ? Math.max(
              apart,
              (ratio * ratio + 2 * ratio) / heard + (ratio * ratio) / (beside.independentShare * bins.length),
            )
          : apart;
        return {
          frequencyHz,
          gainDb: powerDb(came / input),
          spreadDb: spreadOf(batches.map((batch) => batch[b])),
          uncertaintyDb: Math.hypot(LEAST_UNCERTAINTY_DB, 2 * DB_PER_SHARE * Math.sqrt(variance)),
          coherence,
        };
      });
      return gains;
    })
    .reduce<NoiseGain[][] | null>((all, one) => (all && one ? [...all, one] : null), []);
}

/** Whether a channel holds the noise at all. */
export function isFollowed(gains: readonly NoiseGain[]): boolean {
  const middle = gains.filter(
    ({ frequencyHz }) => frequencyHz > TRUSTED_HZ[0] && frequencyHz < TRUSTED_HZ[1],
  );
  return middle.reduce((sum, { coherence }) => sum + coherence, 0) > FEWEST_COHERENCE * middle.length;
}

function crossSpectra(
  x: Samples,
  y: Samples,
  from: number,
  size: number,
  bands: ReadonlyArray<{ bins: number[] }>,
) {
  const spectrum = new StereoSpectrum(size);
  const bins = size / 2 + 1;
  const [sxx, syy, re, im] = Array.from({ length: 4 }, () => new Float64Array(bins));
  const batches: number[][] = [];
  let batch = bands.map(() => ({ input: 0, output: 0 }));
  let frames = 0;
  for (let at = from; at + size <= x.length; at += size / 2) {
    spectrum.transform(x, y, at);
    const { left, right, leftPower, rightPower } = spectrum;
    for (let k = 0; k < bins; k++) {
      sxx[k] += leftPower[k];
      syy[k] += rightPower[k];
      re[k] += right[2 * k] * left[2 * k] + right[2 * k + 1] * left[2 * k + 1];
      im[k] += right[2 * k + 1] * left[2 * k] - right[2 * k] * left[2 * k + 1];
    }
    bands.forEach((band, b) => {
      for (const k of band.bins) {
        batch[b].input += leftPower[k];
        batch[b].output += rightPower[k];
      }
    });
    frames++;
    if (frames % BATCH_FRAMES !== 0) continue;
    batches.push(batch.map(({ input, output }) => powerDb(output / input)));
    batch = bands.map(() => ({ input: 0, output: 0 }));
  }
  return { frames, sxx, syy, re, im, batches };
}

interface QuietPower {
  /** Of the silence in a bin of the larger transform, as one frame of it would have. */
  power(bin: number): number;
  /** Each of those bins counts as so many independent ones of one frame. */
  independentShare: number;
}

function quietPower(quiet: Samples, sampleRateHz: number, size: number): QuietPower | null {
  const small = 2 ** Math.round(Math.log2((QUIET_SIZE_AT_48_KHZ * sampleRateHz) / 48_000));
  if (quiet.length < small) return null;
  const spectrum = new StereoSpectrum(small);
  const power = new Float64Array(small / 2 + 1);
  let frames = 0;
  for (let at = 0; at + small <= quiet.length; at += small / 2, frames++) {
    spectrum.transform(quiet, null, at);
    for (let k = 0; k < power.length; k++) power[k] += spectrum.leftPower[k];
  }
  const ratio = size / small;
  // bins of the larger transform are so much narrower
  return {
    power: (bin) => power[Math.round(bin / ratio)] / frames / ratio,
    independentShare: (INDEPENDENT_SHARE * frames) / ratio,
  };
}

function spreadOf(values: number[]): number {
  if (values.length < 2) return 0;
  const mean = values.reduce((a, b) => a + b, 0) / values.length;
  return Math.sqrt(values.reduce((sum, value) => sum + (value - mean) ** 2, 0) / (values.length - 1));
}
