import { amplitudeOf } from "@/core/dsp/decibels";
import { SeededRandom } from "@/core/dsp/seeded-random";
import type { Stereo } from "./stereo";
import type { TransportParameters } from "./transport-parameters";

const MAGNETISED_HISS_DB = 5;

/** Hiss and hum that a machine has of its own, behind its playback amplifiers. */
export class OwnNoise {
  private readonly random: SeededRandom;
  private humPhase = 0;

  constructor(
    private readonly parameters: TransportParameters,
    private readonly sampleRateHz: number,
    seed: number,
  ) {
    this.random = new SeededRandom(seed);
  }

  /** Amplifies a block in its place, and adds them. */
  amplify([left, right]: Stereo, [leftGain, rightGain]: readonly [number, number]): void {
    const { parameters: p, sampleRateHz } = this;
    const frames = left.length;
    // a magnetised head hisses
    const noise = amplitudeOf(p["noise.db"] + MAGNETISED_HISS_DB * p["head.magnetised"]);
    const hum = amplitudeOf(p["hum.db"]);
    const humStep = (2 * Math.PI * p["hum.frequencyHz"]) / sampleRateHz;
    let re = Math.cos(this.humPhase);
    let im = Math.sin(this.humPhase);
    const stepRe = Math.cos(humStep);
    const stepIm = Math.sin(humStep);
    this.humPhase = (this.humPhase + frames * humStep) % (2 * Math.PI);
    for (let i = 0; i < frames; i++) {
      const before = re;
      re = re * stepRe - im * stepIm;
      im = before * stepIm + im * stepRe;
      const mains = hum * im;
      left[i] = leftGain * left[i] + mains + noise * this.random.normal();
      right[i] = rightGain * right[i] + mains + noise * this.random.normal();
    }
  }
}
