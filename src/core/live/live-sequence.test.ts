import type { Samples } from "@/core/dsp/signal";
import { describe, expect, it } from "vitest";
import { DEMO_TAPES } from "@/core/reference/demo-tapes";
import { programmeOfSequence } from "@/core/signals/programme-of-sequence";
import { SequenceRenderer } from "@/core/signals/render-sequence";
import { sequenceSchema, type Segment } from "@/core/signals/sequence";
import { fmTone } from "@/testing/fm-tone";
import { heardLive } from "./heard-live";
import { NOTHING_HEARD_YET } from "@/core/stations/heard";
import type { ListeningResult } from "./listening-result";
import { LiveListening } from "./live-listening";

const RATE = 32_000;
const sine = (frequencyHz: number, levelDb: number, seconds: number): Segment => ({
  kind: "sine",
  channels: "both",
  frequencyHz,
  levelDb,
  seconds,
});
const sequenceOf = (name: string, segments: Segment[]) =>
  sequenceSchema.parse({
    format: "unzel-sequence",
    version: 1,
    id: name,
    name,
    marked: true,
    leaderSeconds: 0.5,
    gapSeconds: 0.5,
    segments,
  });
const LADDER = sequenceOf("Ladder", [
  sine(3150, -12, 5),
  { kind: "steps", channels: "both", frequenciesHz: [1000, 6300], levelDb: -32, seconds: 4 },
  { kind: "pink", channels: "both", levelDb: -32, seconds: 4 },
]);
const soundOf = (sequence: typeof LADDER) => {
  const renderer = new SequenceRenderer(sequence, RATE);
  return renderer.block(0, renderer.frames)[0];
};

/** What is heard every half second of a sound, as the bench asks. */
function heardIn(sound: Samples, sequences = [LADDER]): ListeningResult[] {
  const live = new LiveListening({
    sampleRateHz: RATE,
    channelCount: 2,
    tape: DEMO_TAPES[0],
    sequences,
    speedFactor: 1,
    nominalHz: 3150,
    evidenceSeconds: 0,
  });
  const step = RATE / 2;
  return Array.from({ length: Math.floor(sound.length / step) }, (_, i) => {
    const block = sound.subarray(i * step, (i + 1) * step);
    live.push([block, block]);
    return live.result(true, "azimuth");
  });
}
const names = (results: ListeningResult[]) => [
  ...new Set(results.flatMap(({ band }) => (band?.sequence ? `${band.sequence}: ${band.name}` : []))),
];

describe("a marked sequence is known while it plays", () => {
  it("each of its sounds by name, and nothing of the machine's speed is read from it", () => {
    const results = heardIn(soundOf(LADDER));
    expect(names(results)).toEqual([
      "Ladder: 3.15 kHz, −12 dB",
      "Ladder: 1 kHz, −32 dB",
      "Ladder: 6.3 kHz, −32 dB",
      "Ladder: noise, −32 dB",
    ]);
    // the mark in front of it lasts until a second and a half
    for (const { speed, flutter, tapeDoubt } of results.slice(3)) {
      expect([speed, flutter]).toEqual([null, null]);
      expect(tapeDoubt).toBeNull();
    }
    const heard = heardLive(
      results[8],
      { source: { kind: "practice", name: "x" }, fullScale: null },
      NOTHING_HEARD_YET,
    );
    expect(heard.problems[0]).toMatch(/The sequence Ladder plays/);
  });

  it("started in the middle it is known from its next mark", () => {
    const results = heardIn(soundOf(LADDER).subarray(3 * RATE));
    expect(names(results)[0]).toBe("Ladder: 1 kHz, −32 dB");
  });

  it("broken off, and a reference tape played instead: the tape is read again", () => {
    const tape = fmTone(12, RATE, 3150 * 1.01, [], 0.25);
    const sound = new Float64Array(3.5 * RATE + tape.length);
    sound.set(soundOf(LADDER).subarray(0, 3 * RATE));
    sound.set(tape, 3.5 * RATE);
    const last = heardIn(sound).at(-1)!;
    expect(last.sequencePlays).toBeNull();
    expect(last.speed!.errorPercent).toBeCloseTo(1, 2);
  });

  it("two that carry the same mark are told by their tones, else by neither name alone", () => {
    const marks = (hz: number) => programmeOfSequence(sequenceOf("x", [sine(hz, -12, 5)])).marks!.digit;
    const digit = marks(3150);
    const otherHz = Array.from({ length: 200 }, (_, k) => 400 + 10 * k).find((hz) => marks(hz) === digit)!;
    const one = sequenceOf("One", [sine(3150, -12, 5)]);
    const two = sequenceOf("Two", [sine(otherHz, -12, 5)]);
    expect(names(heardIn(soundOf(one), [two, one]))).toEqual(["One: 3.15 kHz, −12 dB"]);
    const copy = { ...one, id: "copy", name: "Copy" };
    expect(names(heardIn(soundOf(one), [one, copy]))).toEqual(["One or Copy: 3.15 kHz, −12 dB"]);
    expect(names(heardIn(soundOf(one), [two]))).toEqual([]);
  });
});
