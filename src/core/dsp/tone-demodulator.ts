import { FirDecimator } from "./fir-decimator";
import { kaiserLowpass } from "./kaiser-lowpass";
import { angleOf } from "./small-angle";

/** Deviation is followed flat up to this rate; 250 Hz leaves the 200 Hz of the flutter meters untouched. */
const DEVIATION_PASS_HZ = 250;
const DEVIATION_STOP_HZ = 800;
const LOWEST_OUTPUT_RATE_HZ = 1600;

/**
 * How far from nominal a tone may be to be followed, as a fraction; beyond it the pass band, which also has
 * to hold the sidebands of the flutter, begins to close.
 */
export const LARGEST_OFFSET = 0.15;
const SIDEBAND_HZ = 400;
const EXACT_EVERY = 128;

export interface ToneTrackBlock {
  /** Instantaneous frequency divided by nominal, minus one. */
  deviation: Float64Array;
  /** Peak amplitude of the tone, full scale = 1. */
  amplitude: Float64Array;
}

/**
 * Follows the instantaneous frequency and amplitude of one tone by complex demodulation.
 *
 * The steps: a complex band-pass around the nominal frequency (a low-pass moved up to it) that also
 * decimates; moving the result down to 0 Hz at the low rate, where it is cheap; a narrower low-pass;
 * the phase step from sample to sample, which is the frequency; a last low-pass down to the output rate.
 * All filters are linear in phase, 80 dB down in the first stage and 100 dB in the others where anything could
 * fold back onto the tone.
 *
 * Accepts blocks of any length. Tones from −15 % to +15 % of nominal, modulated at up to 250 Hz, or at up to
 * `deviationPassHz` where the carrier is high enough for that.
 */
export class ToneDemodulator {
  /** Rate of the results in Hz, 1600 or a little above. */
  readonly outputRateHz: number;
  /** Time of the first result, in seconds after the first sample pushed. */
  readonly firstResultSeconds: number;

  private readonly bandPass: FirDecimator;
  private readonly narrowReal: FirDecimator;
  private readonly narrowImaginary: FirDecimator;
  private readonly smoothDeviation: FirDecimator;
  private readonly smoothAmplitude: FirDecimator;
  private readonly radiansPerStep: number;
  private readonly deviationPerRadian: number;
  private mixed = 0;
  private lastReal = 0;
  private lastImaginary = 0;
  private primed = false;

  /** @throws RangeError when the sample rate is too low to hold the tone and its sidebands. */
  constructor(sampleRateHz: number, nominalHz: number, deviationPassHz = DEVIATION_PASS_HZ) {
    if (!(nominalHz >= 200 && sampleRateHz >= 2.6 * nominalHz))
      throw new RangeError(
        `a tone of ${nominalHz} Hz needs a sample rate of at least ${Math.ceil(2.6 * nominalHz)} Hz and the tone at least 200 Hz; the rate here is ${sampleRateHz} Hz`,
      );
    const wider = deviationPassHz / DEVIATION_PASS_HZ;
    const passHz = Math.min(
      LARGEST_OFFSET * nominalHz + Math.max(SIDEBAND_HZ, 1.2 * deviationPassHz),
      0.75 * nominalHz,
    );
    const stopHz = 2.2 * passHz;

    const firstFactor = Math.max(1, Math.floor(sampleRateHz / (9 * passHz)));
    const wideRateHz = sampleRateHz / firstFactor;
    const wide = kaiserLowpass(sampleRateHz, passHz, Math.max(wideRateHz - stopHz, stopHz), 80);
    const omega = (2 * Math.PI * nominalHz) / sampleRateHz;
    this.bandPass = new FirDecimator(wide, firstFactor, omega);
    this.radiansPerStep = omega * firstFactor;

    const secondFactor = Math.max(1, Math.floor(wideRateHz / (3.6 * passHz)));
    const narrow = kaiserLowpass(wideRateHz, passHz, stopHz, 100);
    this.narrowReal = new FirDecimator(narrow, secondFactor);
    this.narrowImaginary = new FirDecimator(narrow, secondFactor);
    const stepRateHz = wideRateHz / secondFactor;
    this.deviationPerRadian = stepRateHz / (2 * Math.PI * nominalHz);

    const thirdFactor = Math.max(1, Math.floor(stepRateHz / (wider * LOWEST_OUTPUT_RATE_HZ)));
    const last = kaiserLowpass(stepRateHz, deviationPassHz, wider * DEVIATION_STOP_HZ, 100);
    this.smoothDeviation = new FirDecimator(last, thirdFactor);
    this.smoothAmplitude = new FirDecimator(last, thirdFactor);
    this.outputRateHz = stepRateHz / thirdFactor;
    this.firstResultSeconds =
      this.bandPass.delaySamples / sampleRateHz +
      this.narrowReal.delaySamples / wideRateHz +
      (this.smoothDeviation.delaySamples + 0.5) / stepRateHz;
  }

  push(samples: Float64Array | Float32Array): ToneTrackBlock {
    const { re, im } = this.bandPass.push(samples);
    this.mixDown(re, im);
    const zr = this.narrowReal.push(re).re;
    const zi = this.narrowImaginary.push(im).re;

    const skip = this.primed ? 0 : Math.min(1, zr.length);
    const steps = zr.length - skip;
    const deviation = new Float64Array(steps);
    const amplitude = new Float64Array(steps);
    const perRadian = this.deviationPerRadian;
    let pr = this.primed ? this.lastReal : (zr[0] ?? 0);
    let pi = this.primed ? this.lastImaginary : (zi[0] ?? 0);
    for (let k = 0; k < steps; k++) {
      const r = zr[k + skip];
      const i = zi[k + skip];
      deviation[k] = angleOf(i * pr - r * pi, r * pr + i * pi) * perRadian;
      amplitude[k] = 2 * Math.sqrt(r * r + i * i);
      pr = r;
      pi = i;
    }
    if (zr.length > 0) {
      this.primed = true;
      this.lastReal = pr;
      this.lastImaginary = pi;
    }
    return {
      deviation: this.smoothDeviation.push(deviation).re,
      amplitude: this.smoothAmplitude.push(amplitude).re,
    };
  }

  /** Multiplies by e^(−jωt): a phasor turned step by step, set exactly once in a while so that it stays true. */
  private mixDown(re: Float64Array, im: Float64Array): void {
    const stepCos = Math.cos(this.radiansPerStep);
    const stepSin = Math.sin(this.radiansPerStep);
    let c = 1;
    let s = 0;
    for (let k = 0; k < re.length; k++) {
      if (k % EXACT_EVERY === 0) {
        const angle = ((this.mixed + k) * this.radiansPerStep) % (2 * Math.PI);
        c = Math.cos(angle);
        s = Math.sin(angle);
      }
      const a = re[k];
      const b = im[k];
      re[k] = a * c + b * s;
      im[k] = b * c - a * s;
      const turned = c * stepCos - s * stepSin;
      s = s * stepCos + c * stepSin;
      c = turned;
    }
    this.mixed += re.length;
  }
}
