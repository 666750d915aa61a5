import { describe, expect, it } from "vitest";
import { SeededRandom } from "@/core/dsp/seeded-random";
import { azimuthLossDb } from "@/core/workshop/tape-losses";
import { aReading, anAdjustment } from "@/testing/records";
import { advisePeak, screwLevels, type ScrewLevel } from "./loudest-point";

const HEADS = 25;

describe("the search for the loudest point", () => {
  it("begins with a trial turn", () => {
    expect(advisePeak([])).toMatchObject({ kind: "trial", side: null });
    expect(advisePeak([{ turns: 0, levelDb: -20 }]).kind).toBe("trial");
  });

  it("goes on the way that became louder, back where it became quieter", () => {
    expect(
      advisePeak([
        { turns: 0, levelDb: -20 },
        { turns: 0.1, levelDb: -18 },
      ]).turns,
    ).toBeGreaterThan(0);
    expect(
      advisePeak([
        { turns: 0, levelDb: -18 },
        { turns: 0.1, levelDb: -20 },
      ]).turns,
    ).toBeLessThan(-0.1);
  });

  it("says which side of the peak the screw stands on, and what there is to gain", () => {
    const hill = (x: number) => -10 + azimuthLossDb(20 * (x - 0.2), 1.5, 4.76);
    const points = [0, 0.1, 0.4].map((turns) => ({ turns, levelDb: hill(turns) }));
    const past = advisePeak(points);
    expect(past).toMatchObject({ kind: "turn", side: "past" });
    expect(past.turns).toBeCloseTo(-0.2, 1);
    // three levels leave open how much slack the screw has
    expect(Math.abs(past.gainDb! - (-10 - hill(0.4)))).toBeLessThan(0.5);
    expect(advisePeak([points[2], points[1], points[0]])).toMatchObject({ side: "before" });
    expect(advisePeak([...points, { turns: 0.2, levelDb: -10 }])).toMatchObject({
      kind: "leave",
      side: "on it",
    });
  });

  it.each<[string, number]>([
    ["without slack", 0],
    ["with 11° of slack", 0.03],
    ["with 22° of slack", 0.06],
  ])("finds the top of the azimuth loss of mono heads %s, from anywhere on its main lobe", (_, slack) => {
    const random = new SeededRandom(8);
    let all = 0;
    for (let i = 0; i < HEADS; i++) {
      const arcMinutesPerTurn = 25 + 30 * random.uniform();
      const tilt = (3 + 5 * random.uniform()) * (random.uniform() < 0.5 ? -1 : 1);
      const lag = slack * random.uniform();
      let [slot, spindle] = [0, 0];
      const turn = (turns: number) => {
        slot += turns;
        spindle = Math.max(slot - lag, Math.min(slot - lag + slack, spindle));
      };
      const level = () =>
        -20 + azimuthLossDb(tilt + arcMinutesPerTurn * spindle, 1.5, 4.76) + 0.03 * random.normal();
      const points: ScrewLevel[] = [{ turns: 0, levelDb: level() }];
      let steps = 0;
      for (; steps < 12; steps++) {
        const advice = advisePeak(points);
        if (advice.kind === "leave") break;
        turn(advice.turns);
        points.push({ turns: slot, levelDb: level() });
      }
      all += steps;
      const left = azimuthLossDb(tilt + arcMinutesPerTurn * spindle, 1.5, 4.76);
      expect(left, `head ${i}, ${steps} turns`).toBeGreaterThan(-0.75);
    }
    expect(all / HEADS).toBeLessThan(5);
  });

  it("back where it was the slack of the screw makes it quieter: it goes on, not nowhere", () => {
    const { kind, turns } = advisePeak([
      { turns: 0, levelDb: -20 },
      { turns: 0.125, levelDb: -25.9 },
      { turns: 0, levelDb: -20.9 },
    ]);
    expect(kind).toBe("turn");
    expect(turns).toBeLessThan(-0.02);
  });

  it("takes its points from what was logged: each level with the screw where it stood", () => {
    const level = (minutes: number, value: number) =>
      aReading({ minutes, station: "azimuth", quantity: "azimuth.treble", unit: "dBFS", value });
    const turn = (minutes: number, turns: number) => anAdjustment({ minutes, adjusterId: "az", turns });
    expect(
      screwLevels([level(1, -20), level(3, -19), level(5, -18)], [turn(2, 0.125), turn(4, -0.25)], "az"),
    ).toEqual([
      { turns: 0, levelDb: -20 },
      { turns: 0.125, levelDb: -19 },
      { turns: -0.125, levelDb: -18 },
    ]);
  });
});
