import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { Trimmer } from "@/core/simulator/trimmer";
import { fitSlack, type Turn } from "./slack-model";

/** What turns of a real screw with slack do to a reading. */
function turned(perTurn: number, slackTurns: number, amounts: number[], before = 0): Turn[] {
  const screw = new Trimmer(slackTurns, 50);
  screw.turn(before);
  return amounts.map((turns) => {
    const from = screw.spindleTurns;
    screw.turn(turns);
    return { turns, change: perTurn * (screw.spindleTurns - from) };
  });
}

describe("a screw with slack", () => {
  it("is known after a turn there, one on and one back", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 12, noNaN: true }),
        fc.boolean(),
        fc.double({ min: 0, max: 0.08, noNaN: true }),
        fc.double({ min: -0.5, max: 0.5, noNaN: true }),
        (size, down, slack, before) => {
          const perTurn = down ? -size : size;
          const [model] = fitSlack(turned(perTurn, slack, [0.15, 0.2, -0.3, -0.2], before));
          expect(model.perTurn / perTurn).toBeCloseTo(1, 1);
          expect(Math.abs(model.slackTurns - slack)).toBeLessThan(0.012);
        },
      ),
    );
  });

  it("has to take up all its slack to turn back, and none to go on", () => {
    const [{ toTakeUp }] = fitSlack(turned(6, 0.05, [0.2, 0.2, 0.1]));
    expect(toTakeUp.clockwise).toBeCloseTo(0, 3);
    const [back] = fitSlack(turned(6, 0.05, [0.2, 0.2, -0.2]));
    expect(back.toTakeUp.anticlockwise).toBeCloseTo(0, 3);
    expect(back.toTakeUp.clockwise).toBeCloseTo(0.05, 2);
  });

  it("that never moved anything has no model", () => {
    expect(fitSlack([])).toEqual([]);
    expect(fitSlack([{ turns: 0.1, change: 0 }])).toEqual([]);
  });

  it("after one turn could have lost some of it or none: several ways explain it", () => {
    const models = fitSlack([{ turns: 0.125, change: 0.8 }]);
    const effects = models.map(({ perTurn }) => perTurn);
    expect(Math.max(...effects) / Math.min(...effects)).toBeGreaterThan(1.15);
  });
});
