import { describe, expect, it } from "vitest";
import { biasSides, tonesNow } from "@/core/stations/bias-sides";
import { RecordBench } from "@/testing/record-bench";
import { shortSequences } from "./short-sequences";
import { DEMO_BLANKS } from "./demo-blanks";

const [PLAIN, CHROME] = DEMO_BLANKS;

describe("bias off a three-head machine", () => {
  it("what went in and what came off the tape are told apart, and a pass of each tells how it stands", () => {
    const bench = new RecordBench("ellesby-c-3h", CHROME, { "bias.leftDb": 1.9, "bias.rightDb": 0.6 }, 2, {
      sequences: shortSequences(2),
    });
    expect(bench.log("bias", "as found")).toMatch(/start a source first/);
    bench.record("bias", "source");
    expect(bench.log("bias", "as found")).toMatch(/switch the monitor to tape/);
    bench.record("bias", "tape");
    expect(bench.log("bias", "as found")).toBeNull();
    expect(bench.verdicts("bias")[0]).not.toBe("pass");
  });
});

describe("bias watched off the tape while it is turned", () => {
  it("both tones tell where the screw is, right through a turn, and bring it within the class", () => {
    const bench = new RecordBench("ellesby-c-3h", PLAIN, { "bias.leftDb": -1.7, "bias.rightDb": 1.2 }, 6);
    bench.watch("bias");
    expect(bench.log("bias", "as found")).toBeNull();
    const before = bench.turns;
    expect(bench.set("bias", "bias-left-i")).toBe("leave");
    expect(bench.turns - before).toBeLessThanOrEqual(4);
    // turned on by hand, and nobody has said so yet
    const slot = bench.slotOf("bias-left-i");
    for (const turns of [0.05, 0.05, 0.05]) {
      bench.deck.trimmers[slot].turn(turns);
      bench.listen(0.5);
    }
    bench.listen(3);
    const [left] = biasSides(bench.laid("bias"));
    const known = left.known!;
    expect(left.movesAt! - known.nowTurns).toBeGreaterThan(0.09);
    expect(left.movesAt! - known.nowTurns).toBeLessThan(0.2);
    expect(bench.log("bias", "as left")).toMatch(/say so first/);
  });

  it("is not read from tones that play one after the other, nor before what went in was heard", () => {
    const bench = new RecordBench("ellesby-c-3h", PLAIN, {}, 7);
    bench.watch("bias");
    expect(tonesNow(bench.laid("bias"))?.standing).toBe(true);
    bench.deck.monitor = "source";
    bench.listen(3);
    expect(tonesNow(bench.laid("bias"))).toBeNull();
    expect(bench.log("bias", "as found")).toMatch(/monitor to tape/);
    bench.deck.press("stop");
    bench.listen(4);
    expect(bench.log("bias", "as found")).toMatch(/sequence was heard yet/);
  });
});

describe("bias of a two-head machine, by passes", () => {
  it("what was recorded before the last turn is not taken for the present setting", () => {
    const bench = new RecordBench("ellesby-c-1r", PLAIN, { "bias.leftDb": -2 }, 4, {
      sequences: shortSequences(1.2),
    });
    bench.record("bias", "source");
    expect(bench.log("bias", "as found")).toMatch(/heard to its end. Rewind and play it/);
    bench.play(11);
    expect(bench.log("bias", "as found")).toBeNull();
    const hear = () => {
      bench.record("bias", "source");
      bench.play(11);
    };
    expect(bench.setByPasses("bias", "bias-left-i", 1, () => undefined)).toBe("wait");
    expect(bench.log("bias", "as left")).toMatch(/turned since/);
    hear();
    expect(bench.setByPasses("bias", "bias-left-i", 3, hear)).toBe("leave");
    expect(bench.log("bias", "as left")).toBeNull();
  });
});
