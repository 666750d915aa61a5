import { describe, expect, it } from "vitest";
import { DEMO_BLANKS } from "@/core/practice/demo-blanks";
import { RecordBench } from "@/testing/record-bench";
import { biasSides } from "./bias-sides";
import { tapeDoubt } from "./bias-doubt";

const [PLAIN, CHROME] = DEMO_BLANKS;

describe("a tape of another type than was said", { timeout: 60_000 }, () => {
  it("is asked about before anything is logged, and no more once somebody has looked", () => {
    // chrome in the machine, which records on it as on type I
    const bench = new RecordBench("ellesby-c-3h", PLAIN, {}, 3);
    bench.watch("bias", CHROME);
    const doubt = () => tapeDoubt(bench.laid("bias"), biasSides(bench.laid("bias")));
    expect(doubt()).toMatch(/too low in bias, as with a tape of type II/);
    expect(bench.log("bias", "as found")).toMatch(/Look at both/);
    bench.haveLooked();
    expect(doubt()).toBeNull();
    expect(bench.log("bias", "as found")).toBeNull();
    expect(bench.verdicts("bias")).toEqual(["fail", "fail"]);
  });

  it("is not suspected where the channels differ, or stand nearer", () => {
    for (const [left, right] of [
      [-3.4, 0.4],
      [-1.2, -1],
    ]) {
      const bench = new RecordBench("ellesby-c-3h", PLAIN, { "bias.leftDb": left, "bias.rightDb": right }, 4);
      bench.watch("bias");
      expect(tapeDoubt(bench.laid("bias"), biasSides(bench.laid("bias")))).toBeNull();
    }
  });
});
