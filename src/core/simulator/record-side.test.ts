import { describe, expect, it } from "vitest";
import { BIAS_TABLE } from "@/core/standards/bias-curves";
import { TAPE_TYPES } from "@/core/standards/tape-types";
import { harmonicsOf } from "@/testing/steady-harmonics";
import { practiceMachine } from "./practice-machines";
import { repaired } from "./practice-repairs";
import { PRACTICE_SLOTS, slotOf } from "./practice-slots";
import { recordSlot, RecordSide } from "./record-side";
import { ordinary, type TapeFormula } from "./tape-formula";
import type { TransportParameters } from "./transport-parameters";
import { sampled } from "@/core/dsp/sampled";

const RATE = 48000;
const CASSETTE = practiceMachine("ellesby-c-3h").transport;

interface Recorded {
  settings?: Partial<TransportParameters>;
  formula?: TapeFormula;
  hz?: number;
  /** Re 0 level. */
  levelDb?: number;
  turn?(side: RecordSide): void;
}

/** What a steady tone puts on the tape, re the reference level, and its harmonics. */
function recorded({ settings = {}, formula = ordinary("I"), hz = 315, levelDb = -20, turn }: Recorded) {
  const side = new RecordSide({ ...CASSETTE, "output.leftDb": 0, "output.rightDb": 0, ...settings }, RATE);
  side.load(formula);
  turn?.(side);
  const tone = sampled(RATE, (i) => 10 ** (levelDb / 20) * Math.sin((2 * Math.PI * hz * i) / RATE));
  const [left, right] = side.push([tone, tone]);
  const of = (x: Float64Array) => {
    const { fundamentalDbfs, harmonicsDb } = harmonicsOf(x.subarray(4800), RATE, hz);
    return { gainDb: fundamentalDbfs - levelDb, secondDb: harmonicsDb[0], thirdDb: harmonicsDb[1] };
  };
  return { ...of(left), right: of(right) };
}

describe("what bias does to a recording", () => {
  it.each(BIAS_TABLE.biasDb.map((db, i) => [db, i] as const))(
    "at %f dB the tones 20 dB down and the third harmonic are those of the table",
    (biasDb, i) => {
      const settings = { "bias.leftDb": biasDb, "bias.rightDb": biasDb };
      for (const { frequencyHz, db } of BIAS_TABLE.sensitivityDb) {
        const { gainDb } = recorded({ settings, hz: frequencyHz });
        // far below its bias the tape is a little deaf beside
        expect(Math.abs(gainDb - db[i]), `${frequencyHz} Hz`).toBeLessThan(biasDb < -2 ? 0.5 : 0.1);
      }
      // a third grows by 2 dB for each of level on the tape, well below saturation
      const { thirdDb, gainDb } = recorded({ settings, levelDb: -10 });
      const percent = 100 * 10 ** ((thirdDb - 2 * (gainDb - 10)) / 20);
      if (biasDb >= -2)
        expect(Math.abs(20 * Math.log10(percent / BIAS_TABLE.thirdPercent[i]))).toBeLessThan(0.5);
    },
  );

  it("far below its bias a tape distorts more and more at 0 level, and hears small signals less", () => {
    const at = (biasDb: number, levelDb: number) =>
      recorded({ settings: { "bias.leftDb": biasDb }, levelDb });
    expect(at(-4, 0).thirdDb).toBeGreaterThan(at(-2, 0).thirdDb + 3);
    expect(at(-6, 0).thirdDb).toBeGreaterThan(at(-4, 0).thirdDb + 0.5);
    expect(at(-6, -50).gainDb).toBeLessThan(at(-6, -20).gainDb - 2);
    expect(at(0, -50).gainDb).toBeCloseTo(at(0, -20).gainDb, 1);
  });

  it("treble saturates several decibels before the middle, and nothing does at −20 dB", () => {
    const squeezed = (hz: number, levelDb: number) =>
      recorded({ hz }).gainDb - recorded({ hz, levelDb }).gainDb;
    expect(squeezed(10_000, 2)).toBeGreaterThan(squeezed(315, 2) + 1.5);
    expect(squeezed(10_000, -18)).toBeLessThan(0.03);
  });

  it("open-reel tape at 19.05 cm/s has its 10 kHz peak 3 to 5 dB above the working point", () => {
    const { transport } = practiceMachine("tarnvik-t-2");
    const peak = (speedCmPerS: number) =>
      Math.max(
        ...[-5, -4, -3, -2, -1].map(
          (db) =>
            recorded({
              settings: {
                ...transport,
                "output.leftDb": 0,
                "output.rightDb": 0,
                speedCmPerS,
                "bias.leftDb": db,
              },
              formula: ordinary("open reel"),
              hz: 10_000,
            }).gainDb,
        ),
      );
    expect(peak(19.05)).toBeGreaterThan(3);
    expect(peak(19.05)).toBeLessThan(5);
    expect(peak(38.1)).toBeGreaterThan(1.5);
    expect(peak(38.1)).toBeLessThan(3);
  });
});

describe("faults of the record side, and what cures them", () => {
  it("a tape that wants more bias is under-biased; a trimmer of its type and channel puts that right", () => {
    const formula = { ...ordinary("II"), biasDb: 2 };
    const under = recorded({ formula, hz: 10_000 });
    expect(under.gainDb).toBeCloseTo(1.9, 1);
    const set = recorded({
      formula,
      hz: 10_000,
      turn: ({ trimmers }) =>
        trimmers[recordSlot("bias", 0, "II")].turn(2 / CASSETTE["bias.dbPerTurn"] + 0.01),
    });
    expect(Math.abs(set.gainDb)).toBeLessThan(0.15);
    expect(set.right.gainDb).toBeCloseTo(under.right.gainDb, 6);
  });

  it("one type is off alone", () => {
    const settings = { "typeII.biasDb": -2, "typeII.levelDb": -3 };
    expect(Math.abs(recorded({ settings }).gainDb)).toBeLessThan(0.05);
    expect(recorded({ settings, formula: ordinary("II") }).gainDb).toBeCloseTo(-3.5, 1);
  });

  it("a tired amplifier distorts alike at every bias, and in its even terms; new capacitors cure it", () => {
    const tired = { "record.amplifierThirdPercent": 3 };
    const at = (biasDb: number, settings: Partial<TransportParameters>) =>
      recorded({ settings: { ...settings, "bias.leftDb": biasDb }, levelDb: -6 });
    expect(Math.abs(at(2, tired).thirdDb - at(0, tired).thirdDb)).toBeLessThan(1);
    expect(Math.abs(at(-2, {}).thirdDb - at(0, {}).thirdDb)).toBeGreaterThan(4);
    expect(at(0, tired).secondDb).toBeGreaterThan(-50);
    const cured = { ...tired, ...repaired("record-capacitors", { ...CASSETTE, ...tired }) };
    expect(at(0, cured).thirdDb).toBeCloseTo(at(0, {}).thirdDb, 3);
  });

  it("a magnetised head gives second harmonic until it is demagnetised", () => {
    const magnetised = { "head.magnetised": 1 };
    expect(recorded({ settings: magnetised, levelDb: 0 }).secondDb).toBeGreaterThan(-45);
    expect(recorded({ levelDb: 0 }).secondDb).toBeLessThan(-100);
    expect(repaired("demagnetise", { ...CASSETTE, ...magnetised })).toEqual({ "head.magnetised": 0 });
  });

  it("every trimmer has a slot of its own", () => {
    const adjusters = [undefined, ...TAPE_TYPES].flatMap((tapeType) =>
      (["bias", "record-level", "record-response"] as const).flatMap((sets) =>
        (["left", "right"] as const).map((channel) => ({
          id: `${sets} ${channel} ${tapeType}`,
          sets,
          channel,
          kind: "turn" as const,
          ...(tapeType && { tapeType }),
        })),
      ),
    );
    const knobs = (["bias", "level"] as const).map((knob) => ({
      id: knob,
      sets: "settings",
      kind: "turn" as const,
      knob,
    }));
    const slots = [...adjusters, ...knobs].map((one) => slotOf(one, adjusters)!);
    expect(new Set(slots).size).toBe(adjusters.length + knobs.length);
    expect(Math.max(...slots)).toBe(PRACTICE_SLOTS - 1);
  });
});
