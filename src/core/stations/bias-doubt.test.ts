import { describe, expect, it } from "vitest";
import { DEMO_BLANKS } from "@/core/practice/demo-blanks";
import { RecordBench } from "@/testing/record-bench";
import { biasKnown } from "@/core/guidance/bias-screw";
import { sensitivityDb, thirdShare } from "@/core/simulator/tape-formula";
import { biasSides, type BiasSide } from "./bias-sides";
import { schoolsApart, tapeDoubt } from "./bias-doubt";

const [PLAIN, CHROME] = DEMO_BLANKS;

describe("a tape of another type than was said", () => {
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

describe("flatness and over-bias far apart", () => {
  const TONES = { middleHz: 315, highHz: 10_000, speedCmPerS: 4.76 };
  /** A screw of 6 dB a turn that was heard at four places and now stands where flatness would leave it. */
  const side = (equaliserDb: number): BiasSide => {
    const at = (biasDb: number, afterTurns: number) => ({
      middleDb: sensitivityDb(biasDb, TONES.middleHz, TONES.speedCmPerS),
      highDb: sensitivityDb(biasDb, TONES.highHz, TONES.speedCmPerS) + equaliserDb,
      thirdDb: 20 * Math.log10(thirdShare(biasDb)),
      afterTurns,
    });
    const heard = [-4, -2.5, -1, 0.5, 2].map((biasDb, i) => at(biasDb, i));
    const screw = {
      about: "left",
      turns: [0.25, 0.25, 0.25, 0.25],
      heard,
      beside: [],
      standing: null,
      tones: TONES,
      overBiasDb: 3,
    };
    return {
      channel: "left",
      adjuster: undefined,
      last: null,
      known: biasKnown(screw),
      thinking: false,
      moves: false,
      movesAt: null,
      overBiasDb: 3,
    };
  };

  it.each<[number, RegExp | null]>([
    [-3.5, /Over-bias would leave bias [\d.]+ dB higher on the left channel/],
    [3.5, /Over-bias would leave bias [\d.]+ dB lower on the left channel/],
    [0, null],
  ])("with the equaliser %f dB off", (equaliserDb, says) => {
    const said = schoolsApart("flatness", [side(equaliserDb)]);
    if (says === null) expect(said).toBeNull();
    else expect(said).toMatch(says);
    expect(schoolsApart("over-bias", [side(equaliserDb)])).toBeNull();
  });
});
