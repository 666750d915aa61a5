import { amplitudeSpectrum } from "@/core/dsp/amplitude-spectrum";
import { FirDecimator } from "@/core/dsp/fir-decimator";
import { summitNear } from "@/core/dsp/spectral-summit";
import { kaiserLowpass } from "@/core/dsp/kaiser-lowpass";

export interface HumSpeed {
  /** Null when no hum of the recording's own is heard. */
  speedErrorPercent: number | null;
  uncertaintyPercent: number;
  /** Which line was read. */
  lineHz: number | null;
  harmonic: number;
}

const LOW_RATE_HZ = 1000;
const WIDEST = 0.09;
const HARMONICS = [1, 2, 3, 4];
const ABOVE_FLOOR = 8;
/** A line within this of the mains is taken for the hum of the player itself. */
const OWN_HUM = 0.0006;
/** Mains wander by about this at any moment, ± at 95 %: ±0.1 Hz on 50. */
const OWN_LINES = 3;
/** Fainter than this share of the strongest line it would drown in that line's skirts. */
const FAINTEST_SHARE = 1e-3;
/** Side lobes of a line reach so many lines and are at most so large a share of it. */
const SKIRT = { lines: 14, share: 0.04 };
const MAINS_PERCENT = 0.2;
const LONGEST_SECONDS = 120;

/**
 * Speed from mains hum that was recorded on the tape: its line stands beside the mains by as much as the tape runs
 * wrong. The player's own hum stands on the mains and is passed over.
 * @param x mono, @param mainsHz of the place where the recording was made
 */
export function humSpeedOf(x: Float32Array, rateHz: number, mainsHz: 50 | 60): HumSpeed {
  const factor = Math.max(1, Math.floor(rateHz / LOW_RATE_HZ));
  const lowHz = rateHz / factor;
  const decimator = new FirDecimator(kaiserLowpass(rateHz, 0.3 * lowHz, 0.6 * lowHz, 70), factor);
  const low = decimator.push(x.subarray(0, Math.round(LONGEST_SECONDS * rateHz))).re;
  const size = 4 * 2 ** Math.ceil(Math.log2(Math.max(64, low.length)));
  const { amplitude, binHz } = amplitudeSpectrum(low, lowHz, size, low.length);
  let best: { height: number; hz: number; harmonic: number } | null = null;
  for (const harmonic of HARMONICS) {
    const middle = harmonic * mainsHz;
    const from = Math.max(1, Math.floor((middle * (1 - WIDEST)) / binHz));
    const to = Math.min(amplitude.length - 2, Math.ceil((middle * (1 + WIDEST)) / binHz));
    if (to <= from) continue;
    const sorted = amplitude.slice(from, to).sort();
    const floor = Math.max(
      sorted[sorted.length >> 1],
      (FAINTEST_SHARE * sorted[sorted.length - 1]) / ABOVE_FLOOR,
    );
    for (let k = from; k <= to; k++) {
      const [a, b, c] = [amplitude[k - 1], amplitude[k], amplitude[k + 1]];
      if (!(b > a && b >= c && b > ABOVE_FLOOR * floor)) continue;
      const hz = (k + summitNear(amplitude, k).shift) * binHz;
      const line = lowHz / low.length;
      const own = Math.abs(hz - middle) < Math.max(OWN_HUM * middle, OWN_LINES * line);
      if (own || (best && b <= best.height) || inSkirts(amplitude, k, line / binHz)) continue;
      best = { height: b, hz, harmonic };
    }
  }
  if (best === null)
    return { speedErrorPercent: null, uncertaintyPercent: MAINS_PERCENT, lineHz: null, harmonic: 0 };
  const resolution = (100 * 0.3 * lowHz) / low.length / (best.harmonic * mainsHz);
  return {
    speedErrorPercent: 100 * (best.hz / (best.harmonic * mainsHz) - 1),
    uncertaintyPercent: Math.hypot(MAINS_PERCENT, resolution),
    lineHz: best.hz,
    harmonic: best.harmonic,
  };
}

function inSkirts(amplitude: Float64Array, k: number, binsPerLine: number): boolean {
  const reach = Math.round(SKIRT.lines * binsPerLine);
  for (let j = Math.max(0, k - reach); j <= Math.min(amplitude.length - 1, k + reach); j++)
    if (amplitude[k] < SKIRT.share * amplitude[j]) return true;
  return false;
}
