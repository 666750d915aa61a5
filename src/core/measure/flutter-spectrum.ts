import { amplitudeSpectrum, type AmplitudeSpectrum } from "@/core/dsp/amplitude-spectrum";
import { FirDecimator } from "@/core/dsp/fir-decimator";
import { kaiserLowpass } from "@/core/dsp/kaiser-lowpass";
import { allOf, eachPiece, type Values } from "@/core/dsp/values";

/** The fastest rate that flutter meters read. */
const HIGHEST_RATE_HZ = 200;
/** What is folded down from above lies above that, by so much on either side. */
const PASS_HZ = 225;
const LOWEST_RATE_HZ = 600;
const ATTENUATION_DB = 80;
/** A stretch of the spectrum at most: some 49 seconds. */
const LONGEST_STRETCH = 1 << 15;

/**
 * Spectrum of a deviation without its trend (fraction, peak) from 0 Hz to a little over 200 Hz; fine enough to
 * interpolate lines in. It is made at a lower rate, where it costs less.
 */
export function flutterSpectrum(steady: Values, rateHz: number): AmplitudeSpectrum {
  const factor = Math.max(1, Math.floor(rateHz / LOWEST_RATE_HZ));
  const slow = factor === 1 ? allOf(steady) : slowed(steady, rateHz, factor);
  const used = Math.min(slow.length, LONGEST_STRETCH);
  const size = 2 ** Math.ceil(Math.log2(2 * used));
  return amplitudeSpectrum(slow, rateHz / factor, size, used);
}

/** Every so many values of a low-passed deviation, as long as itself. */
function slowed(steady: Values, rateHz: number, factor: number): Float32Array {
  const taps = kaiserLowpass(rateHz, PASS_HZ, rateHz / factor - HIGHEST_RATE_HZ, ATTENUATION_DB);
  const decimator = new FirDecimator(taps, factor);
  const edge = Math.min(steady.length, decimator.delaySamples);
  const slow = new Float32Array(Math.ceil((steady.length + 2 * edge) / factor));
  let count = 0;
  eachPiece(steady, { from: -edge, to: steady.length + edge }, (piece) => {
    const { re } = decimator.push(piece);
    slow.set(re, count);
    count += re.length;
  });
  return slow.subarray(0, count);
}
