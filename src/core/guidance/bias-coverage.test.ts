import { describe, expect, it } from "vitest";
import { answersOfTrial, offDb } from "@/testing/bias-trials";
import { randomTrial } from "@/testing/random-recorders";
import { HEARD_SCHOOLS } from "./bias-answers";
import type { BiasPoint } from "./bias-law";

const RECORDERS = 60;
const trials = Array.from({ length: RECORDERS }, (_, i) => randomTrial(5001 + i));

describe("answers about bias, for random recorders of four make-ups", () => {
  const results = trials.map((trial) => ({ trial, ...answersOfTrial(trial) }));

  it.each(HEARD_SCHOOLS)("%s: the ± holds, and is answered where the settings span it", (school) => {
    const rows = results.map(({ trial, answers }) => ({
      trial,
      answer: answers.find((one) => one.school === school)!,
    }));
    const answered = rows.filter(({ answer }) => answer.turns !== null);
    const held = answered.filter(({ trial, answer }) => {
      const [off, uncertainty] = offDb(trial, answer);
      return off <= uncertainty;
    });
    const spanned = rows.filter(({ trial }) => trial.spanned[school]);
    const spannedAnswered = spanned.filter(({ answer }) => answer.turns !== null);
    expect(held.length / answered.length).toBeGreaterThan(0.9);
    expect(spannedAnswered.length / spanned.length).toBeGreaterThan(0.8);
  });

  it("never believes the wrong direction of the screw", () => {
    const wrong = results.filter(
      ({ trial, direction }) => direction !== null && direction !== Math.sign(trial.dbPerTurn),
    );
    expect(wrong).toEqual([]);
  });

  it("never contradicts the points: flatness lies where high minus mid changes its sign", () => {
    for (const { trial, answers } of results) {
      const { turns } = answers.find(({ school }) => school === "flatness")!;
      if (turns === null) continue;
      const over = ({ highDb, middleDb }: BiasPoint) => highDb - middleDb;
      const above = trial.points.filter((point) => over(point) > 0.3);
      const below = trial.points.filter((point) => over(point) < -0.3);
      if (above.length === 0 || below.length === 0) continue;
      const way = Math.sign(trial.dbPerTurn);
      const from = Math.max(...above.map((point) => way * point.turns));
      const to = Math.min(...below.map((point) => way * point.turns));
      expect(way * turns).toBeGreaterThanOrEqual(from);
      expect(way * turns).toBeLessThanOrEqual(to);
    }
  });
});

describe("points that no one curve gives", () => {
  /** Something that went wrong between the passes. */
  const wrongs: Record<string, (points: BiasPoint[]) => BiasPoint[]> = {
    "the first and the last setting mixed up": (points) =>
      points.map((point, i) => ({
        ...(i === 0 ? points.at(-1)! : i === points.length - 1 ? points[0] : point),
        turns: point.turns,
      })),
    "two neighbours mixed up": (points) =>
      points.map((point, i) => ({
        ...(i === 1 ? points[2] : i === 2 ? points[1] : point),
        turns: point.turns,
      })),
    "the level changed for one pass": (points) =>
      points.map((point, i) =>
        i === 2 ? { ...point, middleDb: point.middleDb + 2, highDb: point.highDb + 2 } : point,
      ),
  };

  it.each(Object.keys(wrongs))("%s: no answer that is far off", (name) => {
    const long = trials.filter(({ points }) => points.length >= 5);
    let far = 0;
    let doubted = 0;
    for (const trial of long) {
      const { answers, doubt } = answersOfTrial(trial, wrongs[name](trial.points));
      if (doubt !== null) doubted++;
      for (const answer of answers) {
        if (answer.turns === null) continue;
        const [off, uncertainty] = offDb(trial, answer);
        if (off > 2 * uncertainty + 0.3) far++;
      }
    }
    expect(doubted / long.length).toBeGreaterThan(0.4);
    expect(far / long.length).toBeLessThanOrEqual(0.1);
  });

  it("the reason says what to look for", () => {
    const trial = trials.find(({ points }) => points.length >= 6)!;
    const { answers } = answersOfTrial(
      trial,
      wrongs["the first and the last setting mixed up"](trial.points),
    );
    for (const { turns, says } of answers) {
      expect(turns).toBeNull();
      expect(says).toMatch(/mixed up|which direction/);
    }
  });
});
