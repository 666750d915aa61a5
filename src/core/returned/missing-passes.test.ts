import { describe, expect, it } from "vitest";
import { missingPasses } from "./missing-passes";

const found = (...passes: number[]) => passes.map((pass) => ({ pass }));

describe("a pass that is missing", () => {
  it.each([
    ["between two that were found", found(1, 2, 4), 0, [3]],
    ["before the first that was found", found(2, 3), 0, [1]],
    ["after the last, where as many were recorded", found(1, 2), 4, [3, 4]],
    ["not at all", found(1, 2, 3), 3, []],
    ["of nothing that was found", found(), 3, []],
  ])("%s is reported by its number", (_, passes, recorded, missing) => {
    expect(missingPasses(passes, recorded).map((words) => Number(/\d+/.exec(words)))).toEqual(missing);
  });
});
