import { describe, expect, it } from "vitest";
import { soundInMemory } from "@/core/formats/sound-file";
import { machinePartsSchema } from "@/core/workshop/machine-part";
import { BUILT_IN_TAPES } from "@/core/reference/built-in-tapes";
import { DEMO_TAPES } from "@/core/reference/demo-tapes";
import { referenceTapeSchema } from "@/core/reference/reference-tape";
import { PRESETS } from "@/core/signals/presets";
import { SequenceRenderer } from "@/core/signals/render-sequence";
import { fmTone, sumOf, whiteNoise } from "@/testing/fm-tone";
import { tapeSound, type Piece } from "@/testing/tape-sound";
import { findSides } from "@/core/live/find-sides";
import { LiveListening } from "@/core/live/live-listening";
import { loopBackOf } from "@/core/live/loop-back";
import { transportView } from "@/core/advice/transport-view";
import { measureRecording } from "./measure-recording";
import { RecentSound } from "@/core/live/recent-sound";
import { sampled } from "@/core/dsp/sampled";

const RATE = 32_000;
const single = (x: Float64Array) => Float32Array.from(x);
const recording = (...channels: Float64Array[]) => soundInMemory(channels.map(single), RATE);

describe("the last seconds of a source", () => {
  it("come back in order, whatever the size of the blocks", () => {
    const ring = new RecentSound(100, 1, 2);
    const all = sampled(777, (i) => i);
    for (const [from, to] of [
      [0, 30],
      [30, 500],
      [500, 501],
      [501, 777],
    ])
      ring.push([all.subarray(from, to)]);
    expect([...ring.contents()[0]]).toEqual([...all.subarray(577)]);
    expect(ring.seconds).toBe(2);
  });

  it("are fewer while there have not been so many", () => {
    const ring = new RecentSound(100, 2, 2);
    ring.push([new Float64Array(50), new Float64Array(50).fill(1)]);
    expect(ring.contents().map((x) => x.length)).toEqual([50, 50]);
    expect(ring.contents()[1][49]).toBe(1);
  });
});

describe("left, right and polarity from a tone on one side", () => {
  const renderer = new SequenceRenderer(
    PRESETS.find(({ id }) => id === "left-right")!,
    RATE,
  );
  const [l, r] = renderer.block(RATE, 2 * RATE).map(single);
  const upsideDown = l.map((v) => -v);
  // an AC-coupled, slightly slow machine
  const tape = Float32Array.from({ length: 2 * RATE }, (_, i) => {
    const t = (i / RATE) * 0.97 + 0.123;
    return 0.1 * (Math.sin(2 * Math.PI * 400 * t) + Math.sin(2 * Math.PI * 800 * t));
  });

  it.each([
    ["as sent", [l, r], "left", false],
    ["swapped", [r, l], "right", false],
    ["inverted", [upsideDown, r], "left", true],
    ["joined", [l, l], "both", false],
    ["through a tape 3 % slow", [tape, r], "left", false],
    ["through a tape, inverted", [tape.map((v) => -v), r], "left", true],
  ] as const)("%s", (_, channels, heardOn, inverted) => {
    expect(findSides([...channels], RATE)).toEqual({ heardOn, inverted });
  });

  it("a plain sine tells the side but not the polarity", () => {
    expect(findSides([single(fmTone(1, RATE, 400)), r], RATE).inverted).toBeNull();
  });

  it("says what is missing", () => {
    expect(() => findSides([r, r], RATE)).toThrow(/Nothing arrives/);
    expect(() => findSides([l], RATE)).toThrow(/one channel only/);
  });
});

describe("loop-back", () => {
  const silence = whiteNoise(3 * RATE, 1e-5, 4);
  const through = sumOf(fmTone(5, RATE, 1000, [], 0.5), fmTone(5, RATE, 3000, [], 0.5e-4));
  const both = new Float64Array(8 * RATE);
  both.set(through);
  both.set(silence, 5 * RATE);

  it("gives level, harmonics and noise of the card itself", () => {
    const loop = loopBackOf(single(both), RATE, 1000);
    expect(loop.toneDbfs).toBeCloseTo(-6.02, 1);
    expect(loop.thirdDb).toBeCloseTo(-80, 0);
    expect(loop.secondDb).toBeLessThan(-110);
    expect(loop.noiseDbfs).toBeCloseTo(-100, 0);
  });

  it("says when nothing came back, or there was no silence", () => {
    expect(() => loopBackOf(single(silence), RATE, 1000)).toThrow(/did not come back/);
    expect(() => loopBackOf(single(through), RATE, 1000)).toThrow(/no silence/);
  });
});

describe("everything that can be measured in a recording", () => {
  it("a plain tone without a tape: nearest usual frequency, speed, flutter, levels", async () => {
    const x = fmTone(12, RATE, 3150 * 0.99, [{ rateHz: 4, peak: 0.002 }], 0.25);
    const report = (await measureRecording(
      recording(
        x,
        x.map((v) => v / 2),
      ),
      { tape: null, sequences: [] },
    ))!;
    expect(report.by).toEqual({ kind: "tones" });
    expect(report.stretches).toHaveLength(1);
    const [{ nominalHz, speed, flutter, levelDb }] = report.stretches;
    expect(nominalHz).toBe(3150);
    expect(speed!.errorPercent).toBeCloseTo(-1, 2);
    expect(flutter!.weighted.peakPercent).toBeCloseTo(0.2, 2);
    expect(levelDb.left).toBeCloseTo(-12.04, 1);
    expect(report.channels[1].rmsDbfs).toBeCloseTo(-21.07, 1);
    expect(report.warnings.join()).toMatch(/compressed with loss/);
  });

  it("a tape: each band measured by itself, with its certificate", async () => {
    const tape = DEMO_TAPES.find(({ id }) => id === "ssa-10")!;
    const pieces = [0, 1, 2, 5].flatMap((index): Piece[] => [
      { kind: "band", index, to: 8 },
      { kind: "silence", seconds: 1 },
    ]);
    const { left, right } = tapeSound(tape.bands, pieces, RATE, {
      speedPercent: 1,
      trebleLossDb: 0,
      flutterPercent: 0.05,
    });
    const report = (await measureRecording(recording(left, right), { tape, sequences: [] }))!;
    expect(report.stretches.map(({ index }) => index)).toEqual([0, 1, 2, 5]);
    for (const { speed, index } of report.stretches)
      // the tones here are at their nominal frequency; the certificate says band 1 is 0.02 % high
      expect(speed!.errorPercent).toBeCloseTo(index === 1 ? 0.98 : 1, 1);
    expect(report.stretches[1].flutter!.seconds).toBeGreaterThan(5);
  });

  it("a recorded test sequence is known by its marks", async () => {
    const preset = PRESETS.find(({ id }) => id === "record-level")!;
    const renderer = new SequenceRenderer(preset, RATE);
    const [left, right] = renderer.block(3 * RATE, renderer.frames - 3 * RATE);
    const report = (await measureRecording(recording(left, right), { tape: null, sequences: PRESETS }))!;
    expect(report.by).toMatchObject({ kind: "sequence", id: "record-level" });
    expect(
      report.stretches.map(({ nominalHz, levelDb }) => [nominalHz, Math.round(100 * levelDb.left) / 100]),
    ).toEqual([
      [315, -12],
      [1000, -12],
    ]);
  });

  it("noise has levels and no stretches; a cancelled one gives nothing", async () => {
    const noise = whiteNoise(5 * RATE, 0.05);
    expect((await measureRecording(recording(noise), { tape: null, sequences: PRESETS }))!.stretches).toEqual(
      [],
    );
    expect(
      await measureRecording(recording(noise), { tape: null, sequences: [], cancelled: () => true }),
    ).toBeNull();
  });
});

describe("live", () => {
  const tape = referenceTapeSchema.parse({
    ...DEMO_TAPES[0],
    bands: [
      { kind: "tone", role: "speed", frequencyHz: 3150, levelDb: 0, seconds: 60 },
      { kind: "tone", role: "azimuth", frequencyHz: 8000, levelDb: -10, seconds: 60 },
    ],
  });
  const options = {
    sampleRateHz: RATE,
    channelCount: 2,
    tape,
    speedFactor: 1,
    nominalHz: 3150,
    evidenceSeconds: 2,
  };
  function listen(x: Float64Array, more: Partial<typeof options> = {}) {
    const live = new LiveListening({ ...options, ...more });
    for (let at = 0; at < x.length; at += 4800) {
      live.push([x.slice(at, at + 4800), x.slice(at, at + 4800)]);
      live.result(false);
    }
    return live;
  }

  it("names the band that plays and measures speed by its own frequency", () => {
    const live = listen(fmTone(8, RATE, 8000 * 1.01, [], 0.1));
    const result = live.result(false);
    expect(result.band).toMatchObject({ index: 1, name: "8 kHz, −10 dB" });
    expect(result.nominalHz).toBe(8000);
    expect(result.speed!.errorPercent).toBeCloseTo(1, 2);
    expect(result.bandsHeard).toEqual([1]);
    expect(result.tapeDoubt).toBeNull();
  });

  it("doubts the tape when something else plays", () => {
    expect(listen(fmTone(8, RATE, 1000)).result(false).tapeDoubt).toMatch(/no band like the 1000 Hz/);
  });

  it("keeps as much evidence as was asked for, and none when none was", () => {
    const x = fmTone(4, RATE, 3150);
    expect(listen(x).evidence().channels[0]).toHaveLength(2 * RATE);
    expect(listen(x, { evidenceSeconds: 0 }).evidence().channels[0]).toHaveLength(0);
  });

  it.each([
    [1024, true],
    [20_000, false],
  ])("a loss of %i samples that the sender reports is counted; bridged: %s", (lost, bridged) => {
    const live = listen(fmTone(6, RATE, 3150));
    expect(live.result(false).speed!.settled).toBe(true);
    live.lose(lost);
    live.push([fmTone(0.5, RATE, 3150), fmTone(0.5, RATE, 3150)]);
    const result = live.result(false);
    expect(result.speed!.settled).toBe(bridged);
    expect(result.check!.lostSamples).toBe(lost);
  });
});

it("a watched run lists a slip although the speed is read anew after it, and names the parts meanwhile", () => {
  const parts = machinePartsSchema.parse([{ name: "capstan", tapeDiameterMm: 2.5 }]);
  const live = new LiveListening({
    sampleRateHz: RATE,
    channelCount: 1,
    tape: BUILT_IN_TAPES[0],
    speedFactor: 1,
    nominalHz: 3150,
    evidenceSeconds: 0,
  });
  live.startWatch();
  let phase = 0;
  let latest: ReturnType<LiveListening["result"]> | null = null;
  let named: string[] = [];
  for (let n = 0; n < 240; n++) {
    const block = sampled(RATE / 10, (i) => {
      const t = n / 10 + i / RATE;
      const slip = t > 14 && t < 14.5 ? 0.02 * (1 - Math.cos(4 * Math.PI * (t - 14))) : 0;
      phase += (2 * Math.PI * 3150 * (1 + 0.001 * Math.sin(2 * Math.PI * 6.0606 * t) - slip)) / RATE;
      return 0.3 * Math.sin(phase);
    });
    live.push([block]);
    const result = live.result(true);
    if (result.watch) latest = result;
    if (!result.stretch) continue;
    // thought out aside, and told to the log
    const view = transportView(result.stretch, { parts, speedCmPerS: 4.76, firstSpeedCmPerS: 4.76 });
    live.noteTransport(view.events, view.finding.spectrum);
    named = view.finding.parts.map(({ part }) => part);
  }
  const [event, ...others] = latest!.watch!.events;
  expect(others).toEqual([]);
  expect(event.kind).toBe("slip");
  expect(Math.abs(event.atSeconds - 14)).toBeLessThan(0.3);
  expect(event.percent).toBeLessThan(-3);
  expect(named).toContain("capstan");
  expect(latest!.watch!.speedPercent.length).toBeGreaterThan(40);
});
