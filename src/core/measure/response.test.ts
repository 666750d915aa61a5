import { describe, expect, it } from "vitest";
import { EQUALISATIONS, fluxDb, playedWithDb } from "@/core/standards/equalisation";
import { responseOf, type HeardBand } from "./response";

const constants = (id: string) => EQUALISATIONS.find((one) => one.id === id)!;

describe("equalisation", () => {
  it.each([
    ["3180/120", 10000, -15.68],
    ["3180/120", 31.5, 7.41],
    ["3180/70", 10000, -12.33],
    ["0/35", 10000, -7.46],
  ])("%s at %d Hz is %d dB re 1 kHz", (id, hz, db) => {
    expect(fluxDb(constants(id), hz) - fluxDb(constants(id), 1000)).toBeCloseTo(db, 2);
  });

  it("a tape of 120 µs played with 70 µs loses 3.35 dB at 10 kHz re 1 kHz", () => {
    expect(playedWithDb(constants("3180/120"), constants("3180/70"), 10000, 1000)).toBeCloseTo(-3.35, 2);
  });
});

describe("response of a channel", () => {
  const band = (fields: Partial<HeardBand>): HeardBand => ({
    frequencyHz: 315,
    levelDbfs: -12,
    spreadDb: 0.1,
    uncertaintyDb: 0.05,
    bandLevelDb: 0,
    correctionDb: 0,
    correctionUncertaintyDb: 0,
    fringingDb: 0,
    ...fields,
  });
  const same = { tape: constants("3180/120"), machine: constants("3180/120") };

  it("takes away what was recorded, what the certificate says and fringing, re the reference band", () => {
    const reference = band({ correctionDb: 0.1, fringingDb: 0.2 });
    const [point] = responseOf(
      [band({ frequencyHz: 10000, levelDbfs: -35, bandLevelDb: -20, correctionDb: -0.4 })],
      reference,
      same,
    );
    expect(point).toMatchObject({ rawDb: -23, bandLevelDb: -20, certificateDb: -0.5, fringingDb: -0.2 });
    expect(point.levelDb).toBeCloseTo(-23 + 20 + 0.5 + 0.2, 9);
  });

  it("of another equalisation is the difference less, and its own part is shown", () => {
    const [point] = responseOf([band({ frequencyHz: 10000, levelDbfs: -15.4 })], band({}), {
      ...same,
      machine: constants("3180/70"),
    });
    expect(point.equalisationDb).toBeCloseTo(-4.38, 2);
    expect(point.levelDb).toBeCloseTo(-3.4 - point.equalisationDb, 9);
  });

  it("comes in the order of frequency, the certificate's doubt counted in", () => {
    const points = responseOf(
      [band({ frequencyHz: 1000, correctionUncertaintyDb: 0.3 }), band({ frequencyHz: 63 })],
      band({}),
      same,
    );
    expect(points.map(({ frequencyHz }) => frequencyHz)).toEqual([63, 1000]);
    expect(points[1].uncertaintyDb).toBeGreaterThan(0.3);
    expect(points[0].uncertaintyDb).toBeLessThan(0.1);
  });
});
