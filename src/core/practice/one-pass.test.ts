import { describe, expect, it } from "vitest";
import { beginPass, type OnePass } from "@/core/alignment/one-pass";
import { referenceTapeSchema } from "@/core/reference/reference-tape";
import { PassBench } from "@/testing/pass-bench";
import { anAdjustment } from "@/testing/records";

const tone = (role: string, frequencyHz: number, levelDb: number, seconds: number) => ({
  kind: "tone",
  role,
  frequencyHz,
  levelDb,
  seconds,
});
const BANDS = [
  tone("level", 315, 0, 6),
  tone("speed", 3150, 0, 25),
  ...[1000, 3150, 8000, 10000].map((hz) => tone("azimuth", hz, -10, 6)),
  ...[315, 125, 1000, 8000, 10000].map((hz) => tone("response", hz, -20, 5)),
  { kind: "silence", role: "noise", frequencyHz: 0, levelDb: -100, seconds: 5 },
];
const tapeOf = (bands: object[]) =>
  referenceTapeSchema.parse({
    format: "unzel-reference-tape",
    version: 1,
    id: "whole",
    name: "whole tape",
    speedCmPerS: 4.76,
    equalisation: "3180/120",
    fluxivityNwbPerM: 250,
    frequencyUncertaintyPercent: 0.01,
    bands,
  });
const secondsOf = (bands: Array<{ seconds: number }>) =>
  bands.reduce((sum, { seconds }) => sum + seconds + 1, 1);

const STEADY = { "warmUp.percent": 0, "wander.percent": 0 };

const FAULTS = {
  ...STEADY,
  "speed.errorPercent": 1.2,
  "head.azimuthArcMinutes": -6,
  "output.rightDb": -14,
  "playback.rightT2ErrorPercent": -25,
};
const statesOf = ({ stations }: OnePass) =>
  Object.fromEntries(stations.map(({ station, state }) => [station.id, state]));

describe("one pass of a whole tape", () => {
  it("takes every transport and playback station as found, with the faults of the machine in the figures", () => {
    const bench = new PassBench("ellesby-c-1r", tapeOf(BANDS), FAULTS, 5);
    const pass = bench.playThrough("as found", secondsOf(BANDS));
    expect(statesOf(pass)).toEqual({
      speed: "taken",
      flutter: "taken",
      azimuth: "taken",
      level: "taken",
      response: "taken",
    });
    expect(new Set(bench.readings.map(({ phase }) => phase))).toEqual(new Set(["as found"]));
    expect(bench.figure("speedError")).toBeCloseTo(1.2, 1);
    // read with the right speed of the tape, it is out by the speed error
    expect(bench.figure("azimuth.tilt") * 1.012).toBeCloseTo(-6, 1);
    // 11.9 dB down is right for this machine
    expect(bench.figure("level.error", "left")).toBeCloseTo(0, 1);
    expect(bench.figure("level.error", "right")).toBeCloseTo(-2.1, 1);
    const [right] = bench.readings.filter(
      ({ quantity, context: { channel, nominalHz } }) =>
        quantity === "response.point" && channel === "right" && nominalHz === 1000,
    );
    // the time constants of 3180 and 120 µs, and of 3180 and 90 µs, at 1 kHz re 315 Hz
    expect(right.value).toBeCloseTo(-0.65, 1);
    const flutter = bench.figure("flutter.weighted.peak");
    expect(flutter).toBeGreaterThan(0.02);
    expect(flutter).toBeLessThan(0.06);
  });

  it("takes nothing of a band that is not whole, was doubted or is not on the tape, and says why", () => {
    const bands = [...BANDS.slice(0, 1), tone("speed", 3150, 0, 9), ...BANDS.slice(2, 9)];
    const tape = [...bands, ...BANDS.slice(9, 11)];
    const bench = new PassBench("ellesby-c-1r", tapeOf(tape), STEADY, 5);
    const pass = bench.playThrough("as found", secondsOf(bands), [0, 9]);
    const says = Object.fromEntries(
      pass.stations.map((one) => [one.station.id, one.state === "not taken" ? one.says : one.state]),
    );
    expect(says.flutter).toMatch(/settling|short|no steady tone/i);
    expect(says.response).toContain("10 kHz");
    expect(says.azimuth).toBe("taken");
    expect(bench.readings.some(({ station }) => station === "flutter" || station === "response")).toBe(false);
  });

  it("is not as found any more where something was turned that upsets it", () => {
    const bench = new PassBench("ellesby-c-1r", tapeOf(BANDS), STEADY, 5);
    const { here, ...rest } = bench.laid("speed");
    const turn = anAdjustment({ minutes: 1, station: "azimuth", adjusterId: "azimuth-forward" });
    const records = { ...here, adjustments: [turn] };
    const after = { ...rest, here: records, records };
    expect(statesOf(beginPass("as found", after))).toEqual({
      speed: "open",
      flutter: "open",
      azimuth: "not taken",
      level: "not taken",
      response: "not taken",
    });
    expect(Object.values(statesOf(beginPass("as left", after)))).toEqual(Array(5).fill("open"));
  });
});
