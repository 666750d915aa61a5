import { expect, it } from "vitest";
import { SeededRandom } from "@/core/dsp/seeded-random";
import { residueBesideHum } from "./residue";

const RATE = 16_000;
/** Silence with noise, what is left of a tone, and a buzz of the mains whose lines are all alike. */
const silence = (leftDb: number | null, buzzDb: number | null) => {
  const random = new SeededRandom(8);
  const amplitude = (db: number | null) => (db === null ? 0 : 10 ** (db / 20));
  return Float32Array.from({ length: 8 * RATE }, (_, i) => {
    const t = (2 * Math.PI * i) / RATE;
    let buzz = 0;
    for (let k = 1; k <= 24; k++) buzz += Math.sin(50 * k * t + k * k);
    return amplitude(leftDb) * Math.sin(1000 * t) + amplitude(buzzDb) * buzz + 1e-5 * random.normal();
  });
};
const of = (x: Float32Array) => residueBesideHum(x, RATE, 1000, 50)!;

it("a residue on a line of the mains is measured where the lines beside it are far weaker", () => {
  const residue = of(silence(-60, -90));
  expect(residue.measurable).toBe(true);
  expect(residue.levelDbfs).toBeCloseTo(-60, 0);
});

it("where the lines beside it are as strong it is at most what is there", () => {
  const residue = of(silence(null, -70));
  expect(residue.measurable).toBe(false);
  expect(residue.levelDbfs).toBeCloseTo(-70, 0);
});

it("off the mains nothing is asked of hum", () => {
  const x = silence(null, -70);
  const beside = residueBesideHum(x, RATE, 1022, 50)!;
  expect(beside.measurable).toBe(false);
});
