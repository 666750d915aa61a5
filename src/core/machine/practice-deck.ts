import { SeededRandom } from "@/core/dsp/seeded-random";
import { Transport } from "./transport";
import type { TransportParameters } from "./transport-parameters";

export interface PracticeDeckOptions {
  parameters: TransportParameters;
  /** Frequency of the tone that is recorded on the tape, as it plays at exactly nominal speed. */
  toneHz: number;
  sampleRateHz: number;
  seed?: number;
}

/**
 * A practice machine playing a reference tape's tone: a stereo stream whose pitch follows the transport,
 * with the level, noise and hum of its playback amplifier. The same seed and the same turns give the same
 * sound.
 */
export class PracticeDeck {
  readonly transport: Transport;
  private readonly random: SeededRandom;
  private tonePhase = 0;
  private humPhase = 0;

  constructor(private readonly options: PracticeDeckOptions) {
    const { parameters, sampleRateHz, seed = 1 } = options;
    this.transport = new Transport(parameters, sampleRateHz, seed);
    this.random = new SeededRandom(seed + 0x5eed);
  }

  /** The next `frames` samples of left and right, full scale = ±1. */
  render(frames: number): [Float64Array, Float64Array] {
    const { parameters: p, toneHz, sampleRateHz } = this.options;
    const left = new Float64Array(frames);
    const right = new Float64Array(frames);
    const gain = (db: number) => 10 ** (db / 20);
    const [leftGain, rightGain] = [gain(p["output.leftDb"]), gain(p["output.rightDb"])];
    const [noise, hum] = [gain(p["noise.db"]), gain(p["hum.db"])];
    const step = (2 * Math.PI * toneHz) / sampleRateHz;
    const humStep = (2 * Math.PI * p["hum.frequencyHz"]) / sampleRateHz;
    for (let i = 0; i < frames; i++) {
      this.tonePhase = (this.tonePhase + step * this.transport.next()) % (2 * Math.PI);
      this.humPhase = (this.humPhase + humStep) % (2 * Math.PI);
      const tone = Math.sin(this.tonePhase);
      const mains = hum * Math.sin(this.humPhase);
      left[i] = leftGain * tone + mains + noise * this.random.normal();
      right[i] = rightGain * tone + mains + noise * this.random.normal();
    }
    return [left, right];
  }
}
