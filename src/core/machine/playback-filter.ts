import { digitalSection, prewarp, SectionFilter } from "@/core/dsp/filter-section";
import { FirDecimator } from "@/core/dsp/fir-decimator";
import { besselI0 } from "@/core/dsp/kaiser-lowpass";
import { trebleGain, type Equalisation } from "./playback-gain";
import type { TransportParameters } from "./transport-parameters";

const HALF_TAPS = 255;
const BETA = 6;
/** Gains that differ from 1 by less everywhere are not worth a filter. */
const FLAT = 5e-4;
const LOWEST_POLE_HZ = 2;

/**
 * The playback head and amplifier of one channel over a stream: the treble gain as a symmetric filter, the first
 * time constants as a shelf. Delays by a constant 255 samples, or not at all when everything is flat.
 */
export class PlaybackFilter {
  private readonly treble: FirDecimator | null;
  private readonly bass: SectionFilter | null;

  constructor(parameters: TransportParameters, tape: Equalisation, sampleRateHz: number) {
    const gain = (hz: number) => trebleGain(parameters, tape, hz);
    const flat = Array.from({ length: 200 }, (_, i) => (i + 1) * 110).every(
      (hz) => Math.abs(gain(hz) - 1) < FLAT,
    );
    this.treble = flat ? null : new FirDecimator(tapsFor(gain, sampleRateHz), 1);
    this.treble?.push(new Float64Array(2 * HALF_TAPS));
    this.bass = bassShelf(tape.t1Microseconds, parameters["playback.t1Microseconds"], sampleRateHz);
  }

  /** Same length out as in. */
  push(block: Float64Array): Float64Array {
    const out = this.treble ? this.treble.push(block).re : block;
    this.bass?.push(out);
    return out;
  }
}

/** Frequency sampling: the wanted gain as a sum of cosines, windowed. */
function tapsFor(gain: (hz: number) => number, sampleRateHz: number): Float64Array {
  const points = 1024;
  const wanted = Float64Array.from({ length: points + 1 }, (_, k) =>
    gain(Math.max(1, Math.min(0.46, k / (2 * points)) * sampleRateHz)),
  );
  const taps = new Float64Array(2 * HALF_TAPS + 1);
  for (let n = 0; n <= HALF_TAPS; n++) {
    let sum = wanted[0] / 2 + (wanted[points] / 2) * Math.cos(Math.PI * n);
    for (let k = 1; k < points; k++) sum += wanted[k] * Math.cos((Math.PI * k * n) / points);
    const window = besselI0(BETA * Math.sqrt(1 - (n / (HALF_TAPS + 1)) ** 2)) / besselI0(BETA);
    taps[HALF_TAPS + n] = taps[HALF_TAPS - n] = (sum / points) * window;
  }
  return taps;
}

/** (s + 1/t₁ of the tape) ÷ (s + 1/t₁ of the machine); null when they are the same. */
function bassShelf(tapeT1: number, machineT1: number, sampleRateHz: number): SectionFilter | null {
  if (tapeT1 === machineT1) return null;
  const corner = (t1: number) => (t1 === 0 ? 0 : 1e6 / (2 * Math.PI * t1));
  const zero = corner(tapeT1);
  const pole = Math.max(LOWEST_POLE_HZ, corner(machineT1));
  return new SectionFilter(
    digitalSection(
      {
        numerator: [0, 1, prewarp(zero, sampleRateHz)],
        denominator: [0, 1, prewarp(pole, sampleRateHz)],
      },
      sampleRateHz,
    ),
  );
}
