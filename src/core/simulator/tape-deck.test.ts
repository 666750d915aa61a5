import { describe, expect, it } from "vitest";
import { sineInput } from "@/testing/sine-input";
import { harmonicsOf } from "@/testing/steady-harmonics";
import { fmTone } from "@/testing/fm-tone";
import { azimuthDelay, trebleGain } from "./playback-gain";
import { PERFECT_TRANSPORT } from "@/testing/perfect-transport";
import { PracticeDeck, type RecordInput } from "./practice-deck";
import { Tape, type PrintedBand } from "./tape";
import type { TransportParameters } from "./transport-parameters";

const RATE = 32_000;
const PERFECT: TransportParameters = {
  ...PERFECT_TRANSPORT,
  "noise.db": -140,
  "hum.db": -140,
  "output.leftDb": -12,
  "output.rightDb": -12,
};
const tone = (frequencyHz: number, fields: Partial<PrintedBand> = {}): PrintedBand => ({
  kind: "tone",
  frequencyHz,
  levelDb: 0,
  seconds: 6,
  ...fields,
});
const tapeOf = (bands: PrintedBand[], t2Microseconds = 120, seconds = 20) =>
  new Tape({ id: "t", name: "t", speedCmPerS: 4.76, t1Microseconds: 3180, t2Microseconds, bands, seconds });
const deckOf = (tape: Tape, settings: Partial<TransportParameters> = {}) =>
  new PracticeDeck({ parameters: { ...PERFECT, ...settings }, sampleRateHz: RATE, tape });
/** Level and frequency of a second of sound, well inside the first band. */
function heard(deck: PracticeDeck, nearHz: number) {
  deck.press("play");
  deck.render(2 * RATE);
  const [left, right] = deck.render(RATE);
  return {
    left: harmonicsOf(left, RATE, nearHz),
    right: harmonicsOf(right, RATE, nearHz),
    sound: [left, right],
  };
}

describe("a reference tape in the deck", () => {
  it("plays its bands at their levels, with what its certificate says they are off by", () => {
    const { left, right } = heard(
      deckOf(
        tapeOf([
          tone(1000, { levelDb: -10, correctionDb: { left: 0.5, right: -0.5 }, frequencyErrorPercent: 0.1 }),
        ]),
      ),
      1000,
    );
    expect(left.fundamentalDbfs).toBeCloseTo(-21.5, 3);
    expect(right.fundamentalDbfs).toBeCloseTo(-22.5, 3);
    expect(left.frequencyHz).toBeCloseTo(1001, 3);
  });

  it("played with the wrong equalisation loses what the standard says: 70 for 120 µs at 10 kHz, 3.35 dB re 1 kHz", () => {
    const loss = (hz: number) =>
      heard(deckOf(tapeOf([tone(hz)], 120), { "playback.t2Microseconds": 70 }), hz).left.fundamentalDbfs;
    expect(loss(10000) - loss(1000)).toBeCloseTo(-3.35, 1);
  });

  it("played with dirt on the head loses 54.6 d/λ dB", () => {
    const { left } = heard(deckOf(tapeOf([tone(8000)]), { "head.spacingMicrometres": 0.5 }), 8000);
    expect(left.fundamentalDbfs).toBeCloseTo(-12 - (54.6 * 0.5) / (47600 / 8000), 1);
  });

  it("on a tilted head: one arc-minute is 19.8° between the channels at 10 kHz, right later", () => {
    expect(360 * 10000 * azimuthDelay({ ...PERFECT, "head.azimuthArcMinutes": 1 })).toBeCloseTo(19.8, 1);
    const { sound } = heard(deckOf(tapeOf([tone(1000)]), { "head.azimuthArcMinutes": 10 }), 1000);
    const phase = (x: Float64Array) => {
      let [re, im] = [0, 0];
      x.forEach((v, i) => {
        re += v * Math.cos((2 * Math.PI * 1000 * i) / RATE);
        im -= v * Math.sin((2 * Math.PI * 1000 * i) / RATE);
      });
      return (Math.atan2(im, re) * 180) / Math.PI;
    };
    const difference = phase(sound[0]) - phase(sound[1]);
    expect(((difference + 540) % 360) - 180).toBeCloseTo(19.8, 0);
  });

  it("ten arc-minutes cost 2 dB at 10 kHz on each track", () => {
    const equalisation = { t1Microseconds: 3180, t2Microseconds: 120 };
    const gain = trebleGain({ ...PERFECT, "head.azimuthArcMinutes": 10 }, equalisation, 10000);
    expect(20 * Math.log10(gain)).toBeCloseTo(-2, 1);
  });

  it("runs at the deck's speed, and sounds an octave up on a machine of twice its own", () => {
    expect(
      heard(deckOf(tapeOf([tone(1000)]), { "speed.errorPercent": -2 }), 980).left.frequencyHz,
    ).toBeCloseTo(980, 2);
    const double = deckOf(tapeOf([tone(1000, { seconds: 12 })]), { speedCmPerS: 9.52 });
    expect(heard(double, 2000).left.frequencyHz).toBeCloseTo(2000, 2);
  });
});

describe("keys", () => {
  it("stop and wind are silent; wind and rewind stop at the ends", () => {
    const deck = deckOf(tapeOf([tone(1000)]));
    const loudest = () => deck.render(RATE / 2)[0].reduce((most, v) => Math.max(most, Math.abs(v)), 0);
    expect(loudest()).toBeLessThan(1e-5);
    deck.press("wind");
    expect(loudest()).toBeLessThan(1e-5);
    deck.render(RATE);
    expect(deck.status).toMatchObject({ key: "stop", positionSeconds: 20 });
    deck.press("rewind");
    deck.render(RATE);
    expect(deck.status).toMatchObject({ key: "stop", positionSeconds: 0 });
  });

  it("the counter counts turns of the take-up reel and can be set to nought", () => {
    const deck = deckOf(tapeOf([tone(1000)]));
    deck.press("play");
    deck.render(10 * RATE);
    // 476 mm of tape on a hub of 11 mm radius
    expect(deck.status.counter).toBeCloseTo(476 / (2 * Math.PI * 11), 0);
    deck.resetCounter();
    expect(deck.status.counter).toBe(0);
  });

  it("turning the tape over plays the other side from where the first one was left", () => {
    const deck = deckOf(tapeOf([tone(1000)]));
    deck.press("play");
    deck.render(5 * RATE);
    deck.turnSide();
    expect(deck.status.side).toBe(1);
    expect(deck.status.positionSeconds).toBeCloseTo(15, 1);
  });

  it("reverse plays the other side backwards on a machine that has it, and nothing on one that has not", () => {
    const plain = deckOf(tapeOf([tone(1000)]), { "deck.autoReverse": 0 });
    plain.press("reverse");
    expect(plain.status.key).toBe("stop");
    const deck = deckOf(tapeOf([tone(1000, { seconds: 19 })]), { "deck.autoReverse": 1 });
    deck.press("wind");
    deck.render(RATE / 5); // eight seconds of tape
    deck.press("reverse");
    const before = deck.status.positionSeconds;
    deck.render(RATE);
    expect(deck.status.positionSeconds).toBeLessThan(before);
    expect(harmonicsOf(deck.render(RATE)[0], RATE, 1000).fundamentalDbfs).toBeCloseTo(-12, 2);
  });

  it("records in reverse on the side that faces away, and plays it back so", () => {
    const deck = deckOf(tapeOf([]), { "deck.autoReverse": 1 });
    deck.setInput(sineInput(1000, -12, RATE));
    deck.press("wind");
    deck.render(RATE / 5);
    deck.press("record-reverse");
    const before = deck.status.positionSeconds;
    deck.render(3 * RATE);
    expect(deck.status.positionSeconds).toBeLessThan(before - 2.5);
    expect(deck.status.recordingSeconds).toBeCloseTo(3, 6);
    deck.press("wind");
    deck.render(RATE / 13);
    deck.press("play");
    const own = deck.render(RATE / 2)[0];
    expect(Math.max(...own.map(Math.abs))).toBeLessThan(0.02);
    deck.press("wind");
    while (deck.status.positionSeconds < before) deck.render(RATE / 100);
    deck.press("reverse");
    deck.render(RATE);
    expect(harmonicsOf(deck.render(RATE)[0], RATE, 1000).fundamentalDbfs).toBeCloseTo(-12, 0);
    const plain = deckOf(tapeOf([]), { "deck.autoReverse": 0 });
    plain.press("record-reverse");
    expect(plain.status.key).toBe("stop");
  });

  it("the end of the tape stops it", () => {
    const deck = deckOf(tapeOf([tone(1000)]));
    deck.press("play");
    deck.render(21 * RATE);
    expect(deck.status.key).toBe("stop");
  });
});

describe("recording", () => {
  const input = (hz: number, amplitude: number): RecordInput => {
    const x = fmTone(10, RATE, hz, [], amplitude);
    let at = 0;
    return (frames) => {
      const block = x.slice(at, at + frames);
      at += frames;
      return [block, block.map((v) => v / 2)];
    };
  };

  it("a two-head machine gives out what goes in, and the tape after a rewind", () => {
    const deck = deckOf(tapeOf([]));
    deck.setInput(input(2000, 10 ** (-32 / 20)));
    deck.press("record");
    deck.render(RATE);
    expect(harmonicsOf(deck.render(RATE)[0], RATE, 2000).fundamentalDbfs).toBeCloseTo(-32, 3);
    deck.render(3 * RATE);
    deck.press("rewind");
    deck.render(RATE);
    const { left, right } = heard(deck, 2000);
    expect(left.fundamentalDbfs).toBeCloseTo(-32, 1);
    expect(right.fundamentalDbfs).toBeCloseTo(-38.02, 1);
    expect(left.frequencyHz).toBeCloseTo(2000, 3);
  });

  it("a three-head machine gives out the tape, a little later", () => {
    const deck = deckOf(tapeOf([]), { "deck.heads": 3, "deck.headDistanceMm": 12 });
    deck.setInput(input(1000, 0.05));
    deck.press("record");
    const [left] = deck.render(RATE);
    const begins = left.findIndex((v) => Math.abs(v) > 0.01) / RATE;
    expect(begins).toBeCloseTo(12 / 47.6, 2);
    expect(harmonicsOf(deck.render(RATE)[0], RATE, 1000).fundamentalDbfs).toBeCloseTo(
      20 * Math.log10(0.05),
      1,
    );
  });

  it("what was there before is gone; what was not reached stays", () => {
    const deck = deckOf(tapeOf([tone(1000, { seconds: 15 })]));
    deck.setInput(null);
    deck.press("record");
    deck.render(6 * RATE);
    deck.press("rewind");
    deck.render(RATE);
    deck.press("play");
    deck.render(RATE);
    expect(Math.max(...deck.render(RATE)[0])).toBeLessThan(3e-4);
    deck.render(5 * RATE);
    expect(harmonicsOf(deck.render(RATE)[0], RATE, 1000).fundamentalDbfs).toBeCloseTo(-12, 2);
  });

  it("its meters show what goes in while it records, each with its own error, and fall when it stops", () => {
    const deck = deckOf(tapeOf([]), { "meter.leftDb": 0.5, "meter.rightDb": -1 });
    // a sine at 0 comes in at −12 dBFS, on the right half as strong
    deck.setInput(input(315, 10 ** (-12 / 20)));
    deck.press("record");
    deck.render(2 * RATE);
    expect(deck.status.meterDb[0]).toBeCloseTo(0.5, 1);
    expect(deck.status.meterDb[1]).toBeCloseTo(-1 - 6.02, 1);
    deck.press("stop");
    deck.render(3 * RATE);
    for (const db of deck.status.meterDb) expect(db).toBe(-40);
  });

  it("tape at 0 dB adds 0.9 % of third harmonic, a hundredth of that 20 dB down", () => {
    const third = (levelDb: number) => {
      const deck = deckOf(tapeOf([]), { "output.leftDb": 0, "output.rightDb": 0 });
      deck.setInput(input(315, 10 ** (levelDb / 20)));
      deck.press("record");
      deck.render(5 * RATE);
      deck.press("rewind");
      deck.render(RATE);
      return heard(deck, 315).left.harmonicsDb[1];
    };
    expect(third(0)).toBeCloseTo(-40.9, 0);
    expect(third(-20)).toBeCloseTo(-80.9, 0);
  });

  it("a recording carries the speed of the deck that made it", () => {
    const tape = tapeOf([]);
    const maker = deckOf(tape, { "speed.errorPercent": 2 });
    maker.setInput(input(1000, 0.1));
    maker.press("record");
    maker.render(6 * RATE);
    maker.press("stop");
    expect(heard(deckOf(tape), 980).left.frequencyHz).toBeCloseTo(1000 / 1.02, 2);
  });

  it("images and interpolation noise stay 100 dB down", () => {
    const deck = deckOf(tapeOf([]), { "speed.errorPercent": 0.37, "output.leftDb": 0 });
    deck.setInput(input(9000, 0.01));
    deck.press("record");
    deck.render(5 * RATE);
    deck.press("rewind");
    deck.render(RATE);
    deck.press("play");
    deck.render(2 * RATE);
    const [x] = deck.render(RATE);
    const { frequencyHz, fundamentalDbfs } = harmonicsOf(x, RATE, 9000);
    for (const hz of [2000, 5000, 12000, 15000, 20000, RATE / 2 - frequencyHz]) {
      const other = harmonicsOf(x, RATE, hz, 1).fundamentalDbfs;
      expect(other - fundamentalDbfs, `at ${hz} Hz`).toBeLessThan(-95);
    }
  });
});
