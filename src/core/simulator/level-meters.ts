import { powerDb } from "@/core/dsp/decibels";
import type { Stereo } from "./stereo";
import type { TransportParameters } from "./transport-parameters";

const METER_SECONDS = 0.2;
const LOWEST_METER_DB = -40;

/** The meters on the front of a machine: slow, and wrong by what a machine's own are. */
export class LevelMeters {
  /** Mean square of what they are shown, re a sine at 0. */
  private readonly powers: [number, number] = [0, 0];

  constructor(
    private readonly parameters: TransportParameters,
    private readonly sampleRateHz: number,
  ) {}

  /** @param gain by which a sine at 0 has an amplitude of 1 */
  show(shown: Readonly<Stereo>, gain: number): void {
    const share = Math.min(1, shown[0].length / this.sampleRateHz / METER_SECONDS);
    shown.forEach((x, c) => {
      let sum = 0;
      for (let i = 0; i < x.length; i++) sum += x[i] * x[i];
      const power = (2 * gain * gain * sum) / x.length;
      this.powers[c] += share * (power - this.powers[c]);
    });
  }

  /** What they stand at, dB re 0. */
  get db(): [number, number] {
    const { parameters: p } = this;
    const at = (c: 0 | 1) =>
      Math.max(LOWEST_METER_DB, powerDb(this.powers[c]) + p[c === 0 ? "meter.leftDb" : "meter.rightDb"]);
    return [at(0), at(1)];
  }
}
