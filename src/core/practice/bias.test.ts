import { describe, expect, it } from "vitest";
import { biasSides } from "@/core/stations/bias";
import { RecordBench } from "@/testing/record-bench";
import { DEMO_BLANKS } from "./demo-blanks";

const [PLAIN, CHROME] = DEMO_BLANKS;

describe("bias off a three-head machine", { timeout: 240_000 }, () => {
  it.each([[CHROME, 1.9, 2, "ii"]])(
    "on $name, %f dB off: within the class after a trial turn and at most three more",
    (blank, off, seed, type) => {
      const bench = new RecordBench(
        "ellesby-c-3h",
        blank,
        { "bias.leftDb": off, "bias.rightDb": off - 1.3 },
        seed,
      );
      expect(bench.log("bias", "as found")).toMatch(/start a source first/);
      bench.record("bias", "source");
      expect(bench.log("bias", "as found")).toMatch(/switch the monitor to tape/);
      bench.record("bias", "tape");
      expect(bench.log("bias", "as found")).toBeNull();
      const hear = () => bench.record("bias", "tape");
      expect(bench.setByPasses("bias", `bias-left-${type}`, 4, hear)).toBe("leave");
      expect(bench.setByPasses("bias", `bias-right-${type}`, 4, hear)).toBe("leave");
      expect(bench.log("bias", "as left")).toBeNull();
      expect(bench.verdicts("bias")).toEqual(["pass", "pass"]);
      // what the screen says is what the machine does: flat within the class, on each channel
      for (const { last } of biasSides(bench.laid("bias")))
        expect(Math.abs(last!.heard.highDb - last!.heard.middleDb)).toBeLessThan(1.2);
    },
  );
});

describe("bias of a two-head machine, by passes", { timeout: 240_000 }, () => {
  it("what was recorded before the last turn is not taken for the present setting", () => {
    const bench = new RecordBench("ellesby-c-1r", PLAIN, { "bias.leftDb": -2 }, 4);
    bench.record("bias", "source");
    expect(bench.log("bias", "as found")).toMatch(/rewind and play/);
    bench.play(22);
    expect(bench.log("bias", "as found")).toBeNull();
    const hear = () => {
      bench.record("bias", "source");
      bench.play(22);
    };
    expect(bench.setByPasses("bias", "bias-left-i", 1, () => undefined)).toBe("wait");
    expect(bench.log("bias", "as left")).toMatch(/turned since/);
    hear();
    expect(bench.setByPasses("bias", "bias-left-i", 3, hear)).toBe("leave");
    expect(bench.log("bias", "as left")).toBeNull();
  });
});
