import { describe, expect, it } from "vitest";
import { PracticeDeck } from "@/core/simulator/practice-deck";
import { practiceMachine } from "@/core/simulator/practice-machines";
import { ProgrammeRecogniser } from "@/core/programme/programme-recogniser";
import { BUILT_IN_TAPES } from "@/core/reference/built-in-tapes";
import { DEMO_TAPES } from "@/core/reference/demo-tapes";
import { referenceTapeSchema } from "@/core/reference/reference-tape";
import { programmeOfTape } from "@/core/reference/programme-of-tape";
import { programmeOfSequence } from "@/core/signals/programme-of-sequence";
import { MarkDetector } from "@/core/programme/mark-detector";
import { PRESETS } from "@/core/signals/presets";
import { segmentSeconds, sequenceSchema } from "@/core/signals/sequence";
import { blankTape, practiceTape, sequenceInput } from "./practice-tape";
import { largestDifference } from "@/testing/largest-difference";

const RATE = 32_000;
const deckFor = (id: string, settings = {}, tape = blankTape(4.76)) =>
  new PracticeDeck({
    parameters: { ...practiceMachine(id).transport, ...settings },
    sampleRateHz: RATE,
    tape,
    seed: 3,
  });

describe("a reference tape in the practice machine", () => {
  it("is as long as its bands and keeps its equalisation", () => {
    const reference = DEMO_TAPES.find(({ id }) => id === "ssa-10")!;
    const tape = practiceTape(reference);
    const seconds = reference.bands.reduce((sum, band) => sum + band.seconds, 0);
    expect(tape.seconds).toBeGreaterThan(seconds);
    expect([tape.t1Microseconds, tape.t2Microseconds]).toEqual([3180, 120]);
    expect(tape.sides).toHaveLength(2);
  });

  it.each([
    ["a fast cassette deck with hum", "ellesby-c-1r", { "speed.errorPercent": 3, "hum.db": -45 }],
    ["a portable with all its flutter", "marrow-field-7", { "speed.errorPercent": -4 }],
    ["a dirty head", "ellesby-c-3h", { "head.spacingMicrometres": 1 }],
  ])("%s: every band of the tape is recognised from its sound alone", (_, machine, settings) => {
    const reference = referenceTapeSchema.parse({
      ...DEMO_TAPES[0],
      bands: BUILT_IN_TAPES.find(({ id }) => id === "full-cassette")!
        .bands.filter(({ kind }) => kind === "tone")
        .slice(0, 12)
        .map((band) => ({ ...band, seconds: 4 })),
    });
    const deck = deckFor(machine, settings, practiceTape(reference));
    const recogniser = new ProgrammeRecogniser(RATE, 2, { marks: false });
    deck.press("play");
    for (let s = 0; s < 66; s++) recogniser.push(deck.render(RATE));
    recogniser.finish();
    const { sections, doubt } = recogniser.recognise(programmeOfTape(reference));
    expect(sections.map(({ index }) => index)).toEqual(reference.bands.map((__, i) => i));
    expect(doubt).toBeNull();
  });
});

describe("a test sequence through a deck", () => {
  const sequence = sequenceSchema.parse({
    ...PRESETS.find(({ id }) => id === "record-level"),
    leaderSeconds: 1,
    segments: [
      { kind: "sine", frequencyHz: 315, levelDb: -12, seconds: 3 },
      { kind: "sine", frequencyHz: 6300, levelDb: -32, seconds: 3 },
    ],
  });

  it("as input it is the sequence from its start, whatever the blocks, and then silence", () => {
    const input = sequenceInput(sequence, RATE);
    const whole = sequenceInput(sequence, RATE)(12 * RATE)[0];
    const first = input(1000)[0];
    const second = input(70_000)[0];
    expect(first).toEqual(whole.subarray(0, 1000));
    expect(second).toEqual(whole.subarray(1000, 71_000));
    expect(whole.subarray(10 * RATE).every((v) => v === 0)).toBe(true);
  });

  it("steady tones alone have no end, and no seam", () => {
    const tones = (seconds: number) =>
      sequenceInput(
        sequenceSchema.parse({
          ...PRESETS.find(({ id }) => id === "bias-tones"),
          segments: [{ kind: "two-tone", frequencyHz: 315, secondHz: 10_000, levelDb: -32, seconds }],
        }),
        RATE,
      );
    const [short, long] = [tones(6), tones(60)];
    for (let block = 0; block < 300; block++) {
      expect(largestDifference(short(4800)[0], long(4800)[0])).toBeLessThan(1e-9);
    }
  });

  it("recorded on a two-head machine, rewound and played: both segments are found by their marks", () => {
    const deck = deckFor("ellesby-c-1r", { "speed.errorPercent": 1 });
    deck.setInput(sequenceInput(sequence, RATE));
    deck.press("record");
    deck.render(11 * RATE);
    deck.press("rewind");
    deck.render(RATE);
    deck.press("play");
    const recogniser = new ProgrammeRecogniser(RATE, 2, { marks: true });
    for (let s = 0; s < 11; s++) recogniser.push(deck.render(RATE));
    const { sections: found, speedRatio } = recogniser.recognise(programmeOfSequence(sequence));
    expect(found.map(({ index }) => index)).toEqual([0, 1]);
    // recorded and played at the same wrong speed: the tape itself comes back right
    expect(speedRatio).toBeCloseTo(1, 2);
    for (const { startSeconds, endSeconds, index } of found) {
      expect(endSeconds - startSeconds).toBeCloseTo(segmentSeconds(sequence.segments[index]), 1);
    }
  });

  it("off tape on a three-head machine, while it is being recorded", () => {
    const deck = deckFor("ellesby-c-3h");
    deck.setInput(sequenceInput(sequence, RATE));
    deck.press("record");
    const recogniser = new MarkDetector(RATE);
    for (let s = 0; s < 10; s++) recogniser.push(deck.render(RATE));
    expect(recogniser.marks.map(({ segment }) => segment)).toEqual([0, 1]);
    // 12 mm behind the record head at 4.76 cm/s, after a leader of a second
    expect(recogniser.marks[0].atSeconds).toBeCloseTo(1 + 12 / 47.6, 1);
  });
});
