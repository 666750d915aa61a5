import { describe, expect, it } from "vitest";
import { powerDb } from "@/core/dsp/decibels";
import { sineInput } from "@/testing/sine-input";
import { Compander } from "./compander";
import { Oscillator } from "./oscillator";
import { PracticeDeck } from "./practice-deck";
import { ALL_OFF } from "./deck-status";
import { practiceMachine } from "./practice-machines";
import { Tape } from "./tape";
import { ordinary, type TapeFormula } from "./tape-formula";
import type { TransportParameters } from "./transport-parameters";
import { WornPlaces } from "./worn-places";
import { sampled } from "@/core/dsp/sampled";

const RATE = 48000;
const QUIET = { "noise.db": -140, "hum.db": -140, "head.crosstalkDb": -120 };

const deckWith = (
  settings: Partial<TransportParameters> = {},
  formula: TapeFormula = ordinary("I"),
): PracticeDeck =>
  new PracticeDeck({
    parameters: { ...practiceMachine("ellesby-c-3h").transport, ...QUIET, ...settings },
    sampleRateHz: RATE,
    tape: new Tape({
      id: "t",
      name: "t",
      speedCmPerS: 4.76,
      t1Microseconds: 3180,
      t2Microseconds: 120,
      bands: [],
      formula,
      seconds: 120,
    }),
  });

/** Of a sine that is all there is to hear. */
const levelOf = (x: Float64Array) => powerDb((2 * x.reduce((sum, v) => sum + v * v, 0)) / x.length);

/** What comes off the tape of a tone so far re 0, left. */
function back(deck: PracticeDeck, hz: number, levelDb: number): number {
  deck.setInput(sineInput(hz, levelDb - 12, RATE));
  deck.press("record");
  deck.render(RATE);
  const db = levelOf(deck.render(RATE / 2)[0]) + 12;
  deck.press("stop");
  return db;
}

describe("an oscillator that dies warm", () => {
  it("takes the recording and the erasing with it, and is back when it is cold", () => {
    const deck = deckWith({ "oscillator.diesAfterSeconds": 3 });
    deck.setInput(sineInput(315, -32, RATE));
    deck.press("record");
    deck.render(2 * RATE);
    const before = levelOf(deck.render(RATE / 2)[0]);
    deck.render(2 * RATE);
    expect(before - levelOf(deck.render(RATE / 2)[0])).toBeGreaterThan(15);
    deck.press("stop");
    deck.render(3 * RATE);
    expect(back(deck, 315, -20) - 12).toBeCloseTo(before, 0);
  });

  it("erases not at all when it is dead, and worse when it is weak or the tape is strong", () => {
    const of = (settings: Partial<TransportParameters>, records = 0) => {
      const oscillator = new Oscillator({ ...practiceMachine("ellesby-c-3h").transport, ...settings });
      for (let i = 0; i < 10 * records; i++) oscillator.pass(0.1, true);
      return oscillator;
    };
    expect(of({}).eraseDepthDb("I")).toBe(66);
    expect(of({}).eraseDepthDb("IV")).toBe(57);
    expect(of({ "oscillator.amplitudeDb": -4 }).eraseDepthDb("I")).toBe(56);
    const oneWay = of({ "erase.reverseWeakerDb": 24 });
    expect([oneWay.eraseDepthDb("I"), oneWay.eraseDepthDb("I", true)]).toEqual([66, 42]);
    expect(of({ "oscillator.diesAfterSeconds": 40 }, 39).eraseDepthDb("I")).toBe(66);
    expect(of({ "oscillator.diesAfterSeconds": 40 }, 42).eraseDepthDb("I")).toBe(0);
  });
});

describe("the switches of a recorder", () => {
  it("a headroom extension brings loud treble back louder, and leaves quiet treble alone", () => {
    const gained = (levelDb: number) => {
      const deck = deckWith();
      const off = back(deck, 10_000, levelDb);
      deck.switches = { ...ALL_OFF, headroom: true };
      return back(deck, 10_000, levelDb) - off;
    };
    expect(gained(0)).toBeGreaterThan(1);
    expect(Math.abs(gained(-20))).toBeLessThan(0.05);
  });

  it("a multiplex filter leaves 15 kHz and takes 19 kHz away", () => {
    const lost = (hz: number) => {
      const deck = deckWith();
      const off = back(deck, hz, -20);
      deck.switches = { ...ALL_OFF, multiplex: true };
      return off - back(deck, hz, -20);
    };
    expect(lost(15_000)).toBeLessThan(1);
    expect(lost(19_000)).toBeGreaterThan(20);
  });

  it("a machine without a switch has it off whatever is wanted", () => {
    const deck = deckWith({ "headroom.biasDb": 0, "multiplex.cornerHz": 0, "reduction.fitted": 0 });
    deck.switches = { reduction: true, multiplex: true, headroom: true };
    expect(deck.switches).toEqual(ALL_OFF);
  });

  it("noise reduction gives back what went in at every level and frequency, less noise, and errors where levels are off", () => {
    const off = (settings: Partial<TransportParameters>, hz: number, levelDb: number) => {
      const deck = deckWith(settings);
      const plain = back(deck, hz, levelDb);
      deck.switches = { ...ALL_OFF, reduction: true };
      return back(deck, hz, levelDb) - plain;
    };
    for (const hz of [400, 3000, 10_000])
      for (const levelDb of [-40, -30, -20])
        expect(Math.abs(off({}, hz, levelDb)), `${hz} Hz at ${levelDb}`).toBeLessThan(0.4);
    // a decibel lost on the tape takes half a decibel more with it where treble is followed
    expect(off({ "record.leftDb": -2 }, 10_000, -25)).toBeCloseTo(-1, 0);
    expect(off({ "reduction.leftErrorDb": 4 }, 10_000, -40)).toBeGreaterThan(2);
  });

  it("encoding and decoding cancel to the last digit", () => {
    const sound = sampled(RATE, (i) => 0.1 * Math.sin(i * i * 1e-5));
    const through = sound.slice();
    new Compander("encode", RATE).push(through);
    expect(Math.max(...through.map((v, i) => Math.abs(v - sound[i])))).toBeGreaterThan(0.01);
    new Compander("decode", RATE).push(through);
    expect(Math.max(...through.map((v, i) => Math.abs(v - sound[i])))).toBeLessThan(1e-12);
  });
});

describe("what comes from beside", () => {
  it("each channel hears the other", () => {
    const deck = deckWith({ "head.crosstalkDb": -30 });
    const input = sineInput(1000, -12, RATE);
    deck.setInput((frames) => [input(frames)[0], new Float64Array(frames)]);
    deck.press("record");
    deck.render(RATE);
    const [left, right] = deck.render(RATE);
    expect(levelOf(right) - levelOf(left)).toBeCloseTo(-30.4, 0);
  });

  it("a head that stands too low hears the other direction, the inner track more", () => {
    const deck = deckWith({ "head.otherSideDb": -30 });
    deck.press("wind");
    deck.render(0.15 * RATE);
    // the end of one side lies beside the start of the other
    deck.turnSide();
    deck.setInput(sineInput(1000, -12, RATE));
    deck.press("record");
    deck.render(5 * RATE);
    deck.turnSide();
    deck.press("play");
    deck.render(RATE);
    const [left, right] = deck.render(RATE / 2);
    expect(levelOf(right) + 12).toBeCloseTo(-30.4, 0);
    expect(levelOf(left) + 12).toBeCloseTo(-45, 0);
  });
});

describe("worn places of a tape", () => {
  it("are as many, as deep and as long as is said, and the same each time", () => {
    const worn = new WornPlaces({ dropOutsPerMinute: 30, depthDb: 12, seconds: 0.03 }, 5);
    const step = 0.001;
    const minutes = 4;
    const gains = Array.from({ length: (60 * minutes) / step }, (_, i) => worn.gain(0, i * step));
    const begins = gains.filter((gain, i) => gain < 1 && (gains[i - 1] ?? 1) === 1).length;
    expect(begins / minutes).toBeGreaterThan(22);
    expect(begins / minutes).toBeLessThan(38);
    expect(20 * Math.log10(gains.reduce((least, gain) => Math.min(least, gain)))).toBeCloseTo(-14.2, 0);
    const again = new WornPlaces({ dropOutsPerMinute: 30, depthDb: 12, seconds: 0.03 }, 5);
    expect(again.gain(0, 17.3)).toBe(worn.gain(0, 17.3));
  });

  it("are heard in what is recorded there", () => {
    const deck = deckWith(
      {},
      { ...ordinary("I"), wear: { dropOutsPerMinute: 60, depthDb: 20, seconds: 0.2 } },
    );
    deck.setInput(sineInput(1000, -12, RATE));
    deck.press("record");
    deck.render(RATE);
    const [left] = deck.render(8 * RATE);
    const blocks = Array.from({ length: 320 }, (_, b) =>
      Math.max(...left.subarray(b * 1200, (b + 1) * 1200).map(Math.abs)),
    );
    expect(blocks.filter((peak) => peak < 0.06).length).toBeGreaterThan(5);
    expect(blocks.filter((peak) => peak > 0.2).length).toBeGreaterThan(200);
  });
});
