import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { readBeltsCsv } from "@/core/formats/belt-csv";
import { ImportError } from "@/core/formats/import-error";
import {
  beltForPath,
  chooseBelt,
  lengthWhenNew,
  openBeltLength,
  pullBeforeSlip,
  stretchOn,
  thicknessEffect,
  wrapDegrees,
} from "./belt";
import type { MachinePart } from "./machine-part";
import { timedTape } from "./timed-tape";
import { withoutTrimmer } from "./without-trimmer";

const PATH = { largePulleyMm: 40, smallPulleyMm: 6, centreDistanceMm: 72 };

describe("belts", () => {
  it("over equal pulleys are two runs and a circumference", () => {
    const path = { largePulleyMm: 20, smallPulleyMm: 20, centreDistanceMm: 50 };
    expect(openBeltLength(path)).toBeCloseTo(100 + Math.PI * 20, 9);
    expect(wrapDegrees(path)).toBe(180);
  });

  it("over unequal ones lie on two tangents and two arcs", () => {
    const { largePulleyMm: D, smallPulleyMm: d, centreDistanceMm: C } = PATH;
    const turn = Math.asin((D - d) / 2 / C);
    const byHand = 2 * C * Math.cos(turn) + (D / 2) * (Math.PI + 2 * turn) + (d / 2) * (Math.PI - 2 * turn);
    expect(openBeltLength(PATH)).toBeCloseTo(byHand, 9);
    expect(() => openBeltLength({ ...PATH, centreDistanceMm: 20 })).toThrow(/more than 23 mm apart, not 20/);
  });

  it("are chosen for five per cent of stretch", () => {
    const path = openBeltLength(PATH);
    expect(stretchOn(path, beltForPath(path))).toBeCloseTo(5, 9);
    expect(lengthWhenNew(216.2, 2, 2)).toBeCloseTo(210, 9);
  });

  it("of more thickness on the motor raise the speed by about t·(1/d − 1/D)", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 5, max: 20, noNaN: true }),
        fc.double({ min: 30, max: 120, noNaN: true }),
        fc.double({ min: 0.01, max: 0.1, noNaN: true }),
        (d, D, t) => {
          const effect = thicknessEffect(0, t, d, D);
          expect(effect).toBeGreaterThan(0);
          expect(effect).toBeCloseTo(100 * t * (1 / d - 1 / D), 1);
        },
      ),
    );
    expect(thicknessEffect(1.2, 1.2, 6, 40)).toBe(0);
  });

  it("pass on more pull with more stretch, section and wrap; none when slack", () => {
    const belt = { section: "square" as const, areaMm2: 1.44, stretchPercent: 5 };
    const pull = pullBeforeSlip(PATH, belt);
    expect(pull).toBeGreaterThan(0.1);
    expect(pullBeforeSlip(PATH, { ...belt, stretchPercent: 10 })).toBeCloseTo(2 * pull, 9);
    expect(pullBeforeSlip({ ...PATH, centreDistanceMm: 200 }, belt)).toBeGreaterThan(pull);
    expect(pullBeforeSlip(PATH, { ...belt, stretchPercent: -3 })).toBe(0);
  });
});

describe("the shop's list", () => {
  const CSV = `name,section,insideMm,thicknessMm,inStock
A 212,square,212,1.2,2
A 207,Square,"207,5",1.2,0
A 200,square,200,1.2,5
F 210,flat,210,0.6,3`;

  it("is read, and the best stretch comes first; what is out of stock does not come", () => {
    const choices = chooseBelt(readBeltsCsv(CSV), openBeltLength(PATH), "square");
    expect(choices.map(({ belt }) => belt.name)).toEqual(["A 212", "A 200"]);
    expect(choices.map(({ workable }) => workable)).toEqual([true, false]);
  });

  it.each([
    ["a file of another kind", "hello", /not a list of belts/],
    ["a section nobody makes", CSV.replace("flat", "oval"), /Row 5: section/],
    ["a length that is none", CSV.replace("212,1.2", "x,1.2"), /Row 2: insideMm/],
    ["no name", CSV.replace("A 200", ""), /Row 4: name/],
  ])("refuses %s as a whole, with the place", (_, text, message) => {
    expect(() => readBeltsCsv(text)).toThrow(ImportError);
    expect(() => readBeltsCsv(text)).toThrow(message);
  });
});

describe("a machine with nothing to turn", () => {
  const parts: MachinePart[] = [
    { name: "capstan", tapeDiameterMm: 2.5, tolerancePercent: 2 },
    { name: "motor", ratioTo: "capstan", ratio: 6.7, tolerancePercent: 2 },
    { name: "belt", beltLengthMm: 230, pulleyPart: "capstan", pulleyDiameterMm: 40, tolerancePercent: 2 },
  ];

  it("that runs 2 % slow needs its motor pulley 2 % larger, or a belt that does the same", () => {
    const { motorPulleyMm, neededPulleyMm, thickerBeltMm } = withoutTrimmer(-2, parts)!;
    expect(motorPulleyMm).toBeCloseTo(40 / 6.7, 9);
    expect(neededPulleyMm / motorPulleyMm).toBeCloseTo(1 / 0.98, 9);
    expect(thicknessEffect(0, thickerBeltMm, motorPulleyMm, 40)).toBeCloseTo(2.04, 1);
    expect(withoutTrimmer(-2, parts.slice(0, 1))).toBeNull();
  });
});

describe("a timed length of tape", () => {
  it("gives the speed with what length and hand are uncertain by", () => {
    const { speedCmPerS, errorPercent, uncertaintyPercent } = timedTape(2.856, 60, 4.76);
    expect(speedCmPerS).toBeCloseTo(4.76, 9);
    expect(errorPercent).toBeCloseTo(0, 9);
    expect(uncertaintyPercent).toBeCloseTo(100 * Math.hypot(0.005 / 2.856, 0.3 / 60), 9);
    expect(() => timedTape(0, 60, 4.76)).toThrow(/more than nought/);
  });
});
