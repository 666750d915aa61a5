import { describe, expect, it } from "vitest";
import { joined } from "@/core/dsp/joined";
import { SeededRandom } from "@/core/dsp/seeded-random";
import { soundInMemory } from "@/core/formats/sound-file";
import { clips } from "@/core/returned/clips";
import type { ReturnedChannel, ReturnedCurve } from "@/core/returned/returned";
import { SequenceRenderer } from "@/core/signals/render-sequence";
import { timelineOf } from "@/core/signals/timeline";
import { sequenceSchema, type Segment, type Sequence } from "@/core/signals/sequence";
import { dullDb, madeRecording, type RecorderOptions } from "@/testing/made-recording";
import { measureReturned } from "./measure-returned";

const RATE = 48000;
const both = "both" as const;
const sine = (
  frequencyHz: number,
  levelDb: number,
  seconds: number,
  channels: Segment["channels"] = both,
): Segment => ({
  kind: "sine",
  channels,
  frequencyHz,
  levelDb,
  seconds,
});
const sequenceOf = (segments: Segment[], fields: Partial<Sequence> = {}): Sequence =>
  sequenceSchema.parse({
    format: "unzel-sequence",
    version: 1,
    id: "test",
    name: "Test",
    marked: true,
    gapSeconds: 0.5,
    leaderSeconds: 0.5,
    segments,
    ...fields,
  });
const rendered = (sequence: Sequence): [Float64Array, Float64Array] => {
  const renderer = new SequenceRenderer(sequence, RATE);
  return renderer.block(0, renderer.frames);
};
const hear = (sound: readonly Float64Array[], sequence: Sequence) =>
  measureReturned(
    soundInMemory(
      sound.map((x) => Float32Array.from(x)),
      RATE,
    ),
    sequence,
  );
const comesBack = (sequence: Sequence, options: RecorderOptions) =>
  hear(madeRecording(rendered(sequence), RATE, options), sequence);
const of = <K extends ReturnedChannel["kind"]>(channels: ReturnedChannel[], kind: K, channel = "left") =>
  channels.find((one) => one.kind === kind && one.channel === channel) as Extract<
    ReturnedChannel,
    { kind: K }
  >;

const curveOf = (channels: ReturnedChannel[], kind: string, channel = "left") =>
  channels.find((one) => one.kind === kind && one.channel === channel) as ReturnedChannel & ReturnedCurve;

describe("what came back of a sequence, re what was sent", () => {
  it.each([
    [1, 0, 1e-5],
    [0.95, 0.003, 1e-4],
    [1.05, 0.003, 1e-4],
  ])("levels of tones at %f times the speed, flutter ±%f", async (speed, flutter, noise) => {
    const sequence = sequenceOf([sine(1000, -32, 3), sine(8000, -20, 2), sine(315, -12, 2)]);
    const { passes, speedFactor } = await comesBack(sequence, {
      speed,
      flutter,
      noise,
      gainDb: [-2.3, 1.1],
    });
    expect(speedFactor).toBeCloseTo(speed, 3);
    const [{ pass, segments }] = passes;
    expect(pass).toBe(1);
    expect(segments.map(({ index, kind }) => [index, kind])).toEqual([0, 1, 2].map((i) => [i, "sine"]));
    for (const { channels } of segments) {
      expect(of(channels, "sine").levelDb).toBeCloseTo(-2.3, 1);
      expect(Math.abs(of(channels, "sine", "right").levelDb! - 1.1)).toBeLessThan(0.05);
    }
  });

  it.each([
    [-40, 1e-4],
    [-55, 1e-3],
  ])("a tone on one side alone tells what comes across: %f dB in noise of %f", async (leakDb, noise) => {
    const sequence = sequenceOf([sine(1000, -12, 4, "left"), sine(1000, -12, 4, "right")]);
    const { passes } = await comesBack(sequence, { leakDb, noise, flutter: 0.002 });
    const [left, right] = passes[0].segments.map(({ channels }) => channels);
    for (const [channels, from, to] of [
      [left, "left", "right"],
      [right, "right", "left"],
    ] as const) {
      expect(of(channels, "sine", from).levelDb).toBeCloseTo(0, 1);
      const across = of(channels, "sine", to);
      expect(across.levelDb).toBeNull();
      expect(Math.abs(across.crosstalkDb! - leakDb)).toBeLessThan(0.6);
      expect(Math.abs(across.crosstalkDb! - leakDb)).toBeLessThan(1.5 * across.uncertaintyDb + 0.05);
    }
  });

  it("where nothing comes across but noise it is at most what that hides", async () => {
    const { passes } = await comesBack(sequenceOf([sine(1000, -32, 3, "left")]), { noise: 1e-3 });
    const across = of(passes[0].segments[0].channels, "sine", "right");
    expect(across.crosstalkDb).toBeNull();
    expect(across.crosstalkAtMostDb).toBeLessThan(-25);
    expect(across.crosstalkAtMostDb).toBeGreaterThan(-70);
  });

  it.each<[string, (left: Float64Array, right: Float64Array) => Float64Array[], RegExp]>([
    ["swapped", (left, right) => [right, left], /nothing comes back on the channel/],
    ["joined", (left) => [left, left.map((v) => 0.9 * v)], /swapped or joined/],
    [
      "dead on the side that it was sent on",
      (left) => [left.map((v) => 1e-6 * v), left],
      /nothing comes back/,
    ],
  ])("channels that are %s give a wiring message and no crosstalk", async (_, wired, why) => {
    const sequence = sequenceOf([sine(1000, -12, 3, "left")]);
    const [left, right] = madeRecording(rendered(sequence), RATE, { noise: 1e-6, gainDb: [0, 0] });
    const { passes, warnings } = await hear(wired(left, right), sequence);
    expect(of(passes[0].segments[0].channels, "sine", "right").crosstalkDb ?? null).toBeNull();
    expect(warnings.join()).toMatch(why);
  });

  const dull = 0.55;
  const curve = (hz: number) => dullDb(dull, hz, RATE) - dullDb(dull, 1000, RATE);
  it.each<[string, Segment, number, number, number]>([
    [
      "steps",
      {
        kind: "steps",
        channels: both,
        frequenciesHz: [100, 250, 4000, 10000, 16000],
        levelDb: -32,
        seconds: 2,
      },
      0.1,
      1,
      5,
    ],
    [
      "sweep",
      { kind: "sweep", channels: both, frequencyHz: 40, toFrequencyHz: 16000, levelDb: -32, seconds: 8 },
      0.2,
      0.97,
      40,
    ],
    ["pink", { kind: "pink", channels: both, levelDb: -32, seconds: 8 }, 0.35, 1.03, 40],
    ["white", { kind: "white", channels: both, levelDb: -32, seconds: 8 }, 0.5, 1, 40],
  ])(
    "a known curve by %s, re the first sine, in flutter and noise",
    async (kind, segment, within, speed, least) => {
      const sequence = sequenceOf([sine(1000, -32, 2), segment]);
      const { passes, warnings } = await comesBack(sequence, {
        speed,
        dull,
        flutter: 0.002,
        noise: 1e-4,
        gainDb: [-4, 2],
      });
      expect(warnings).toEqual([]);
      for (const channel of ["left", "right"]) {
        const { points } = curveOf(passes[0].segments[1].channels, kind, channel);
        const judged = points.filter(({ frequencyHz }) => frequencyHz < 17_000);
        expect(judged.length).toBeGreaterThanOrEqual(least);
        for (const { frequencyHz, levelDb } of judged)
          expect(Math.abs(levelDb - curve(frequencyHz)), `${frequencyHz} Hz`).toBeLessThan(within);
      }
    },
  );

  it("noise that hides the treble hangs together less, and a channel that swings is seen", async () => {
    const sequence = sequenceOf([
      sine(1000, -32, 2),
      { kind: "pink", channels: both, levelDb: -32, seconds: 8 },
    ]);
    const [left, right] = madeRecording(rendered(sequence), RATE, { noise: 2e-3 });
    right.forEach((v, i) => (right[i] = v * 10 ** ((2 * Math.sin(i / RATE / 1.3)) / 20)));
    const { passes } = await hear([left, right], sequence);
    const [, { channels }] = passes[0].segments;
    const points = curveOf(channels, "pink").points;
    const near = (hz: number, channel = points) => channel.find(({ frequencyHz }) => frequencyHz > hz)!;
    expect(near(400).coherence!).toBeGreaterThan(near(12_000).coherence!);
    expect(near(12_000).coherence!).toBeLessThan(0.97);
    const swinging = curveOf(channels, "pink", "right").points;
    expect(near(1000, swinging).spreadDb).toBeGreaterThan(1);
    expect(near(1000).spreadDb).toBeLessThan(0.4);
  });

  it("a staircase gives the third harmonic of each step and the MOL between them", async () => {
    const stairs: Segment = {
      kind: "staircase",
      channels: both,
      frequencyHz: 315,
      levelDb: -16,
      toLevelDb: -4,
      stepDb: 2,
      seconds: 1.5,
    };
    const { passes } = await comesBack(sequenceOf([stairs]), { third: 0.01, flutter: 0.003, noise: 3e-5 });
    const { steps, molDb } = of(passes[0].segments[0].channels, "staircase");
    for (const { sentDbfs, thirdPercent, levelDb } of steps) {
      // of x − a·x³ the third has a·A³/4 and the fundamental loses three times that
      const q = 0.01 * 10 ** ((sentDbfs + 12) / 10);
      expect(20 * Math.log10(thirdPercent! / 100 / (q / (1 - 3 * q)))).toBeCloseTo(0, 1);
      expect(levelDb).toBeCloseTo(20 * Math.log10(1 - 3 * q), 1);
    }
    expect(Math.abs(molDb! - 10 * Math.log10(0.03 / 1.09 / 0.01))).toBeLessThan(0.1);
  });

  it.each([-50, -75])(
    "a silence gives what is left of the tone before it, %f dB, its noise and its hum",
    async (residueDb) => {
      const sequence = sequenceOf([sine(1000, -6, 3), { kind: "silence", channels: both, seconds: 8 }]);
      const sound = madeRecording(rendered(sequence), RATE, { speed: 0.97, gainDb: [-3, 2] });
      const silence = timelineOf(sequence).parts.at(-1)!;
      const random = new SeededRandom(4);
      const noise = 10 ** ((residueDb - 6 + 10) / 20) * Math.SQRT1_2;
      for (const [c, x] of sound.entries())
        for (let i = 0; i < x.length; i++) {
          const t = i / RATE;
          x[i] += noise * random.normal() + (c === 0 ? 1e-4 * Math.sin(2 * Math.PI * 50 * t) : 0);
          if (t > silence.startSeconds / 0.97)
            x[i] += 10 ** ((residueDb - 6 + [-3, 2][c]) / 20) * Math.sin(2 * Math.PI * 970 * t);
        }
      const { passes } = await hear(sound, sequence);
      for (const channel of ["left", "right"]) {
        const heard = of(passes[0].segments[1].channels, "silence", channel);
        expect(heard.residualMeasurable).toBe(true);
        expect(Math.abs(heard.residualDb! - residueDb)).toBeLessThan(0.5);
        const flat = 20 * Math.log10(noise * Math.SQRT2) + 10 * Math.log10(19_980 / 24_000);
        expect(Math.abs(heard.noise!.flatDbfs - flat)).toBeLessThan(1);
      }
      const [hum] = of(passes[0].segments[1].channels, "silence").hum;
      if (residueDb < -60) expect(Math.abs(hum.frequencyHz - 50)).toBeLessThan(0.3);
    },
  );

  it("two tones give the modulation distortion of the upper by the lower", async () => {
    const two: Segment = {
      kind: "two-tone",
      channels: both,
      frequencyHz: 315,
      secondHz: 3150,
      levelDb: -12,
      seconds: 3,
    };
    const { passes } = await comesBack(sequenceOf([two]), { third: 0.01, flutter: 0.002, noise: 1e-5 });
    // each of the two has half the amplitude: of a·(u + v)³ the lines v ± 2u have 3/4·a·u²·v each
    const a = (4 * 0.01) / 10 ** (-24 / 20);
    const u = 10 ** (-12 / 20) / 2;
    const upper = u - a * (0.75 * u ** 3 + 1.5 * u ** 3);
    const expected = (100 * 2 * 0.75 * a * u ** 3) / upper;
    const { intermodulationPercent } = of(passes[0].segments[0].channels, "two-tone");
    expect(intermodulationPercent / expected).toBeCloseTo(1, 1);
  });

  it("passes are told apart, each by itself; a gap, a retry and a missing pass do not matter", async () => {
    const sequence = sequenceOf([sine(1000, -32, 2), sine(8000, -32, 2)], {
      passes: 4,
      passGapSeconds: 1,
      leaderSeconds: 0,
    });
    const [whole] = rendered(sequence);
    const each = Math.round(whole.length / 4);
    const piece = (pass: number, db: number, seconds = Infinity) =>
      whole
        .slice((pass - 1) * each, Math.min(pass * each, (pass - 1) * each + seconds * RATE))
        .map((v) => v * 10 ** (db / 20));
    const tape = joined(piece(3, -3), new Float64Array(2 * RATE), piece(1, 5, 4), piece(1, -1), piece(2, -2));
    const { passes, warnings } = await hear(
      madeRecording([tape, tape], RATE, { speed: 0.92, noise: 1e-5 }),
      sequence,
    );
    const levels = passes.map(({ pass, segments }) => [
      pass,
      ...segments.map(({ channels }) => of(channels, "sine").levelDb!),
    ]);
    expect(levels.map(([pass]) => pass)).toEqual([1, 2, 3]);
    for (const [pass, ...db] of levels) for (const level of db) expect(level).toBeCloseTo(-pass, 1);
    expect(warnings.join()).toMatch(/Pass 1 was heard 2 times/);
  });

  it("cut in the middle it is said to be; another recording holds none of it", async () => {
    const sequence = sequenceOf([sine(1000, -32, 2), sine(8000, -32, 3)]);
    const [left, right] = madeRecording(rendered(sequence), RATE, { noise: 1e-5 });
    const cut = [left, right].map((x) => x.subarray(0, 5.2 * RATE));
    const { passes, warnings } = await hear(cut, sequence);
    expect(passes[0].segments.map(({ index }) => index)).toEqual([0]);
    expect(warnings.join()).toMatch(/not whole: 1 of its 2/);
    const other = await hear([left.subarray(2 * RATE, 4 * RATE)], sequence);
    expect(other).toMatchObject({ passes: [], speedFactor: null });
    expect(other.warnings.join()).toMatch(/not heard/);
  });

  it("a clipped input is told", async () => {
    const sequence = sequenceOf([sine(315, -3, 2)]);
    const sound = madeRecording(rendered(sequence), RATE, {}).map((x) =>
      x.map((v) => Math.max(-0.5, Math.min(0.5, v))),
    );
    expect((await hear(sound, sequence)).warnings.join()).toMatch(/clips/);
  });

  it.each<[string, Segment]>([
    [
      "a sweep",
      { kind: "sweep", channels: both, frequencyHz: 40, toFrequencyHz: 15_000, levelDb: -8, seconds: 4 },
    ],
    ["noise", { kind: "white", channels: both, levelDb: -16, seconds: 5 }],
    [
      "two tones",
      { kind: "two-tone", channels: both, frequencyHz: 60, secondHz: 7000, levelDb: -6, seconds: 2 },
    ],
    ["a step", { kind: "steps", channels: both, frequenciesHz: [63, 10_000], levelDb: -8, seconds: 2 }],
  ])("%s at full scale clips, and is told; a tone that does not is as it was", async (_, loud) => {
    const sequence = sequenceOf([sine(1000, -32, 2), loud]);
    const whole = rendered(sequence).map((x) => x.map((v) => Math.max(-1, Math.min(1, 4 * v))));
    const { passes, warnings } = await hear(whole, sequence);
    expect(warnings).toEqual([expect.stringMatching(/clips/)]);
    const [quiet, clipped] = passes[0].segments.map(({ channels }) => channels.map(clips));
    expect([quiet, clipped]).toEqual([
      [false, false],
      [true, true],
    ]);
    const calm = await hear(rendered(sequence), sequence);
    expect(calm.passes[0].segments.flatMap(({ channels }) => channels.map(clips))).not.toContain(true);
    expect(calm.warnings).toEqual([]);
  });
});
