import { SeededRandom } from "@/core/dsp/seeded-random";
import { describe, expect, it } from "vitest";
import { heardLive } from "@/core/live/heard-live";
import { NOTHING_HEARD_YET } from "@/core/stations/heard";
import { LiveListening } from "@/core/live/live-listening";
import { DEMO_TAPES } from "@/core/reference/demo-tapes";
import { TransportMeter } from "@/core/measure/transport-meter";
import { PRESETS } from "@/core/signals/presets";
import { SequenceRenderer } from "@/core/signals/render-sequence";
import { soundInMemory } from "@/core/formats/sound-file";
import { fmTone } from "@/testing/fm-tone";
import { heardFile, type MeasuredAs, measureForBench } from "./measure-for-bench";
import { nothingMeasured, type FileMeasurement } from "./file-measurement";

const RATE = 48000;

const AS: MeasuredAs = {
  tape: DEMO_TAPES[0],
  speedFactor: 1,
  nominalHz: 3150,
  geometry: { parts: [], speedCmPerS: 4.76, firstSpeedCmPerS: 4.76 },
  tracks: null,
  sequences: PRESETS,
  sequenceId: null,
  watches: null,
};

describe("what the bench shows", () => {
  const fileOf = (sounds: Float64Array[]): FileMeasurement => {
    const meter = new TransportMeter(RATE, sounds.length, 3150);
    meter.push(sounds);
    const channels = meter.channels.map((channel, c) => ({
      channel,
      speed: meter.speed(c).result,
      flutter: meter.flutter(c).result,
      warnings: channel === "right" ? ["right: a warning"] : [],
    }));
    const of = { sampleRateHz: RATE, durationSeconds: sounds[0].length / RATE, warnings: ["cut short"] };
    return { ...nothingMeasured("a.wav", of), channels };
  };
  const tone = (seconds: number, peak: number) => fmTone(seconds, RATE, 3150 * 1.01, [{ rateHz: 4, peak }]);

  it("of a file: the speed that is known best, the flutter that is worse", () => {
    const measured = heardFile(fileOf([tone(8, 0.0005), tone(8, 0.003)]));
    expect(measured.speed).toMatchObject({ channel: "left", settled: true });
    expect(measured.flutter!.channel).toBe("right");
    expect(measured.problems).toEqual(["cut short", "right: a warning"]);
  });

  it.each<[string, () => Float64Array, boolean]>([
    ["long enough and whole", () => tone(12, 0.001), true],
    ["too short", () => tone(8, 0.001), false],
    ["lost in eight places", () => lostIn(8, tone(12, 0.001)), false],
  ])("flutter of a file that is %s", (_, sound, kept) => {
    expect(heardFile(fileOf([sound()])).flutter!.settled).toBe(kept);
  });

  it.each([
    ["a tape of one tone", "ssa-01", /This is a marked test sequence/],
    ["a tape of many bands", "ssa-10", /This is the sequence Record level/],
  ])("of a file that is a marked sequence, where %s is expected: nothing, and why", async (_, id, says) => {
    const sequence = PRESETS.find((preset) => preset.id === "record-level")!;
    const renderer = new SequenceRenderer({ ...sequence, leaderSeconds: 1 }, RATE);
    const sound = soundInMemory(
      renderer.block(0, 22 * RATE).map((x) => Float32Array.from(x)),
      RATE,
    );
    const file = await measureForBench(
      "a.wav",
      sound,
      { ...AS, tape: DEMO_TAPES.find((tape) => tape.id === id)! },
      () => undefined,
    );
    expect(heardFile(file)).toMatchObject({ speed: null, flutter: null, playback: null });
    expect(file.warnings.join()).toMatch(says);
  });

  it("of a file where a blanking test is listened for: how the old programme goes quiet", async () => {
    const random = new SeededRandom(3);
    const channel = () =>
      Float32Array.from(
        { length: 11 * RATE },
        (_, i) =>
          (i < 5 * RATE ? 0.2 * Math.sin((2 * Math.PI * 1000 * i) / RATE) : 0) + 1e-3 * random.normal(),
      );
    const sound = soundInMemory([channel(), channel()], RATE);
    const file = await measureForBench("a.wav", sound, { ...AS, watches: "blanking" }, () => undefined);
    const { blanking, speed } = heardFile(file);
    expect(speed).toBeNull();
    expect(blanking).toHaveLength(2);
    for (const one of blanking!) {
      expect(one!.blanked).toMatchObject({ moves: false, toneDownDb: null, cameBack: false });
      expect(Math.abs(one!.blanked!.downDb - 43)).toBeLessThan(1);
    }
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
      NOTHING_HEARD_YET,
    );
    expect(measured.speed).toMatchObject({ channel, settled: true });
    expect(measured.problems).toHaveLength(problems);
    expect(measured).toMatchObject({ nominalHz: 3150, clockPercent: 0 });
  });
});

/** With ten milliseconds of nothing once a second. */
function lostIn(places: number, sound: Float64Array): Float64Array {
  for (let k = 1; k <= places; k++) sound.fill(0, k * RATE, k * RATE + 480);
  return sound;
}
