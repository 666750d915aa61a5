import { describe, expect, it } from "vitest";
import { tapeSound, type Piece, type TapeSoundOptions } from "@/testing/tape-sound";
import { bandSchema, type Band } from "@/core/reference/reference-tape";
import type { Programme } from "./programme";
import { ProgrammeRecogniser } from "./programme-recogniser";

const RATE = 48000;
const tone = (role: string, frequencyHz: number, levelDb: number, seconds: number): Band =>
  bandSchema.parse({ kind: "tone", role, frequencyHz, levelDb, seconds });

const BANDS: Band[] = [
  tone("level", 315, 0, 4),
  tone("speed", 3150, 0, 6),
  tone("azimuth", 1000, -10, 3),
  tone("azimuth", 3150, -10, 3),
  tone("azimuth", 10000, -10, 3),
  tone("response", 315, -20, 3),
  tone("response", 40, -20, 3),
  tone("response", 250, -20, 3),
  tone("response", 1000, -20, 3),
  tone("response", 8000, -20, 3),
  { kind: "sweep", role: "response", frequencyHz: 40, toFrequencyHz: 12500, levelDb: -20, seconds: 8 },
  { kind: "noise", role: "response", frequencyHz: 0, levelDb: -20, seconds: 4 },
];
const programmeOf = (sections: Band[], name = "Test tape"): Programme => ({
  kind: "tape",
  id: "test",
  name,
  sections,
  marks: null,
});
const TAPE = programmeOf(BANDS);
const band = (index: number, part: { from?: number; to?: number } = {}): Piece => ({
  kind: "band",
  index,
  ...part,
});
const OFFSET = 0.2;
const gap: Piece = { kind: "silence", seconds: 0.8 };
const all = BANDS.flatMap((_, i): Piece[] => [band(i), i % 4 === 1 ? { kind: "speech", seconds: 1.6 } : gap]);

function recognised(pieces: Piece[], options: TapeSoundOptions = {}, tape = TAPE, offset = 0) {
  const { left, right, places } = tapeSound(BANDS, pieces, RATE, options);
  for (const x of [left, right]) for (let i = 0; i < x.length; i++) x[i] += offset;
  const recogniser = new ProgrammeRecogniser(RATE, 2, { marks: false });
  for (let at = 0; at < left.length; at += 30_000)
    recogniser.push([left.subarray(at, at + 30_000), right.subarray(at, at + 30_000)]);
  recogniser.finish();
  return { ...recogniser.recognise(tape), places };
}

/** Every band once, its edges within 50 ms (a quarter-second for what has no pitch), and nothing else. */
function expectFound({ sections: bands, places }: ReturnType<typeof recognised>, speedPercent = 0) {
  const longest = new Map<number, (typeof places)[number]>();
  for (const place of places) {
    const other = longest.get(place.index);
    if (!other || place.end - place.start > other.end - other.start - 0.01) longest.set(place.index, place);
  }
  expect(bands.map(({ index }) => index).sort((a, b) => a - b)).toEqual(
    [...longest.keys()].sort((a, b) => a - b),
  );
  for (const { index, startSeconds, endSeconds, frequencyHz } of bands) {
    const { start, end } = longest.get(index)!;
    const { kind, frequencyHz: nominal } = BANDS[index];
    const tolerance = kind === "tone" ? 0.05 : 0.25;
    expect(Math.abs(startSeconds - start), `start of band ${index}`).toBeLessThan(tolerance);
    expect(Math.abs(endSeconds - end), `end of band ${index}`).toBeLessThan(tolerance);
    if (kind === "tone")
      expect(frequencyHz / (nominal * (1 + speedPercent / 100)), `band ${index}`).toBeCloseTo(1, 3);
  }
}

describe("which band of the tape is heard", () => {
  it.each([-6, -2.5, 0, 6])("with the deck %f %% off, announcements and hum between", (speedPercent) => {
    const found = recognised(all, { speedPercent, humDbfs: -40 });
    expectFound(found, speedPercent);
    expect(100 * (found.speedRatio! - 1)).toBeCloseTo(speedPercent, 1);
    expect(found.doubt).toBeNull();
  });

  it("beside an offset of a fifth of full scale", () => {
    expectFound(recognised(all, {}, TAPE, OFFSET));
  });

  it("started in the middle of a band, stopped in the middle of another", () => {
    expectFound(
      recognised([band(2, { from: 1.5 }), ...all.slice(5, 16), band(8, { to: 1.8 })], { speedPercent: 2 }),
      2,
    );
  });

  it("after a rewind that was heard", () => {
    const back = [5, 4, 3, 2].map((index): Piece => ({ kind: "wind", index }));
    const pieces = [...all.slice(0, 12), ...back, gap, ...all.slice(4)];
    const found = recognised(pieces, { speedPercent: -3, humDbfs: -45 });
    expectFound(found, -3);
    expect(found.repeats.length).toBeGreaterThanOrEqual(2);
  });

  it("with levels 10 dB down, a dull head, and half a percent of flutter", () => {
    expectFound(
      recognised(all, { referenceDbfs: -20, trebleLossDb: 12, flutterPercent: 0.5, noiseDbfs: -70 }),
    );
  });

  it("levels of both channels, within a twentieth of a decibel", () => {
    const { sections } = recognised(all, { trebleLossDb: 0 });
    for (const { index, levelDb } of sections.filter(({ index: i }) => BANDS[i].kind === "tone")) {
      expect(Math.abs(levelDb!.left - (BANDS[index].levelDb - 12))).toBeLessThan(0.05);
      expect(Math.abs(levelDb!.right - (BANDS[index].levelDb - 12.5))).toBeLessThan(0.05);
    }
  });

  it("a staircase of one frequency is told by its steps", () => {
    const bands = [0, -10, -20, -30].map((db) => tone("level", 1000, db, 3));
    const { left, right } = tapeSound(
      bands,
      [0, 1, 2, 3].map((i) => band(i)),
      RATE,
      { noiseDbfs: -75 },
    );
    const recogniser = new ProgrammeRecogniser(RATE, 2, { marks: false });
    recogniser.push([left, right]);
    recogniser.finish();
    const found = recogniser.recognise(programmeOf(bands)).sections;
    expect(found.map(({ index }) => index)).toEqual([0, 1, 2, 3]);
    found.forEach(({ startSeconds }, i) => expect(Math.abs(startSeconds - 3 * i)).toBeLessThan(0.06));
  });
});

describe("what is not the tape", () => {
  it("speech and music alone give no band", () => {
    expect(recognised([{ kind: "speech", seconds: 12 }]).sections).toEqual([]);
  });

  it("another tape is doubted in words", () => {
    const other = programmeOf([tone("speed", 3150, 0, 60)], "Another");
    const { doubt, sections } = recognised([band(0), gap, band(2), gap, band(9)], {}, other);
    expect(sections).toEqual([]);
    expect(doubt).toMatch(/hardly be Another/);
  });
});
