import { describe, expect, it } from "vitest";
import { PRESETS } from "@/core/signals/presets";
import type { TransportParameters } from "@/core/simulator/transport-parameters";
import { reductionCauses, reductionNow } from "@/core/stations/reduction";
import { RecordBench } from "@/testing/record-bench";
import { DEMO_BLANKS } from "./demo-blanks";

const SHORT = PRESETS.filter(({ id }) => id === "noise-reduction").map((preset) => ({
  ...preset,
  gapSeconds: 0.3,
  segments: preset.segments.map((one) => ({ ...one, seconds: 1.5 })),
}));

/** A machine whose sequence was recorded and logged with everything off, and then with all of it on. */
function heardOffAndOn(settings: Partial<TransportParameters>): RecordBench {
  const bench = new RecordBench("ellesby-c-3h", DEMO_BLANKS[0], settings, 5, SHORT);
  bench.switchOn("reduction", "multiplex", "headroom");
  expect(reductionNow(bench.laid("reduction")).lacks).not.toBeNull();
  bench.switchOn();
  bench.record("reduction", "tape");
  expect(bench.log("reduction", "as found")).toBeNull();
  bench.switchOn("reduction", "multiplex", "headroom");
  bench.record("reduction", "tape");
  return bench;
}

describe("noise reduction and filters of the practice machine", { timeout: 180_000 }, () => {
  it("a fault of one channel's circuit and a filter that cuts too low are told; the headroom extension is sound", () => {
    const bench = heardOffAndOn({ "reduction.leftErrorDb": 4, "multiplex.cornerHz": 12_500 });
    const causes = reductionCauses(reductionNow(bench.laid("reduction")), 2);
    expect(causes).toHaveLength(1);
    expect(causes[0]).toMatch(/^left: level is right .*its own circuit on this channel/);
    expect(bench.log("reduction", "as left")).toBeNull();
    // noise reduction, 15 kHz, 19 kHz, headroom loud and quiet
    expect(bench.verdicts("reduction")).toEqual(["fail", "fail", "pass", "pass", "pass"]);
    // on any other station what is switched on is in the way
    expect(bench.log("noise", "as left")).toMatch(/NOISE RED and MPX and HEADROOM is on/);
  });

  it("an error of level goes in front of it, and is what is named", () => {
    const bench = heardOffAndOn({ "record.leftDb": -2.5, "record.rightDb": -2.5 });
    const causes = reductionCauses(reductionNow(bench.laid("reduction")), 2);
    expect(causes).toHaveLength(2);
    for (const cause of causes) expect(cause).toContain("set record level");
  });
});
