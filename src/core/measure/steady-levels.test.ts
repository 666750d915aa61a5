import { describe, expect, it } from "vitest";
import { SeededRandom } from "@/core/dsp/seeded-random";
import { SteadyLevels } from "./steady-levels";

describe("levels that stand", () => {
  const run = (levelsAt: (i: number) => number[] | null, count: number) => {
    const steady = new SteadyLevels();
    return Array.from({ length: count }, (_, i) => steady.push(levelsAt(i), i / 10));
  };

  it("are told after a moment, and kept through a short break", () => {
    const told = run((i) => (i === 20 ? [-49, -49] : [-12, -12.1]), 30);
    expect(told[5]).toBeNull();
    expect(told[10]).toEqual([-12, -12.1]);
    expect(told.slice(20, 30).every((levels) => levels?.[0] === -12)).toBe(true);
  });

  it("are forgotten when they have gone, and are those of now when they have changed", () => {
    expect(run((i) => (i < 15 ? [-12] : null), 60).at(-1)).toBeNull();
    expect(run((i) => [i < 15 ? -12 : -9], 60).at(-1)).toEqual([-9]);
  });

  it("are told of a machine so busy that few come, but not of what is long past", () => {
    const steady = new SteadyLevels();
    const told = Array.from({ length: 8 }, (_, i) => steady.push([-12, -12], 0.6 * i));
    expect(told.map((levels) => levels !== null)).toEqual([
      false,
      false,
      false,
      false,
      true,
      true,
      true,
      true,
    ]);
    expect(steady.push([-12, -12], 60)).toBeNull();
  });

  it("are none of noise, nor of one channel alone, nor of too few", () => {
    const random = new SeededRandom(4);
    expect(run(() => [-49 + 0.5 * random.normal(), -49 + 0.5 * random.normal()], 200)).toEqual(
      new Array(200).fill(null),
    );
    expect(run((i) => [-12, -20 + i], 40).every((levels) => levels === null)).toBe(true);
    const steady = new SteadyLevels();
    steady.push([-12], 0);
    expect(steady.push([-12], 5)).toBeNull();
  });
});
