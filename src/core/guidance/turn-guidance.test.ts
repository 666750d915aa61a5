import { describe, expect, it } from "vitest";
import { SeededRandom } from "@/core/dsp/seeded-random";
import { Trimmer } from "@/core/simulator/trimmer";
import { aReading, anAdjustment } from "@/testing/records";
import { adviseTurn, effectOf, learnedTurns, turnInWords, type LearnedTurn } from "./turn-guidance";

/** A number that is known well enough for its limit. */
const off = (value: number, goodEnough: number) => ({ value, uncertainty: 0.01, limit: 0.5, goodEnough });

describe("what turns have taught", () => {
  it("pairs each turn with the reading before and the last one before the next turn", () => {
    const readings = [
      aReading({ minutes: 0, value: -2 }),
      aReading({ minutes: 2, value: -1.2, phase: "working" }),
      aReading({ minutes: 3, value: -1.1, phase: "working" }),
      aReading({ minutes: 5, value: 0, phase: "as left" }),
    ];
    const turns = learnedTurns(
      readings,
      [anAdjustment({ minutes: 1, turns: 0.125 }), anAdjustment({ minutes: 4, turns: 0.15 })],
      "speed",
    );
    expect(turns.map((t) => t.turns)).toEqual([0.125, 0.15]);
    expect(turns[0].change).toBeCloseTo(0.9, 9);
    expect(turns[1].change).toBeCloseTo(1.1, 9);
  });

  it("learns nothing from a turn nobody counted, and forgets what came before it", () => {
    const readings = [0, 2, 4].map((minutes) => aReading({ minutes, value: minutes }));
    const turns = learnedTurns(
      readings,
      [anAdjustment({ minutes: 1 }), anAdjustment({ minutes: 3, turns: null })],
      "speed",
    );
    expect(turns).toEqual([]);
  });

  it("turns with no reading between them count as one, unless they went to and fro", () => {
    const readings = [aReading({ minutes: 0, value: -2 }), aReading({ minutes: 3, value: -1.1 })];
    const turned = (second: number) => [
      anAdjustment({ minutes: 1, turns: 0.125 }),
      anAdjustment({ minutes: 2, turns: second }),
    ];
    const [learned] = learnedTurns(readings, turned(0.1), "speed");
    expect(learned.turns).toBeCloseTo(0.225, 9);
    expect(learned.change).toBeCloseTo(0.9, 9);
    expect(learnedTurns(readings, turned(-0.1), "speed")).toEqual([]);
  });

  it("nothing is learned of one adjuster while another was turned too", () => {
    const readings = [aReading({ minutes: 0, value: -2 }), aReading({ minutes: 3, value: -1 })];
    const both = [anAdjustment({ minutes: 1 }), anAdjustment({ minutes: 2, adjusterId: "other" })];
    expect(learnedTurns(readings, both, "speed")).toEqual([]);
    expect(learnedTurns(readings, both, "other")).toEqual([]);
  });

  it("uses the corrected amount of a turn", () => {
    const wrong = anAdjustment({ minutes: 1, turns: 1 });
    const right = anAdjustment({ minutes: 1, turns: 0.25, supersedes: wrong.id });
    const readings = [aReading({ minutes: 0, value: -1 }), aReading({ minutes: 2, value: -0.5 })];
    expect(learnedTurns(readings, [wrong, right], "speed")).toEqual([{ turns: 0.25, change: 0.5 }]);
  });

  it("tells slack from effect once a turn goes on in the same direction", () => {
    const effect = effectOf([
      { turns: 0.125, change: 0.76 }, // 0.03 turns of slack lost at 8 % a turn
      { turns: 0.1, change: 0.8 },
    ]);
    expect(effect?.perTurn).toBeCloseTo(8, 6);
    expect(effect?.slackTurns).toBeCloseTo(0.03, 6);
  });

  it.each<[string, LearnedTurn[], number, boolean, string]>([
    ["asks for a trial turn first", [], -2, true, "trial"],
    ["waits until the reading is steady", [{ turns: 0.1, change: 0.5 }], -1, false, "wait"],
    ["leaves a good speed alone", [{ turns: 0.1, change: 0.5 }], 0.02, true, "leave"],
    ["doubts a screw that does not answer", [{ turns: 0.5, change: 0.004 }], -1, true, "no answer"],
    ["says what is left", [{ turns: 0.1, change: 0.5 }], -1, true, "turn"],
  ])("%s", (_, turns, value, settled, kind) => {
    expect(adviseTurn(turns, off(value, 0.05), settled).kind).toBe(kind);
  });
});

describe("following the card", () => {
  /** Turns as the card says until it says to leave it; the hand is off by up to four percent. */
  function follow(seed: number) {
    const random = new SeededRandom(seed);
    const perTurn = (random.uniform() < 0.5 ? -1 : 1) * (2 + 10 * random.uniform());
    const trimmer = new Trimmer(0.05 * random.uniform(), 3);
    trimmer.turn(random.uniform() - 0.5);
    const error = (random.uniform() < 0.5 ? -1 : 1) * (0.6 + 2.4 * random.uniform());
    const start = error - perTurn * trimmer.spindleTurns;
    const value = () => start + perTurn * trimmer.spindleTurns + 0.003 * random.normal();
    const turns: LearnedTurn[] = [];
    let now = value();
    for (;;) {
      const advice = adviseTurn(turns, off(now, 0.08), true);
      if (advice.kind !== "trial" && advice.kind !== "turn")
        return { turns: turns.length, left: now, kind: advice.kind };
      if (turns.length > 12) return { turns: turns.length, left: now, kind: "gave up" };
      trimmer.turn(advice.turns * (1 + 0.08 * (random.uniform() - 0.5)));
      const after = value();
      turns.push({ turns: advice.turns, change: after - now });
      now = after;
    }
  }
  const outcomes = Array.from({ length: 200 }, (_, i) => follow(i + 1));

  it("always ends inside a tenth of a percent", () => {
    for (const { left, kind } of outcomes) {
      expect(kind).toBe("leave");
      expect(Math.abs(left)).toBeLessThan(0.1);
    }
  });

  it("takes a trial turn and at most three more, nearly always", () => {
    const quick = outcomes.filter(({ turns }) => turns <= 4).length;
    expect(quick / outcomes.length).toBeGreaterThan(0.98);
    expect(Math.max(...outcomes.map(({ turns }) => turns))).toBeLessThanOrEqual(5);
  });
});

it.each([
  [0.125, "an eighth of a turn"],
  [-0.17, "a sixth of a turn"],
  [0.01, "a hair"],
  [0.95, "one turn"],
  [2.1, "2 turns"],
])("says %f turns as %s", (turns, words) => {
  expect(turnInWords(turns)).toBe(words);
});
