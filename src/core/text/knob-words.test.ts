import { describe, expect, it } from "vitest";
import { knobWords } from "./knob-words";

describe("where a knob points", () => {
  it.each([
    [0, "at 12 o'clock, its middle"],
    [1 / 12, "at 1 o'clock"],
    [1.5 / 12, "at half past 1"],
    [0.5 / 12, "at half past 12"],
    [-1 / 12, "at 11 o'clock"],
    [-0.5 / 12, "at half past 11"],
    [-5 / 12, "at 7 o'clock"],
    [5 / 12, "at 5 o'clock"],
    [0.01, "at 12 o'clock, its middle"],
  ])("%f turns from its middle: %s", (turns, words) => {
    expect(knobWords(turns)).toBe(words);
  });
});
