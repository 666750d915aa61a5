import { describe, expect, it } from "vitest";
import { FOLLOWED_TAPE } from "./follow-the-screens";
import { PlaybackBench } from "./playback-bench";

describe("doing what the turn card says, on a practice machine with slack in its screws", () => {
  it("levels of both channels come within the class", () => {
    const tape = { ...FOLLOWED_TAPE, bands: FOLLOWED_TAPE.bands.slice(0, 1) };
    const off = { "output.leftDb": -13.6, "output.rightDb": -10.6 };
    const bench = new PlaybackBench("ellesby-c-1r", tape, off, 5);
    bench.goTo("level");
    bench.playFrom(0);
    expect(bench.log("level", "as found")).toBeNull();
    expect(bench.verdicts("level")).toEqual(["fail", "fail", "fail"]);
    expect(bench.set("level", "level-left")).toBe("leave");
    expect(bench.set("level", "level-right")).toBe("leave");
    expect(bench.log("level", "as left")).toBeNull();
    expect(bench.verdicts("level")).toEqual(["pass", "pass", "pass"]);
    expect(bench.turns).toBeLessThanOrEqual(8);
  });

  it("azimuth, from the other side of a whole cycle", () => {
    const tape = { ...FOLLOWED_TAPE, bands: FOLLOWED_TAPE.bands.slice(1, 4) };
    const bench = new PlaybackBench("ellesby-c-1r", tape, { "head.azimuthArcMinutes": -22 }, 6);
    bench.goTo("azimuth");
    bench.playFrom(0, 2);
    expect(bench.log("azimuth", "as found")).toBeNull();
    expect(bench.numbers!.now.phase!.degrees).toBeLessThan(-400);
    expect(bench.set("azimuth", "azimuth-forward")).toBe("leave");
    bench.log("azimuth", "as left");
    expect(bench.verdicts("azimuth")).toEqual(["pass"]);
    expect(bench.turns).toBeLessThanOrEqual(6);
  });

  it("nothing is logged of a tape that was not heard", () => {
    const bench = new PlaybackBench("ellesby-c-1r", FOLLOWED_TAPE, {}, 1);
    expect(bench.log("level", "as found")).toContain("start a source");
    bench.listen(1);
    expect(bench.log("level", "as found")).toContain("play it");
    expect(bench.log("response", "as found")).toContain("play it");
  });
});
