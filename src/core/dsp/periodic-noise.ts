import { Fft } from "./fft";
import { SeededRandom } from "./seeded-random";

/**
 * Five seconds have few divisors in common with the power-of-two stretches that analysers take, so that every
 * stretch of a long recording is a new one and their average comes out exact.
 */
const PERIOD_SECONDS = 5;
const LOWEST_HZ = 10;
/** Its lines end here, or at 49 % of the sample rate where that is lower. */
export const NOISE_TO_HZ = 23_520;
const SEED = 2011;

/**
 * One period of noise built of lines of exact amplitude and random phase, every 0.2 Hz: pink noise falls by exactly
 * 3.01 dB per octave and white noise is exactly flat from 10 Hz up to 23.52 kHz, not only on average. RMS 1 of all its
 * lines. Every rate gives the same lines as far as it reaches, as strong and in the same phase, so a recording at any
 * rate can be compared with it.
 */
export function noisePeriod(colour: "pink" | "white", sampleRateHz: number): Float64Array {
  const key = `${colour} ${sampleRateHz}`;
  const kept = periods.get(key);
  if (kept) return kept;
  const length = PERIOD_SECONDS * sampleRateHz;
  const random = new SeededRandom(SEED);
  const lines = Math.floor(Math.min(0.49 * sampleRateHz, NOISE_TO_HZ) * PERIOD_SECONDS);
  const one = 1 / rmsOfAll(colour);
  const re = new Float64Array(lines);
  const im = new Float64Array(lines);
  for (let k = LOWEST_HZ * PERIOD_SECONDS; k < lines; k++) {
    const amplitude = one * amplitudeOf(colour, k);
    const phase = 2 * Math.PI * random.uniform();
    re[k] = amplitude * Math.cos(phase);
    im[k] = amplitude * Math.sin(phase);
  }
  const period = sumOfLines(re, im, length);
  if (periods.size > 3) periods.clear();
  periods.set(key, period);
  return period;
}

/** Of line `k`, re any other. */
const amplitudeOf = (colour: "pink" | "white", k: number): number =>
  colour === "pink" ? 1 / Math.sqrt(k) : 1;

/** Of all the lines up to the highest, as `amplitudeOf` has them. */
function rmsOfAll(colour: "pink" | "white"): number {
  let power = 0;
  for (let k = LOWEST_HZ * PERIOD_SECONDS; k < NOISE_TO_HZ * PERIOD_SECONDS; k++)
    power += amplitudeOf(colour, k) ** 2 / 2;
  return Math.sqrt(power);
}

const periods = new Map<string, Float64Array>();

/** A transform of this many values is cheap, and small. */
const MOST_AT_ONCE = 65_536;

/**
 * Re Σ c[k]·e^(2πikn/length) for n = 0 … length − 1, for a length that is no power of two: every `parts`-th n at a time,
 * so that the transforms are small (Cooley and Tukey 1965).
 */
function sumOfLines(re: Float64Array, im: Float64Array, length: number): Float64Array {
  let parts = Math.ceil(length / MOST_AT_ONCE);
  while (length % parts !== 0) parts++;
  const count = length / parts;
  const transform = chirpTransform(count);
  const sum = new Float64Array(length);
  const lines = new Float64Array(2 * count);
  for (let part = 0; part < parts; part++) {
    lines.fill(0);
    for (let k = 0; k < re.length; k++) {
      const angle = (2 * Math.PI * ((k * part) % length)) / length;
      const [c, s] = [Math.cos(angle), Math.sin(angle)];
      const at = 2 * (k % count);
      lines[at] += re[k] * c - im[k] * s;
      lines[at + 1] += re[k] * s + im[k] * c;
    }
    const values = transform(lines);
    for (let n = 0; n < count; n++) sum[parts * n + part] = values[n];
  }
  return sum;
}

/**
 * Re Σ c[k]·e^(2πikn/count), k and n from 0 to count − 1, for any count: the transform as a convolution with a chirp
 * (Bluestein 1970).
 * @returns what makes of `count` complex values, interleaved re, im, as many real ones, in an array that is used again
 */
function chirpTransform(count: number): (lines: Float64Array) => Float64Array {
  const size = Math.max(4, 2 ** Math.ceil(Math.log2(2 * count)));
  const fft = Fft.once(size);
  const chirp = new Float64Array(2 * count);
  const response = fft.createComplexArray();
  for (let m = 0; m < count; m++) {
    const angle = (Math.PI * ((m * m) % (2 * count))) / count;
    const [c, s] = [Math.cos(angle), Math.sin(angle)];
    [chirp[2 * m], chirp[2 * m + 1]] = [c, s];
    for (const at of [2 * m, 2 * ((size - m) % size)]) [response[at], response[at + 1]] = [c, -s];
  }
  fft.transform(response, response);
  const values = fft.createComplexArray();
  const out = new Float64Array(count);
  return (lines) => {
    values.fill(0);
    multiply(lines, chirp, values);
    fft.transform(values, values);
    multiply(values, response, values);
    fft.inverseTransform(values, values);
    multiply(values, chirp, values);
    for (let n = 0; n < count; n++) out[n] = values[2 * n];
    return out;
  };
}

/** Complex products, interleaved re, im, as many as `y` holds. */
function multiply(x: Float64Array, y: Float64Array, into: Float64Array): void {
  for (let k = 0; k < y.length; k += 2) {
    const [re, im] = [x[k] * y[k] - x[k + 1] * y[k + 1], x[k] * y[k + 1] + x[k + 1] * y[k]];
    [into[k], into[k + 1]] = [re, im];
  }
}
