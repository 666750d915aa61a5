import { SeededRandom } from "@/core/dsp/seeded-random";
import { DEMO_BLANKS } from "@/core/practice/demo-blanks";
import { RecordBench } from "@/testing/record-bench";

const MOST_TURNS = 4;

/**
 * Bias of random machines set off the tape, from their sound: each out by up to 3.5 dB, with another slack and another
 * effect of its screw. @returns of each the turns it took with the trial turn, null where it was not within the class after them
 */
export function* biasWatched(machines: number): Generator<number | null> {
  for (let i = 0; i < machines; i++) {
    const random = new SeededRandom(4000 + i);
    const between = (low: number, high: number) => low + (high - low) * random.uniform();
    const settings = {
      "bias.leftDb": between(-3.5, 3.5),
      "bias.rightDb": between(-3.5, 3.5),
      "bias.dbPerTurn": between(4, 12) * (random.uniform() < 0.5 ? -1 : 1),
      "trimmer.backlashTurns": between(0, 0.06),
      "record.leftTrebleDb": between(-1, 1),
    };
    const bench = new RecordBench("ellesby-c-3h", DEMO_BLANKS[i % 2], settings, i);
    bench.haveLooked();
    bench.watch("bias");
    bench.log("bias", "as found");
    const done = bench.setByPasses("bias", `bias-left-${i % 2 === 0 ? "i" : "ii"}`, MOST_TURNS, () =>
      bench.listen(4.5),
    );
    const settled = done === "leave" && bench.log("bias", "as left") === null;
    yield settled && bench.verdicts("bias")[0] === "pass" ? bench.turns : null;
  }
}
