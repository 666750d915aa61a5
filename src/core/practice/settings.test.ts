import { describe, expect, it } from "vitest";
import { inForce } from "@/core/records/job-records";
import { PRESETS } from "@/core/signals/presets";
import { settingsNow } from "@/core/stations/settings";
import { dropOutRates } from "@/core/measure/drop-out-rates";
import { dropOutsOf } from "@/core/stations/passport";
import { RecordBench } from "@/testing/record-bench";
import { DEMO_BLANKS } from "./demo-blanks";

const [PLAIN, BRIGHT] = DEMO_BLANKS;
/** As the preset, with shorter sounds. */
const PASSPORTS = PRESETS.filter(({ id }) => id === "passport").map((preset) => ({
  ...preset,
  leaderSeconds: 0.5,
  gapSeconds: 0.3,
  segments: preset.segments.map((one) => ({ ...one, seconds: Math.min(16, 0.7 * one.seconds) })),
}));

describe("settings for a tape on the practice machine", () => {
  it("a passport tells what the tape is coated with", () => {
    const bench = new RecordBench("ellesby-c-3h", BRIGHT, { "bias.leftDb": -1, "bias.rightDb": -1 }, 3, {
      sequences: PASSPORTS,
      sampleRateHz: 48_000,
    });
    bench.record("settings", "tape");
    const { passport, lacks } = settingsNow(bench.laid("settings"));
    expect(lacks).toBeNull();
    for (const { sensitivity, middle, mol, molAbove, noise } of passport!) {
      // the coating of this tape, and bias that is a decibel low for it and a fifth more
      expect(Math.abs(middle!.value - 0.4)).toBeLessThan(0.3);
      // at 0 a tape gives back a little less
      expect(sensitivity!.value - middle!.value).toBeLessThan(0);
      expect(sensitivity!.value - middle!.value).toBeGreaterThan(-1);
      expect(mol !== null || molAbove !== null).toBe(true);
      expect(noise!.value).toBeLessThan(-40);
    }
    expect(dropOutRates(dropOutsOf(passport!))!.perMinute.map(({ perMinute }) => perMinute)).toEqual([0, 0]);
    expect(bench.log("settings", "working")).toBeNull();
    const logged = inForce(bench.laid("settings").records.readings);
    const wanted = logged.filter(({ quantity }) => quantity === "passport.biasWanted");
    expect(wanted).toHaveLength(2);
    // the brighter coating and the knobs' treble look like a little less bias
    for (const { value } of wanted) {
      expect(value).toBeGreaterThan(0.5);
      expect(value).toBeLessThan(2.2);
    }
  });

  it("both knobs bring 15 kHz and 400 Hz back as they went in, on a machine that was set for another tape", () => {
    const bench = new RecordBench(
      "ellesby-c-3h",
      PLAIN,
      { "bias.leftDb": 1.3, "bias.rightDb": 1.1, "record.leftDb": -1.5, "record.rightDb": -1.3 },
      8,
      { sequences: PASSPORTS, sampleRateHz: 48_000 },
    );
    bench.watch("settings");
    const before = settingsNow(bench.laid("settings"));
    expect(before.live).toBe(true);
    expect(before.top!.value).toBeLessThan(-1);
    expect(bench.log("settings", "as found")).toBeNull();
    expect(bench.set("settings", "knob-bias")).toBe("leave");
    expect(bench.set("settings", "knob-level")).toBe("leave");
    const { top, middle } = settingsNow(bench.laid("settings"));
    expect(Math.abs(top!.value)).toBeLessThan(0.7);
    expect(Math.abs(middle!.value)).toBeLessThan(0.4);
    expect(bench.log("settings", "as left")).toBeNull();
    expect(bench.verdicts("settings")).toEqual(["pass", "pass"]);
  });
});
