import { describe, expect, it } from "vitest";
import { capacitanceFor, capacitanceForLift, loadDb, resonanceDb, resonanceHz } from "./head-load";
import { headRemedy } from "./head-remedy";
import { nearestPreferred, parallel, parallelFor } from "./preferred-values";

const HEAD = 0.1; // H

describe("head and load", () => {
  it("100 mH and 250 pF resonate at 31.8 kHz, and back", () => {
    expect(resonanceHz(HEAD, 250e-12)).toBeCloseTo(31_831, 0);
    expect(capacitanceFor(HEAD, 31_831)).toBeCloseTo(250e-12, 14);
  });

  it("a resonance gives its Q at its own frequency, nothing far below, and cuts above", () => {
    expect(resonanceDb(10_000, 10_000, 2)).toBeCloseTo(6.02, 2);
    expect(resonanceDb(100, 10_000, 2)).toBeCloseTo(0, 2);
    expect(resonanceDb(40_000, 10_000, 2)).toBeLessThan(-20);
  });

  it("a resistor alone turns the top down: 3 dB where it equals the reactance", () => {
    const resistanceOhms = 2 * Math.PI * 10_000 * HEAD;
    expect(loadDb({ inductanceHenries: HEAD, capacitanceFarads: 0, resistanceOhms }, 10_000)).toBeCloseTo(
      -3.01,
      2,
    );
  });

  it("the capacitor for a lift gives that lift", () => {
    const capacitanceFarads = capacitanceForLift(HEAD, 12_500, 3);
    const load = { inductanceHenries: HEAD, capacitanceFarads, resistanceOhms: Infinity };
    expect(loadDb(load, 12_500)).toBeCloseTo(3, 9);
    expect(() => capacitanceForLift(HEAD, 12_500, -1)).toThrow(/more than 0 dB/);
  });

  it("what to solder: the nearest value, and the curve it makes", () => {
    const remedy = headRemedy(HEAD, 3, [1000, 12_500])!;
    expect(remedy.nearestPicofarads).toBe(470);
    expect(remedy.capacitancePicofarads).toBeCloseTo(473.4, 0);
    expect(remedy.predictedDb[1]).toBeCloseTo(3, 0);
    expect(headRemedy(HEAD, 0.1, [1000])).toBeNull();
    expect(headRemedy(HEAD, 12, [1000])).toBeNull();
  });
});

describe("values that there are", () => {
  it.each([
    [473, "E12", 470],
    [9.6, "E12", 10],
    [1.26e-9, "E12", 1.2e-9],
    [5300, "E24", 5100],
    [5.4e4, "E6", 4.7e4],
  ] as const)("nearest to %d in %s is %d", (value, series, nearest) => {
    expect(nearestPreferred(value, series)).toBeCloseTo(nearest, 12);
  });

  it("side by side, and what has to be put there", () => {
    expect(parallel(10, 10)).toBe(5);
    expect(parallel(parallelFor(12, 10), 12)).toBeCloseTo(10, 9);
    expect(() => parallelFor(10, 12)).toThrow(/can only bring 10 down/);
    expect(() => nearestPreferred(0)).toThrow(/no part/);
  });
});
