import { describe, expect, it } from "vitest";
import { PRESETS } from "@/core/signals/presets";
import type { TransportParameters } from "@/core/simulator/transport-parameters";
import { reductionCauses, reductionNow, worstOf } from "@/core/stations/reduction";
import { RecordBench } from "@/testing/record-bench";
import { DEMO_BLANKS } from "./demo-blanks";

const SHORT = PRESETS.filter(({ id }) => id === "noise-reduction").map((preset) => ({
  ...preset,
  gapSeconds: 0.3,
  segments: preset.segments.map((one) => ({ ...one, seconds: Math.min(2, one.seconds) })),
}));

/** A machine whose sequence was recorded and logged with everything off. */
function benchOf(settings: Partial<TransportParameters>): RecordBench {
  const bench = new RecordBench("ellesby-c-3h", DEMO_BLANKS[0], settings, 5, SHORT);
  bench.switchOn();
  bench.record("reduction", "tape");
  expect(bench.log("reduction", "as found")).toBeNull();
  return bench;
}
const hear = (bench: RecordBench) => {
  bench.record("reduction", "tape");
  return reductionNow(bench.laid("reduction"));
};

describe("noise reduction and filters of the practice machine", { timeout: 180_000 }, () => {
  it("with levels right everything comes back as it went in; without the run with all off nothing is told", () => {
    const first = new RecordBench("ellesby-c-3h", DEMO_BLANKS[0], {}, 5, SHORT);
    first.switchOn("reduction");
    first.record("reduction", "tape");
    expect(first.log("reduction", "as found")).toMatch(/everything switched off/);

    const bench = benchOf({});
    bench.switchOn("reduction");
    const now = hear(bench);
    expect(now.lacks).toBeNull();
    expect(Math.abs(worstOf(now.points)!.errorDb)).toBeLessThan(2);
    expect(reductionCauses(now, 2)).toEqual([]);
    expect(bench.log("reduction", "as left")).toBeNull();
    expect(bench.verdicts("reduction")).toEqual(["pass"]);
    // on any other station it is in the way
    bench.record("reduction", "tape");
    expect(bench.log("noise", "as left")).toMatch(/NOISE RED is on/);
  });

  it("an error of level is told from one of its circuit", () => {
    const low = benchOf({ "record.leftDb": -2.5, "record.rightDb": -2.5 });
    low.switchOn("reduction");
    const byLevel = reductionCauses(hear(low), 2);
    expect(byLevel.length).toBeGreaterThan(0);
    for (const cause of byLevel) expect(cause).toContain("set record level");

    const wrong = benchOf({ "reduction.leftErrorDb": 4 });
    wrong.switchOn("reduction");
    const causes = reductionCauses(hear(wrong), 2);
    expect(causes).toHaveLength(1);
    expect(causes[0]).toMatch(/^left: level is right .*its own circuit on this channel/);
  });

  it.each<[string, Partial<TransportParameters>, Array<string | null>]>([
    ["a sound one", {}, ["pass", "pass"]],
    ["one that cuts too low", { "multiplex.cornerHz": 12_500 }, ["fail", "pass"]],
  ])("the multiplex filter, %s", (_, settings, verdicts) => {
    const bench = benchOf(settings);
    bench.switchOn("multiplex");
    hear(bench);
    expect(bench.log("reduction", "as left")).toBeNull();
    expect(bench.verdicts("reduction")).toEqual(verdicts);
  });

  it("a headroom extension gains where it is loud and does nothing where it is not", () => {
    const bench = benchOf({});
    bench.switchOn("headroom");
    hear(bench);
    expect(bench.log("reduction", "as left")).toBeNull();
    expect(bench.verdicts("reduction")).toEqual(["pass", "pass"]);
  });
});
