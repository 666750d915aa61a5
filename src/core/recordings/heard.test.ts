import { describe, expect, it } from "vitest";
import { heardLive } from "@/core/live/heard-live";
import { LiveListening } from "@/core/live/live-listening";
import { DEMO_TAPES } from "@/core/reference/demo-tapes";
import { TransportMeter } from "@/core/measure/transport-meter";
import { fmTone } from "@/testing/fm-tone";
import { heardFile } from "./measure-for-bench";

const RATE = 48000;

describe("what the bench shows", () => {
  it("of a file: the speed that is known best, the flutter that is worse", () => {
    const meter = new TransportMeter(RATE, 2, 3150);
    const calm = fmTone(8, RATE, 3150 * 1.01, [{ rateHz: 4, peak: 0.0005 }]);
    const restless = fmTone(8, RATE, 3150 * 1.01, [{ rateHz: 4, peak: 0.003 }]);
    meter.push([calm, restless]);
    const channels = meter.channels.map((channel, c) => ({
      channel,
      speed: meter.speed(c).result,
      flutter: meter.flutter(c).result,
      warnings: c === 0 ? [] : ["right: a warning"],
    }));
    const file = {
      name: "a.wav",
      sampleRateHz: RATE,
      durationSeconds: 8,
      warnings: ["cut short"],
      channels,
      transport: null,
      playback: null,
    };
    const measured = heardFile(file);
    expect(measured.speed).toMatchObject({ channel: "left", settled: true });
    expect(measured.flutter!.channel).toBe("right");
    expect(measured.problems).toEqual(["cut short", "right: a warning"]);
  });

  it.each([
    ["both channels", [0.25, 0.25], "both", 0],
    ["the left one alone", [0.25, 0], "left", 1],
  ] as const)("live: %s", (_, amplitudes, channel, problems) => {
    const live = new LiveListening({
      sampleRateHz: RATE,
      channelCount: 2,
      tape: DEMO_TAPES[0],
      speedFactor: 1,
      nominalHz: 3150,
      evidenceSeconds: 0,
    });
    live.push(amplitudes.map((amplitude) => fmTone(6, RATE, 3150, [], amplitude)));
    const measured = heardLive(
      live.result(false),
      { source: { kind: "practice", name: "x" }, clockPercent: 0, fullScale: null },
      null,
    );
    expect(measured.speed).toMatchObject({ channel, settled: true });
    expect(measured.problems).toHaveLength(problems);
    expect(measured).toMatchObject({ nominalHz: 3150, clockPercent: 0 });
  });
});
