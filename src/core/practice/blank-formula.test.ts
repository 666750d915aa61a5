import { describe, expect, it } from "vitest";
import { blankNamed } from "@/core/records/blank-tape";
import { formulaOf } from "./blank-formula";

describe("a blank tape of the library in the practice machine", () => {
  it("is no more than what is written down of it: its type and its treble", () => {
    const blank = { ...blankNamed("x", "X"), type: "II" as const, treble: "bright" as const };
    expect(formulaOf(blank)).toEqual({ type: "II", biasDb: 0, sensitivityDb: 0, trebleDb: 1 });
  });

  it("has drop-outs when it sheds", () => {
    const sound = blankNamed("x", "X");
    const shedding = { ...sound, condition: { ...sound.condition, shedding: true } };
    expect(formulaOf(sound).wear).toBeUndefined();
    expect(formulaOf(shedding).wear!.dropOutsPerMinute).toBeGreaterThan(5);
  });
});
