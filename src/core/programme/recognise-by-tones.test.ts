import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { HeardSegment } from "./heard-segment";
import type { Programme, Section } from "./programme";
import { recogniseByTones } from "./recognise-by-tones";

const band = (frequencyHz: number, levelDb: number, seconds = 5) => ({
  kind: "tone" as const,
  frequencyHz,
  levelDb,
  seconds,
});
/** Of kinds that are heard by their sound. */
type Heard = Section & { kind: HeardSegment["kind"] };
const programmeOf = (sections: Heard[]): Programme & { sections: Heard[] } => ({
  kind: "tape",
  id: "t",
  name: "Tape",
  sections,
  marks: null,
});
const TAPE = programmeOf([
  band(1000, 0),
  band(3150, 0, 20),
  band(1000, -10),
  band(10000, -10),
  band(1000, -20),
  band(250, -20),
  band(12500, -20),
  { kind: "noise", frequencyHz: 0, levelDb: -20, seconds: 10 },
]);

/** Segments of these bands, one after the other, as a deck of that speed and gain plays them. */
function heard(indexes: number[], ratio = 1, gainDb = -12, trebleLossDb = 0): HeardSegment[] {
  let at = 0;
  return indexes.map((index) => {
    const { kind, frequencyHz, levelDb, seconds } = TAPE.sections[index];
    const startSeconds = at;
    at += seconds / ratio + 1;
    const leftDb = levelDb + gainDb - (trebleLossDb * frequencyHz) / 10_000;
    return {
      kind,
      startSeconds,
      endSeconds: startSeconds + seconds / ratio,
      frequencyHz: frequencyHz * ratio,
      toFrequencyHz: 0,
      leftDb,
      rightDb: leftDb - 0.3,
    };
  });
}
const indexes = (segments: HeardSegment[]) =>
  recogniseByTones(segments, TAPE).sections.map(({ index }) => index);

describe("segments become bands", () => {
  it("for any run of bands, speed within ±6 %, gain and treble loss", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 4 }),
        fc.integer({ min: 3, max: 8 }),
        fc.double({ min: 0.94, max: 1.06, noNaN: true }),
        fc.double({ min: -30, max: -3, noNaN: true }),
        fc.double({ min: 0, max: 10, noNaN: true }),
        (from, count, ratio, gainDb, trebleLossDb) => {
          const wanted = TAPE.sections.map((_, i) => i).slice(from, from + count);
          const { sections: bands, speedRatio } = recogniseByTones(
            heard(wanted, ratio, gainDb, trebleLossDb),
            TAPE,
          );
          expect(bands.map(({ index }) => index)).toEqual(wanted);
          expect(speedRatio).toBeCloseTo(ratio, 6);
        },
      ),
      { numRuns: 150 },
    );
  });

  it("one frequency at three levels is told apart by the levels", () => {
    expect(indexes(heard([0, 2, 4]))).toEqual([0, 2, 4]);
    expect(indexes(heard([2, 3, 4, 5]))).toEqual([2, 3, 4, 5]);
  });

  it("with a dirty head the top bands are still told, by their order", () => {
    const played = [0, 2, 3, 4, 5, 6];
    expect(recogniseByTones(heard(played, 1, -12, 15), TAPE).sections.map(({ index }) => index)).toEqual(
      played,
    );
  });

  it("a band that was played twice is given once, its longest play, the other as a repeat", () => {
    const segments = heard([0, 1, 2, 1, 2, 3]);
    segments[1].endSeconds = segments[1].startSeconds + 6; // stopped, and wound back
    const { sections: bands, repeats } = recogniseByTones(segments, TAPE);
    expect(bands.map(({ index }) => index)).toEqual([0, 1, 2, 3]);
    expect(bands[1].startSeconds).toBe(segments[3].startSeconds);
    expect(repeats.map(({ index }) => index)).toEqual([1, 2]);
  });

  it("tones that fit no band at one speed are strangers", () => {
    const segments = heard([1, 3]);
    const stranger = { ...segments[0], frequencyHz: 5000, startSeconds: 60, endSeconds: 64 };
    const { strangers, doubt, sections: bands } = recogniseByTones([...segments, stranger], TAPE);
    expect(strangers).toEqual([stranger]);
    expect(bands).toHaveLength(2);
    expect(doubt).toBeNull(); // most of what was heard fits
  });

  it("a tone far longer than the band is not the band", () => {
    const [long] = heard([5]);
    expect(indexes([{ ...long, endSeconds: 60 }])).toEqual([]);
  });

  it("nothing comes of nothing", () => {
    expect(recogniseByTones([], TAPE)).toMatchObject({
      sections: [],
      repeats: [],
      speedRatio: null,
      doubt: null,
    });
  });
});

it("a certificate's frequency is what the speed is counted from", () => {
  const certified = { ...TAPE, sections: [{ ...band(3150, 0, 20), frequencyErrorPercent: 0.5 }] };
  const [segment] = heard([1]);
  expect(recogniseByTones([{ ...segment, frequencyHz: 3150 * 1.005 }], certified).speedRatio).toBeCloseTo(
    1,
    9,
  );
});

it("a long tone that was turned up and down in the middle is still its band, and no other tape's", () => {
  const tape = { ...TAPE, sections: [band(315, -10, 8), band(10_000, -10, 600)] };
  const piece = (startSeconds: number, endSeconds: number, leftDb: number): HeardSegment => ({
    kind: "tone",
    startSeconds,
    endSeconds,
    frequencyHz: 10_000,
    toFrequencyHz: 0,
    leftDb,
    rightDb: leftDb,
  });
  const pieces = [piece(0, 5, -22), piece(5.2, 9, -36), piece(9.1, 12, -44), piece(12.2, 14, -23)];
  const { sections: bands, repeats, doubt, strangers } = recogniseByTones(pieces, tape);
  expect(bands).toMatchObject([{ index: 1, startSeconds: 0, endSeconds: 14, frequencyHz: 10_000 }]);
  expect(repeats).toEqual([]);
  expect(strangers).toEqual([]);
  expect(doubt).toBeNull();
  const other = recogniseByTones([{ ...piece(0, 9, -22), frequencyHz: 700 }], tape);
  expect(other.doubt).toMatch(/no band like the 700 Hz/);
});
