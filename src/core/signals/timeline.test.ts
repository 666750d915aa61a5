import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { segmentName, segmentSeconds, sequenceSchema, staircaseLevels, type Segment } from "./sequence";
import { MARK_SECONDS } from "@/core/programme/sync-mark";
import { sequenceDigit, timelineOf } from "./timeline";
import { wavExport } from "@/core/formats/wav-export";

const sequenceOf = (segments: Segment[], fields = {}) =>
  sequenceSchema.parse({ format: "unzel-sequence", version: 1, id: "x", name: "X", segments, ...fields });
const both = "both" as const;

const anySegment: fc.Arbitrary<Segment> = fc.oneof(
  fc.record({
    kind: fc.constant("sine" as const),
    channels: fc.constantFrom(both, "left" as const, "right" as const),
    frequencyHz: fc.integer({ min: 20, max: 20000 }),
    levelDb: fc.integer({ min: -60, max: 0 }),
    seconds: fc.integer({ min: 1, max: 30 }),
  }),
  fc.record({
    kind: fc.constant("steps" as const),
    channels: fc.constant(both),
    frequenciesHz: fc.array(fc.integer({ min: 20, max: 20000 }), { minLength: 1, maxLength: 8 }),
    levelDb: fc.constant(-20),
    seconds: fc.integer({ min: 1, max: 5 }),
  }),
  fc.record({
    kind: fc.constant("staircase" as const),
    channels: fc.constant(both),
    frequencyHz: fc.constant(1000),
    levelDb: fc.integer({ min: -60, max: 0 }),
    toLevelDb: fc.integer({ min: -60, max: 0 }),
    stepDb: fc.constantFrom(0.5, 1, 5, 7),
    seconds: fc.integer({ min: 1, max: 3 }),
  }),
  fc.record({
    kind: fc.constant("silence" as const),
    channels: fc.constant(both),
    seconds: fc.integer({ min: 1, max: 9 }),
  }),
);

describe("the timeline of any sequence", () => {
  it("leaves no gap and no overlap that was not asked for", () => {
    fc.assert(
      fc.property(
        fc.array(anySegment, { minLength: 1, maxLength: 8 }),
        fc.boolean(),
        fc.constantFrom(0, 0.5, 2),
        fc.constantFrom(0, 5),
        (segments, marked, gapSeconds, leaderSeconds) => {
          const { parts, seconds } = timelineOf(sequenceOf(segments, { marked, gapSeconds, leaderSeconds }));
          const sounding = segments.reduce((sum, segment) => sum + segmentSeconds(segment), 0);
          const expected =
            leaderSeconds + sounding + segments.length * (gapSeconds + (marked ? MARK_SECONDS : 0));
          expect(seconds).toBeCloseTo(expected, 6);
          parts.slice(1).forEach((part, i) => {
            expect(part.startSeconds).toBeGreaterThan(parts[i].startSeconds + parts[i].seconds - 1e-6);
          });
          expect(parts.filter(({ role }) => role === "mark")).toHaveLength(marked ? 6 * segments.length : 0);
        },
      ),
      { numRuns: 100 },
    );
  });

  it("the exported file is exactly as long as was said, to the byte", () => {
    const sequence = sequenceOf([{ kind: "silence", channels: both, seconds: 1.2345 }], { marked: true });
    for (const [rate, bits] of [
      [44100, 16],
      [48000, 24],
      [96000, 32],
    ]) {
      const { byteLength, pieces } = wavExport(sequence, { rate, bits });
      const written = [...pieces()].reduce((sum, piece) => sum + piece.length, 0);
      expect(written).toBe(byteLength);
      expect(byteLength).toBe(44 + 2 * (bits / 8) * Math.round((1.2345 + MARK_SECONDS) * rate));
    }
  });
});

describe("staircases", () => {
  it.each([
    [-40, -10, 10, [-40, -30, -20, -10]],
    [0, -3, 1, [0, -1, -2, -3]],
    [-10, -10, 5, [-10]],
    [-10, -4, 4, [-10, -6]],
  ])("from %i to %i by %i dB", (levelDb, toLevelDb, stepDb, levels) => {
    expect(staircaseLevels({ levelDb, toLevelDb, stepDb })).toEqual(levels);
  });
});

describe("names and digits", () => {
  it.each<[Segment, string]>([
    [
      { kind: "sine", channels: both, frequencyHz: 12500, levelDb: -20, seconds: 5 },
      "12.5 kHz, −20 dBFS, 5 s",
    ],
    [{ kind: "pink", channels: "left", levelDb: 0, seconds: 2 }, "pink noise, 0 dBFS, left only, 2 s"],
    [{ kind: "silence", channels: both, seconds: 3 }, "silence, 3 s"],
    [
      { kind: "sweep", channels: both, frequencyHz: 20, toFrequencyHz: 20000, levelDb: -6, seconds: 10 },
      "sweep 20 Hz to 20 kHz, −6 dBFS, 10 s",
    ],
    [
      {
        kind: "staircase",
        channels: both,
        frequencyHz: 315,
        levelDb: -20,
        toLevelDb: 0,
        stepDb: 10,
        seconds: 2,
      },
      "315 Hz, −20 dBFS to 0 dBFS in steps of 10 dB, 6 s",
    ],
  ])("%j", (segment, name) => {
    expect(segmentName(segment)).toBe(name);
  });

  it("a sequence's digit depends on what it plays and on nothing else", () => {
    const segments: Segment[] = [{ kind: "silence", channels: both, seconds: 3 }];
    expect(sequenceDigit(sequenceOf(segments, { name: "Other", gapSeconds: 3 }))).toBe(
      sequenceDigit(sequenceOf(segments)),
    );
    const digits = Array.from({ length: 40 }, (_, i) =>
      sequenceDigit(sequenceOf([{ kind: "silence", channels: both, seconds: i + 1 }])),
    );
    expect(digits.every((digit) => Number.isInteger(digit) && digit >= 0 && digit < 8)).toBe(true);
    expect(new Set(digits).size).toBeGreaterThan(4);
  });
});
