import { Fft } from "./fft";
import { SeededRandom } from "./seeded-random";
import { sampled } from "./sampled";

/**
 * Five seconds have few divisors in common with the power-of-two stretches that analysers take, so that every
 * stretch of a long recording is a new one and their average comes out exact.
 */
const PERIOD_SECONDS = 5;
const LOWEST_HZ = 10;
const SEED = 2011;

/**
 * One period of noise built of lines of exact amplitude and random phase, every 0.2 Hz: pink noise falls by exactly
 * 3.01 dB per octave and white noise is exactly flat from 10 Hz up to 49 % of the sample rate, not only on average.
 * RMS 1. The same rate always gives the same noise, so a recording of it can be compared with it; another rate gives
 * the same lines as far as both reach.
 * @param highestHz where its lines end; 49 % of the sample rate when left out
 */
export function noisePeriod(
  colour: "pink" | "white",
  sampleRateHz: number,
  highestHz = 0.49 * sampleRateHz,
): Float64Array {
  const key = `${colour} ${sampleRateHz} ${highestHz}`;
  const kept = periods.get(key);
  if (kept) return kept;
  const length = PERIOD_SECONDS * sampleRateHz;
  const random = new SeededRandom(SEED);
  const lines = Math.floor(highestHz * PERIOD_SECONDS);
  const re = new Float64Array(lines);
  const im = new Float64Array(lines);
  for (let k = LOWEST_HZ * PERIOD_SECONDS; k < lines; k++) {
    const amplitude = colour === "pink" ? 1 / Math.sqrt(k) : 1;
    const phase = 2 * Math.PI * random.uniform();
    re[k] = amplitude * Math.cos(phase);
    im[k] = amplitude * Math.sin(phase);
  }
  const period = sumOfLines(re, im, length);
  const rms = Math.sqrt(period.reduce((sum, v) => sum + v * v, 0) / length);
  for (let i = 0; i < length; i++) period[i] /= rms;
  if (periods.size > 3) periods.clear();
  periods.set(key, period);
  return period;
}

const periods = new Map<string, Float64Array>();

/**
 * Re Σ c[k]·e^(2πikn/length) for n = 0 … length − 1, for a length that is no power of two: the transform as a
 * convolution with a chirp (Bluestein 1970).
 */
function sumOfLines(re: Float64Array, im: Float64Array, length: number): Float64Array {
  const size = 2 ** Math.ceil(Math.log2(length + re.length));
  const fft = Fft.once(size);
  const chirp = (m: number): [number, number] => {
    const angle = (Math.PI * ((m * m) % (2 * length))) / length;
    return [Math.cos(angle), Math.sin(angle)];
  };
  const a = fft.createComplexArray();
  const b = fft.createComplexArray();
  for (let k = 0; k < re.length; k++) {
    const [c, s] = chirp(k);
    a[2 * k] = re[k] * c - im[k] * s;
    a[2 * k + 1] = re[k] * s + im[k] * c;
  }
  for (let m = -re.length + 1; m < length; m++) {
    const [c, s] = chirp(m);
    const at = 2 * ((m + size) % size);
    b[at] = c;
    b[at + 1] = -s;
  }
  const spectrum = fft.createComplexArray();
  const other = fft.createComplexArray();
  fft.transform(spectrum, a);
  fft.transform(other, b);
  for (let k = 0; k < size; k++) {
    const [r, i] = [spectrum[2 * k], spectrum[2 * k + 1]];
    spectrum[2 * k] = r * other[2 * k] - i * other[2 * k + 1];
    spectrum[2 * k + 1] = r * other[2 * k + 1] + i * other[2 * k];
  }
  fft.inverseTransform(other, spectrum);
  return sampled(length, (n) => {
    const [c, s] = chirp(n);
    return other[2 * n] * c - other[2 * n + 1] * s;
  });
}
