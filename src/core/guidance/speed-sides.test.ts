import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { aReading, anAdjustment } from "@/testing/records";
import { guideSound, REFERENCE_HZ } from "./guide-tone";
import { sideSpeeds, speedDifference, targetFor } from "./speed-sides";
import { adviseTurn, learnedTurns, type LearnedTurn } from "./turn-guidance";

const context = aReading().context;
const speed = (value: number, side: "A" | "B" | undefined, minutes: number) =>
  aReading({ quantity: "speedError", value, minutes, context: { ...context, ...(side && { side }) } });

/** A number that is known well enough for its limit. */
const off = (value: number, goodEnough: number) => ({ value, uncertainty: 0.01, limit: 0.5, goodEnough });

describe("the two sides", () => {
  it("differ by two readings with no turn between them; a turn moves both", () => {
    const readings = [speed(-0.9, "A", 1), speed(-1.5, "B", 2), speed(0.2, "B", 6)];
    const turned = [anAdjustment({ minutes: 5 })];
    expect(sideSpeeds(readings, turned)).toMatchObject({ a: -0.9, b: 0.2 });
    expect(sideSpeeds(readings, turned).differencePercent).toBeCloseTo(-0.6, 9);
  });

  it("are not known to differ from readings on either side of a turn, or of one side, or of none", () => {
    const turned = [anAdjustment({ minutes: 5 })];
    expect(sideSpeeds([speed(1, "A", 1), speed(2, "B", 6)], turned).differencePercent).toBeNull();
    expect(sideSpeeds([speed(1, "A", 1), speed(2, undefined, 2)], []).differencePercent).toBeNull();
  });

  it("places on the reel and supplies are compared the same way", () => {
    const at = (value: number, more: object, minutes: number) =>
      aReading({ quantity: "speedError", value, minutes, context: { ...context, ...more } });
    const readings = [
      at(0.4, { position: "start" }, 1),
      at(0, { position: "middle" }, 2),
      at(-0.8, { position: "end" }, 3),
      at(0.1, { supply: "battery" }, 4),
    ];
    expect(speedDifference(readings, [], "position", ["start", "end"])).toBeCloseTo(-1.2, 9);
    expect(speedDifference(readings, [], "supply", ["mains", "battery"])).toBeNull();
  });

  it("share the error: both end up equally far from right, either way", () => {
    fc.assert(
      fc.property(fc.double({ min: -3, max: 3, noNaN: true }), (difference) => {
        const [a, b] = [targetFor("A", difference, true), targetFor("B", difference, true)];
        expect(a + b).toBeCloseTo(0, 12);
        expect(b - a).toBeCloseTo(difference, 12);
      }),
    );
    expect(targetFor("A", 0.5, false)).toBe(0);
    expect(targetFor(undefined, 0.5, true)).toBe(0);
    expect(targetFor("B", null, true)).toBe(0);
  });
});

describe("the guide tone", () => {
  it("falls to its reference as the reading nears the window, and tells the side", () => {
    const far = guideSound(4, 0.1);
    const near = guideSound(0.3, 0.1);
    expect(far.frequencyHz).toBeGreaterThan(near.frequencyHz);
    expect(near.frequencyHz).toBeGreaterThan(REFERENCE_HZ);
    expect(near.beatHz).toBe(0);
    expect(guideSound(-0.3, 0.1).pan).toBeLessThan(0);
    expect(near.pan).toBeGreaterThan(0);
  });

  it("beats within the window, slower the nearer, and stands still on target", () => {
    expect(guideSound(0.09, 0.1).beatHz).toBeGreaterThan(guideSound(0.02, 0.1).beatHz);
    expect(guideSound(0, 0.1)).toEqual({ frequencyHz: REFERENCE_HZ, beatHz: 0, pan: 0 });
  });

  it("stays audible and in order for any reading", () => {
    fc.assert(
      fc.property(fc.double({ min: -1e6, max: 1e6, noNaN: true }), (distance) => {
        const { frequencyHz, pan } = guideSound(distance, 0.05);
        expect(frequencyHz).toBeGreaterThanOrEqual(REFERENCE_HZ);
        expect(frequencyHz).toBeLessThan(2000);
        expect(Math.abs(pan)).toBeLessThanOrEqual(1);
      }),
    );
  });
});

describe("turns that were learned", () => {
  const before: LearnedTurn[] = [
    { turns: 0.25, change: 2 },
    { turns: 0.125, change: 1 },
  ];

  it("in an earlier job spare the trial turn", () => {
    const advice = adviseTurn([], off(-1.6, 0.05), true, before);
    expect(advice).toMatchObject({ kind: "turn", effect: { fromBefore: true } });
    expect(advice.kind === "turn" && advice.turns).toBeCloseTo(0.2, 6);
    expect(adviseTurn([], off(-1.6, 0.05), true).kind).toBe("trial");
  });

  it("are forgotten when the turns of this job say otherwise", () => {
    const advice = adviseTurn([{ turns: 0.25, change: -1 }], off(1, 0.05), true, before);
    expect(advice.kind === "turn" && Math.sign(advice.turns)).toBe(1);
  });

  it("end at the stop: no more that way, but back is possible", () => {
    const atStop: LearnedTurn[] = [
      { turns: 0.25, change: 1 },
      { turns: 0.25, change: 0.9, atStop: true },
    ];
    expect(adviseTurn(atStop, off(-2, 0.05), true).kind).toBe("stop");
    expect(adviseTurn(atStop, off(2, 0.05), true).kind).toBe("turn");
  });

  it("are read from one side only, since the sides differ by themselves", () => {
    const readings = [speed(-1, "A", 1), speed(-1.5, "B", 2), speed(0.1, "A", 4)];
    const [turn] = learnedTurns(
      readings,
      [anAdjustment({ minutes: 3, turns: 0.1, adjusterId: "speed" })],
      "speed",
    );
    expect(turn.change).toBeCloseTo(1.1, 9);
  });
});
