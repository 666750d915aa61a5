import { expect, it } from "vitest";
import { biasLaws } from "./bias-law";
import { sensitivityDb, thirdDb } from "./bias-curves";
import { alongLaw, tableOfLaw } from "./law-table";

const CURVES = ["middleDb", "highDb", "thirdDb"] as const;
/** Heard at three places of a screw of 9 dB a turn. */
const points = [-0.3, 0, 0.2].map((turns) => ({
  turns,
  middleDb: sensitivityDb(9 * turns, 315),
  highDb: sensitivityDb(9 * turns, 10_000),
  thirdDb: thirdDb(9 * turns),
}));
const [law] = biasLaws(points, { middleHz: 315, highHz: 10_000, speedCmPerS: 4.76 });

it("a law that is kept as a table is the law, as far as it reaches", () => {
  const table = tableOfLaw(law, [-0.3, 0, 0.2, 0.9]);
  expect(table.dbPerTurn).toBe(law.dbPerTurn);
  for (let turns = -0.8; turns < 1.4; turns += 0.0137)
    for (const curve of CURVES)
      expect(Math.abs(alongLaw(table, curve, turns) - law[curve](turns))).toBeLessThan(0.02);
});

it("stays at its ends beyond them", () => {
  const table = tableOfLaw(law, [0]);
  for (const curve of CURVES) {
    expect(alongLaw(table, curve, -50)).toBe(table[curve][0]);
    expect(alongLaw(table, curve, 50)).toBe(table[curve].at(-1));
  }
});
