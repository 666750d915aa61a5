import { describe, expect, it } from "vitest";
import type { Band } from "@/core/reference/reference-tape";
import { levelTone, playbackLevel } from "./playback-level";

const band = (fields: Partial<Band> = {}): Band => ({
  kind: "tone",
  frequencyHz: 315,
  levelDb: 0,
  seconds: 20,
  ...fields,
});
const pair = (...levels: number[]) => ({
  frequencyHz: 315,
  seconds: 5,
  channels: levels.map((levelDbfs) => ({
    levelDbfs,
    spreadDb: 0.01,
    track: new Float64Array(),
    uncertaintyDb: 0.01,
    clipped: false,
  })),
  pair: null,
});
const FULL = { leftDbu: 12, rightDbu: 12 };
const OPERATING = { fluxivityNwbPerM: 250, method: "din", outputDbu: 0 } as const;
const TAPE = { fluxivityNwbPerM: 250, fluxivityMethod: "din" } as const;

describe("playback level", () => {
  it("is right where the tape's flux is that of the operating level and the output is as it should be", () => {
    const { channels, balanceDb, expectedDbu } = playbackLevel(
      { band: band(), pair: pair(-12, -12) },
      TAPE,
      { operatingLevel: OPERATING },
      FULL,
    );
    expect(expectedDbu).toBe(0);
    expect(channels.map(({ errorDb }) => errorDb)).toEqual([0, 0]);
    expect(balanceDb).toBe(0);
  });

  it.each([
    [
      "a tape of 320 nWb/m is 2.14 dB hotter",
      { ...TAPE, fluxivityNwbPerM: 320 },
      {},
      20 * Math.log10(320 / 250),
    ],
    [
      "the same figure by the ANSI method is 0.8 dB hotter",
      { ...TAPE, fluxivityMethod: "ansi" as const },
      {},
      0.8,
    ],
    ["a band at −10 dB", TAPE, { levelDb: -10 }, -10],
    ["fringing adds", TAPE, { fringingDb: 0.6 }, 0.6],
  ])("%s", (_, tape, fields, expected) => {
    const level = playbackLevel(
      { band: band(fields), pair: pair(-12) },
      tape,
      { operatingLevel: OPERATING },
      FULL,
    );
    expect(level.expectedDbu).toBeCloseTo(expected, 9);
    expect(level.terms.reduce((sum, { db }) => sum + db, 0)).toBeCloseTo(expected, 9);
    expect(level.channels[0].errorDb).toBeCloseTo(-expected, 9);
  });

  it("takes the certificate of each channel away, in its level and in the balance", () => {
    const { channels, balanceDb } = playbackLevel(
      {
        band: band({ correctionDb: { left: 0.3, right: -0.2 }, correctionUncertaintyDb: 0.2 }),
        pair: pair(-11.7, -12.2),
      },
      TAPE,
      { operatingLevel: OPERATING },
      FULL,
    );
    expect(channels.map(({ errorDb }) => errorDb!.toFixed(9))).toEqual(["0.000000000", "0.000000000"]);
    expect(balanceDb).toBeCloseTo(0, 9);
    expect(channels[0].uncertaintyDb).toBeGreaterThan(0.2);
  });

  it("without calibration or operating level knows the balance alone", () => {
    const uncalibrated = playbackLevel(
      { band: band(), pair: pair(-10, -12) },
      TAPE,
      { operatingLevel: OPERATING },
      null,
    );
    expect(uncalibrated.channels[0]).toMatchObject({ levelDbu: null, errorDb: null });
    expect(uncalibrated.balanceDb).toBe(2);
    const unwritten = playbackLevel(
      { band: band(), pair: pair(-10, -12) },
      TAPE,
      { operatingLevel: null },
      FULL,
    );
    expect(unwritten.expectedDbu).toBeNull();
    expect(unwritten.channels[0]).toMatchObject({ levelDbu: 2, errorDb: null });
  });

  it("knows that the two inputs of a card differ", () => {
    const level = playbackLevel(
      { band: band(), pair: pair(-12, -13) },
      TAPE,
      { operatingLevel: null },
      { leftDbu: 12, rightDbu: 13 },
    );
    expect(level.balanceDb).toBeCloseTo(0, 9);
  });

  it("is read from the level band, or else from a loud tone near 400 Hz, and from no treble", () => {
    const tone = (fields: Partial<Band>) => ({ band: band(fields) });
    const level = tone({ role: "level", frequencyHz: 1000 });
    const tape = (...tones: Array<{ band: Band }>) => ({ bands: tones.map(({ band: one }) => one) });
    expect(levelTone([tone({}), level], tape(level))).toBe(level);
    expect(levelTone([tone({})], tape(tone({}), level))).toBeNull();
    const loud = tone({ frequencyHz: 500, levelDb: 0 });
    const without = tape(loud);
    expect(
      levelTone([tone({ levelDb: -20 }), loud, tone({ frequencyHz: 10_000, levelDb: 5 })], without),
    ).toBe(loud);
    expect(levelTone([tone({ frequencyHz: 10_000 })], without)).toBeNull();
  });
});
