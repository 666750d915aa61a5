import { describe, expect, it } from "vitest";
import { PRESETS } from "@/core/signals/presets";
import { erasedNow } from "@/core/stations/erase";
import { noiseNow, quietNow } from "@/core/stations/noise";
import { RecordBench } from "@/testing/record-bench";
import { DEMO_BLANKS } from "./demo-blanks";
import { shortSequences } from "./short-sequences";

const [PLAIN] = DEMO_BLANKS;
const TONE = PRESETS.find(({ id }) => id === "erase-tone")!;
const SHORT = shortSequences(2);

describe("erase and noise off a three-head machine", { timeout: 120_000 }, () => {
  it.each<[number, Array<string | null>]>([
    [44, ["fail", "fail"]],
    [66, ["pass", "pass"]],
  ])("a residue of %f dB is what is read, and judged as a floor", (depthDb, verdicts) => {
    const bench = new RecordBench("ellesby-c-3h", PLAIN, { "erase.depthDb": depthDb }, 3, SHORT);
    bench.record("erase", "tape", TONE);
    const { channels, lacks } = erasedNow(bench.laid("erase"));
    expect(lacks).toBeNull();
    for (const { depth } of channels) {
      expect(depth!.hidden).toBe(false);
      expect(Math.abs(depth!.db - depthDb)).toBeLessThan(1);
    }
    expect(bench.log("erase", "as found")).toBeNull();
    expect(bench.verdicts("erase")).toEqual(verdicts);
  });

  it("a tape with no tone on it is not taken for one that was erased, until somebody says it was", () => {
    const bench = new RecordBench("ellesby-c-3h", PLAIN, {}, 4, SHORT);
    bench.record("erase", "tape");
    expect(bench.log("erase", "as found")).toMatch(/if it was there/);
    bench.sayToneWasOn();
    expect(bench.log("erase", "as found")).toBeNull();
  });

  it("noise of the recorded silence is that of the machine, re what comes back at 0", () => {
    const bench = new RecordBench("ellesby-c-3h", PLAIN, { "noise.db": -60, "hum.db": -60 }, 5, SHORT);
    bench.record("noise", "tape");
    const { channels, lacks } = noiseNow(bench.laid("noise"));
    expect(lacks).toBeNull();
    // noise with an RMS of −60 dB over the whole band and hum of −60 dBFS, re 0 that comes out at about −12 dBFS
    const flat = -60 + 10 * Math.log10(2 * (19_980 / 24_000) + 1) + 12;
    const [left] = channels;
    expect(Math.abs(left.noise!.flatDb - flat)).toBeLessThan(1);
    expect(left.noise!.aDb).toBeLessThan(left.noise!.flatDb);
    expect(left.hum.some(({ frequencyHz }) => Math.abs(frequencyHz - 50) < 1)).toBe(true);
    expect(bench.log("noise", "as left")).toBeNull();

    // then without a tape: the machine's own noise is most of it
    bench.deck.press("stop");
    bench.sayNoiseOf("machine");
    expect(bench.log("noise", "working")).toMatch(/quiet was heard yet|hold still/);
    bench.listen(9);
    const alone = quietNow(bench.laid("noise"));
    expect(alone.lacks).toBeNull();
    expect(Math.abs(alone.channels[0].aDb - left.noise!.aDb)).toBeLessThan(1);
    expect(bench.log("noise", "working")).toBeNull();
  });
});
