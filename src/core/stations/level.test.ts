import { describe, expect, it } from "vitest";
import { FOLLOWED_TAPE } from "@/testing/follow-the-screens";
import { PlaybackBench } from "@/testing/playback-bench";
import { level, notLevels } from "./level";

const TAPE = { ...FOLLOWED_TAPE, bands: FOLLOWED_TAPE.bands.slice(0, 1) };

/** The reference fluxivity band as it comes from a machine whose right channel stands so. */
function heard(rightDb: number) {
  const settings = { "output.leftDb": -12, "output.rightDb": rightDb, "noise.db": -95, "hum.db": -100 };
  const bench = new PlaybackBench("ellesby-c-1r", TAPE, settings, 5);
  bench.goTo("level");
  bench.playFrom(0);
  return {
    bench,
    log: bench.log("level", "as found"),
    card: level.advise(bench.laid("level"), "level-right"),
  };
}

describe("levels that are none", () => {
  it("of a channel where nothing arrives: nothing is logged, and no trimmer is to be turned", () => {
    const { log, card } = heard(-110);
    expect(log).toMatch(/^right: silent/);
    expect(card).toMatchObject({ advice: { kind: "unclear" }, headline: "look at the input" });
  });

  it("of one that is far weaker than the other: that is logged, and is no trimmer's fault", () => {
    const { log, card } = heard(-45);
    expect(log).toBeNull();
    expect(card).toMatchObject({ advice: { kind: "unclear" }, headline: "no trimmer's fault" });
    expect(card.reason).toMatch(/^right: far weaker/);
  });

  it("of an input that clips: nothing is logged", () => {
    const { bench } = heard(-12);
    const [left, right] = bench.numbers!.level!.numbers.channels;
    expect(notLevels([left, right])).toBeNull();
    expect(notLevels([left, { ...right, clipped: true }])).toMatch(/clips/);
  });

  it("of both as they should be: a trimmer is told to be turned", () => {
    const { log, card } = heard(-16);
    expect(log).toBeNull();
    expect(["trial", "turn"]).toContain(card.advice.kind);
  });
});
