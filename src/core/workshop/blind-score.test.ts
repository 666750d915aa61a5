import { describe, expect, it } from "vitest";
import { chanceOf } from "./blind-score";

describe("what chance does in a blind comparison", () => {
  it.each([
    [0, 5, 1],
    [1, 1, 0.5],
    [3, 3, 0.125],
    [8, 10, 56 / 1024],
    [10, 10, 1 / 1024],
  ])("%d of %d right", (right, of, chance) => {
    expect(chanceOf(right, of)).toBeCloseTo(chance, 10);
  });
});
