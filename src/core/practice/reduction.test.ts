import { describe, expect, it } from "vitest";
import { PRESETS } from "@/core/signals/presets";
import type { TransportParameters } from "@/core/simulator/transport-parameters";
import { reductionNow } from "@/core/stations/reduction";
import { reductionCauses } from "@/core/stations/reduction-causes";
import { RecordBench } from "@/testing/record-bench";
import { DEMO_BLANKS } from "./demo-blanks";

/** A map of fewer squares. */
const STEPS_HZ = [400, 3000, 10_000];
const SHORT = PRESETS.filter(({ id }) => id === "noise-reduction").map((preset) => ({
  ...preset,
  gapSeconds: 0.3,
  segments: preset.segments
    .map((one) => (one.kind === "steps" ? { ...one, frequenciesHz: STEPS_HZ } : one))
    .map((one) => ({ ...one, seconds: 1.2 })),
}));

describe("noise reduction and filters of the practice machine", () => {
  it("a fault of one channel's circuit and a filter that cuts too low are told, each by its own switch", () => {
    const settings: Partial<TransportParameters> = {
      "reduction.leftErrorDb": 4,
      "multiplex.cornerHz": 12_500,
    };
    const bench = new RecordBench("ellesby-c-3h", DEMO_BLANKS[0], settings, 5, {
      sequences: SHORT,
      sampleRateHz: 48_000,
    });
    bench.switchOn();
    bench.record("reduction", "tape");
    expect(bench.log("reduction", "as found")).toBeNull();

    bench.switchOn("reduction");
    bench.record("reduction", "tape");
    const causes = reductionCauses(reductionNow(bench.laid("reduction")), 2);
    expect(causes).toHaveLength(1);
    expect(causes[0]).toMatch(/^left: level is right .*its own circuit on this channel/);
    expect(bench.log("reduction", "as found")).toBeNull();
    expect(bench.verdicts("reduction")).toEqual(["fail"]);
    // on any other station it is in the way
    expect(bench.log("noise", "as found")).toMatch(/NOISE RED is on/);

    bench.switchOn("multiplex");
    bench.record("reduction", "tape");
    expect(bench.log("reduction", "as found")).toBeNull();
    expect(bench.verdicts("reduction")).toEqual(["fail", "pass"]);

    bench.switchOn("headroom");
    bench.record("reduction", "tape");
    expect(bench.log("reduction", "as found")).toBeNull();
    expect(bench.verdicts("reduction")).toEqual(["pass", "pass"]);
  });
});
