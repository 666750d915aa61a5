import { ChainedFir } from "./chained-fir";
import { KernelRoom } from "./fir-kernel";
import { joinedSingles } from "./joined";
import { kaiserLowpass } from "./kaiser-lowpass";
import type { Samples } from "./signal";

/** Deviation is followed flat up to this rate; 250 Hz leaves the 200 Hz of the flutter meters untouched. */
const DEVIATION_PASS_HZ = 250;
const DEVIATION_STOP_HZ = 800;
const LOWEST_OUTPUT_RATE_HZ = 1600;
/** A long block is taken in parts that stay at hand. */
const MOST_AT_ONCE = 32_768;

/**
 * How far from nominal a tone may be to be followed, as a fraction; beyond it the pass band, which also has
 * to hold the sidebands of the flutter, begins to close.
 */
export const LARGEST_OFFSET = 0.15;
const SIDEBAND_HZ = 400;
/** Rate over the highest frequency that is to come through, in the first stage. */
const FIRST_RATE = 2.8;

/** Stop band of the filter around the tone, as a multiple of its pass band. */
const STOPS_AT = 2.2;
/** Of a low tone less is kept, so that its own second harmonic and what is at 0 Hz are outside, shares of the tone. */
const MOST_PASS = 0.5;
const MOST_STOP = 0.8;
const LOWEST_TONE_HZ = 200;
/** Steps for each cycle of the fastest deviation that is followed. */
const LEAST_STEPS = 2.2;

/** Half the width of what is kept around a tone. */
const passOf = (nominalHz: number, deviationPassHz: number): number =>
  Math.min(LARGEST_OFFSET * nominalHz + Math.max(SIDEBAND_HZ, 1.2 * deviationPassHz), MOST_PASS * nominalHz);

/**
 * The lowest sample rate, Hz, at which a tone can be followed: what is kept around it lies below half of that, and the
 * tone's own image beyond half of it is stopped.
 */
export const leastRateFor = (nominalHz: number, deviationPassHz = DEVIATION_PASS_HZ): number =>
  Math.max(2.6 * nominalHz, 2 * nominalHz + STOPS_AT * passOf(nominalHz, deviationPassHz));

export interface ToneTrackBlock {
  /** Instantaneous frequency divided by nominal, minus one. */
  deviation: Float32Array;
  /** Peak amplitude of the tone, full scale = 1. */
  amplitude: Float32Array;
}

/**
 * Follows the instantaneous frequency and amplitude of one tone by complex demodulation.
 *
 * The steps: a low-pass that decimates; a complex band-pass around the nominal frequency (a low-pass moved up to it) that
 * decimates again; the phase step from sample to sample, which is the frequency, less that of the nominal frequency; a last
 * low-pass down to the output rate. All filters are linear in phase, 80 dB down in the first stage and 100 dB in the
 * others where anything could fold back onto the tone.
 *
 * Accepts blocks of any length. Tones from −15 % to +15 % of nominal, modulated at up to 250 Hz, or at up to
 * `deviationPassHz` where the carrier is high enough for that.
 */
export class ToneDemodulator {
  /** Rate of the results in Hz, 1600 or a little above. */
  readonly outputRateHz: number;
  /** Time of the first result, in seconds after the first sample pushed. */
  readonly firstResultSeconds: number;

  /** Null where the rate is low as it is. */
  private readonly lowPass: ChainedFir | null;
  private readonly bandPass: ChainedFir;
  private readonly smoothDeviation: ChainedFir;
  private readonly smoothAmplitude: ChainedFir;
  /** By which the nominal frequency turns on from step to step. */
  private readonly steady: { cos: number; sin: number };
  private readonly deviationPerRadian: number;
  /** The last point that was heard. */
  private last: readonly [number, number] | null = null;

  /** @throws RangeError when the sample rate is too low to hold the tone and its sidebands. */
  constructor(sampleRateHz: number, nominalHz: number, deviationPassHz = DEVIATION_PASS_HZ) {
    const leastHz = leastRateFor(nominalHz, deviationPassHz);
    if (!(nominalHz >= LOWEST_TONE_HZ && sampleRateHz >= leastHz))
      throw new RangeError(
        `a tone of ${nominalHz} Hz needs a sample rate of at least ${Math.ceil(leastHz)} Hz and the tone at least ${LOWEST_TONE_HZ} Hz; the rate here is ${sampleRateHz} Hz`,
      );
    const wider = deviationPassHz / DEVIATION_PASS_HZ;
    const passHz = passOf(nominalHz, deviationPassHz);
    const highestHz = nominalHz + passHz;

    const firstFactor = Math.max(1, Math.floor(sampleRateHz / (FIRST_RATE * highestHz)));
    const firstRateHz = sampleRateHz / firstFactor;
    this.lowPass =
      firstFactor === 1
        ? null
        : new ChainedFir(kaiserLowpass(sampleRateHz, highestHz, firstRateHz - highestHz, 80), firstFactor);

    const leastStepRateHz = Math.max(3.6 * passHz, LEAST_STEPS * deviationPassHz);
    const secondFactor = Math.max(1, Math.floor(firstRateHz / leastStepRateHz));
    const stepRateHz = firstRateHz / secondFactor;
    const omega = (2 * Math.PI * nominalHz) / firstRateHz;
    this.bandPass = new ChainedFir(
      kaiserLowpass(firstRateHz, passHz, Math.min(STOPS_AT * passHz, MOST_STOP * nominalHz), 100),
      secondFactor,
      omega,
    );
    this.steady = { cos: Math.cos(omega * secondFactor), sin: Math.sin(omega * secondFactor) };
    this.deviationPerRadian = stepRateHz / (2 * Math.PI * nominalHz);

    const thirdFactor = Math.max(1, Math.floor(stepRateHz / (wider * LOWEST_OUTPUT_RATE_HZ)));
    const last = kaiserLowpass(stepRateHz, deviationPassHz, wider * DEVIATION_STOP_HZ, 100);
    this.smoothDeviation = new ChainedFir(last, thirdFactor);
    this.smoothAmplitude = new ChainedFir(last, thirdFactor);
    this.outputRateHz = stepRateHz / thirdFactor;
    this.firstResultSeconds =
      (this.lowPass?.delaySamples ?? 0) / sampleRateHz +
      this.bandPass.delaySamples / firstRateHz +
      (this.smoothDeviation.delaySamples + 0.5) / stepRateHz;
  }

  push(samples: Samples): ToneTrackBlock {
    if (samples.length <= MOST_AT_ONCE) return this.take(samples);
    const parts: ToneTrackBlock[] = [];
    for (let at = 0; at < samples.length; at += MOST_AT_ONCE)
      parts.push(this.take(samples.subarray(at, at + MOST_AT_ONCE)));
    return {
      deviation: joinedSingles(...parts.map(({ deviation }) => deviation)),
      amplitude: joinedSingles(...parts.map(({ amplitude }) => amplitude)),
    };
  }

  /** All of it in the kernel's memory: what a stage leaves is where the next begins. */
  private take(samples: Samples): ToneTrackBlock {
    const { lowPass, bandPass, smoothDeviation, smoothAmplitude } = this;
    const { length } = samples;
    const stages = [...(lowPass ? [lowPass] : []), bandPass, smoothDeviation, smoothAmplitude];
    const room = new KernelRoom(
      stages.reduce((sum, stage) => sum + stage.roomFor(length), 0) + 4 * (length + 1),
    );
    const { singles } = room;

    const low = lowPass ? lowPass.resultsOf(length) : length;
    const lowAt = bandPass.begin(room, low);
    if (lowPass) {
      const at = lowPass.begin(room, length);
      singles.set(samples, at);
      lowPass.run(room, { at, samples: length }, lowAt);
    } else singles.set(samples, lowAt);

    // the point before the first stands in front
    const points = bandPass.resultsOf(low);
    const [re, im] = [room.place(points + 1), room.place(points + 1)];
    bandPass.run(room, { at: lowAt, samples: low }, re + 1, im + 1);
    const first = this.last === null ? 1 : 0;
    [singles[re], singles[im]] = this.last ?? [0, 0];
    if (points > 0) this.last = [singles[re + points], singles[im + points]];

    const steps = Math.max(0, points - first);
    const angle = smoothDeviation.begin(room, steps);
    const size = smoothAmplitude.begin(room, steps);
    room.steps(re + first, im + first, steps, this.steady, this.deviationPerRadian, angle, size);
    const out = room.place(steps);
    const smooth = (fir: ChainedFir, at: number) => {
      const count = fir.run(room, { at, samples: steps }, out);
      return singles.slice(out, out + count);
    };
    return { deviation: smooth(smoothDeviation, angle), amplitude: smooth(smoothAmplitude, size) };
  }
}
