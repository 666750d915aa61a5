import { describe, expect, it } from "vitest";
import {
  FUNCTION_IDS,
  functionsFor,
  functionsStanding,
  functionTrialSchema,
  whyNoMoreRuns,
  windTimesSay,
  type FunctionId,
  type FunctionTrial,
  type TrialPhase,
} from "./function-trial";

let minute = 0;
const trial = (
  of: FunctionId,
  phase: TrialPhase,
  works = true,
  seconds: number | null = null,
): FunctionTrial =>
  functionTrialSchema.parse({
    id: `t${++minute}`,
    at: new Date(Date.UTC(2026, 10, 20, 10, minute)).toISOString(),
    of,
    phase,
    works,
    seconds,
  });
const PLAYER = { reverses: false, records: false, severalSpeeds: false };

describe("functions of a machine", () => {
  it("are those that it can have, less those that it has not", () => {
    expect(functionsFor(PLAYER, [])).not.toContain("reverse");
    expect(functionsFor(PLAYER, [])).not.toContain("safety");
    expect(functionsFor({ ...PLAYER, reverses: true }, [])).toContain("reverse");
    expect(functionsFor({ reverses: true, records: true, severalSpeeds: true }, ["memory"])).toEqual(
      FUNCTION_IDS.filter((one) => one !== "memory"),
    );
  });

  it.each<[string, FunctionTrial[], string, number]>([
    ["nothing tried", [], "blank", 2],
    [
      "as found alone does not settle it",
      [trial("play", "as found"), trial("pause", "as found")],
      "found",
      2,
    ],
    ["one is not tried as left", [trial("play", "as left")], "found", 1],
    ["all work as left", [trial("play", "as left"), trial("pause", "as left")], "settled", 0],
    ["one is faulty as left", [trial("play", "as left"), trial("pause", "as left", false)], "failed", 1],
    [
      "mended since: the last trial counts",
      [trial("play", "as left"), trial("pause", "as left", false), trial("pause", "as left")],
      "settled",
      0,
    ],
    [
      "a function that the machine has not counts for nothing",
      [trial("memory", "as left", false)],
      "blank",
      2,
    ],
  ])("%s", (_, trials, state, open) => {
    const standing = functionsStanding(trials, ["play", "pause"]);
    expect(standing.state).toBe(state);
    expect(standing.open).toHaveLength(open);
  });

  it("an old mechanism is not run again and again", () => {
    const twice = [trial("wind", "as found"), trial("wind", "as found")];
    expect(whyNoMoreRuns(twice, "wind", "as found")).toBeNull();
    const thrice = [...twice, trial("wind", "as found")];
    expect(whyNoMoreRuns(thrice, "wind", "as found")).toContain("3 times");
    expect(whyNoMoreRuns(thrice, "wind", "as left")).toBeNull();
    expect(whyNoMoreRuns(thrice, "rewind", "as found")).toBeNull();
  });

  it.each<[number | null, number | null, RegExp | null]>([
    [80, 84, /alike/],
    [80, null, null],
    [120, 84, /^Forwards takes 120 s against 84 s.*idler/],
    [84, 120, /^Back takes 120 s/],
  ])("wind times of %s and %s s", (forwards, back, says) => {
    const said = windTimesSay(
      [trial("wind", "as found", true, forwards), trial("rewind", "as found", true, back)],
      "as found",
    );
    if (says) expect(said).toMatch(says);
    else expect(said).toBeNull();
  });
});
