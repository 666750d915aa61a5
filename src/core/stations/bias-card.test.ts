import { describe, expect, it } from "vitest";
import { DEMO_BLANKS } from "@/core/practice/demo-blanks";
import { RecordBench } from "@/testing/record-bench";
import { actingAdjusters } from "./acting-adjusters";
import { bias } from "./bias";
import { BIAS_SCREWS } from "./bias-sides";
import type { OnTheBench } from "./on-the-bench";

const [PLAIN] = DEMO_BLANKS;

/** The card of the left screw on a machine that stands so, after one turn of it. */
function afterTurn(biasDb: number, turns: number, school: "flatness" | "over-bias") {
  const bench = new RecordBench("ellesby-c-3h", PLAIN, { "bias.leftDb": biasDb }, 6);
  bench.haveLooked();
  bench.chooseSchool(school);
  bench.watch("bias");
  bench.log("bias", "as found");
  const left = actingAdjusters(BIAS_SCREWS, bench.laid("bias")).find(({ channel }) => channel === "left")!;
  bench.turnBy("bias", left.id, turns);
  bench.watch("bias");
  const laid = bench.laid("bias");
  const atItsEnd: OnTheBench = {
    ...laid,
    here: {
      ...laid.here,
      adjustments: laid.here.adjustments.map((one) =>
        one.adjusterId === left.id ? { ...one, atStop: true } : one,
      ),
    },
  };
  return { card: bias.advise(laid, left.id), cardAtEnd: bias.advise(atItsEnd, left.id) };
}

describe("the card of a bias screw", () => {
  it("leads to the peak where over-bias is to be told and it was not heard there, unless the screw has no travel", () => {
    const { card, cardAtEnd } = afterTurn(1, -0.125, "over-bias");
    expect(card.reason).toMatch(/not heard there yet/);
    expect(card.headline).toMatch(/^anticlockwise/);
    expect(cardAtEnd.reason).not.toMatch(/not heard there yet/);
  });

  it("says so where the screw has no more travel that way", () => {
    const { card, cardAtEnd } = afterTurn(-3, 0.125, "flatness");
    expect(card.headline).toMatch(/^clockwise/);
    expect(cardAtEnd).toMatchObject({ advice: { kind: "unclear" }, headline: "no more travel this way" });
  });
});
