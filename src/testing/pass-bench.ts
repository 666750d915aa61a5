import { beginPass, endPass, firstRole, passStep, type OnePass } from "@/core/alignment/one-pass";
import { heardSince } from "@/core/live/heard-live";
import type { Reading } from "@/core/records/reading";
import type { ReferenceTape } from "@/core/reference/reference-tape";
import type { TransportParameters } from "@/core/simulator/transport-parameters";
import { PlaybackBench } from "./playback-bench";

/** As fast as a practice machine runs on the page where it is hurried; so often it is looked at. */
const PACE = 4;

/** A practice machine that plays its whole tape once, while each station takes its figures by itself. */
export class PassBench extends PlaybackBench {
  pass: OnePass | null = null;
  readonly readings: Reading[] = [];
  private ids = 0;

  constructor(machineId: string, tape: ReferenceTape, settings: Partial<TransportParameters>, seed: number) {
    super(machineId, tape, settings, seed, { pace: PACE });
  }

  /** Plays the tape from its start. @param doubts seconds during which what is heard is doubted */
  playThrough(phase: OnePass["phase"], seconds: number, doubts: readonly [number, number] = [0, 0]): OnePass {
    this.pass = beginPass(phase, this.laid("speed"));
    this.deck.press("play");
    for (let i = 1; i <= 10 * seconds; i++) {
      this.live.push(this.deck.render(this.tenth));
      if (i % PACE !== 0) continue;
      this.result = this.live.result(true, firstRole(this.tape));
      this.soFar = heardSince(this.soFar, this.result);
      const at = this.result.seconds;
      const doubt = at > doubts[0] && at < doubts[1] ? "another tape" : null;
      const moment = { seconds: at, band: this.result.band?.index ?? null, doubt };
      this.write(passStep(this.pass, moment, this.laid("speed"), this.stamp()));
    }
    this.write(endPass(this.pass));
    return this.pass;
  }

  private write({ pass, readings }: { pass: OnePass; readings: Reading[] }): void {
    this.pass = pass;
    this.readings.push(...readings);
  }

  private readonly stamp = () => ({ newId: () => `p${this.ids++}`, now: Date.UTC(2026, 10, 20, 12) });

  /** What was taken of a quantity, of a channel where that is told apart. */
  figure(quantity: string, channel?: string): number {
    const found = this.readings.filter(
      (one) => one.quantity === quantity && (!channel || one.context.channel === channel),
    );
    if (found.length !== 1) throw new Error(`${found.length} readings of ${quantity}`);
    return found[0].value;
  }
}
