import { describe, expect, it } from "vitest";
import { FOLLOWED_TAPE } from "@/testing/follow-the-screens";
import { PlaybackBench } from "@/testing/playback-bench";
import { advisedByTape } from "./advised-by-tape";
import { response } from "./response";

const HZ = [1000, 10_000];
const TAPE = {
  ...FOLLOWED_TAPE,
  bands: FOLLOWED_TAPE.bands
    .filter(({ role, frequencyHz }) => role === "level" || (role === "response" && HZ.includes(frequencyHz)))
    .map((band) => ({ ...band, seconds: 3 })),
};

/** The equaliser card of a channel, after the bands came from a machine whose right channel stands so. */
function cards(rightDb: number) {
  const settings = { "output.leftDb": -12, "output.rightDb": rightDb, "noise.db": -95, "hum.db": -100 };
  const bench = new PlaybackBench("ellesby-c-1r", TAPE, settings, 5);
  bench.goTo("response");
  bench.playFrom(0, TAPE.bands.length - 1);
  const laid = bench.laid("response");
  const card = (channel: string) => {
    const { adjusters } = response.advise(laid, null);
    const own = adjusters.find((adjuster) => adjuster.channel === channel);
    return response.advise(laid, own?.id ?? null);
  };
  return { left: card("left"), right: card("right") };
}

describe("the equaliser card", () => {
  it("of a channel on which nothing arrives sends to the input, and leaves the other's as it is", () => {
    const { left, right } = cards(-110);
    expect(right).toMatchObject({ advice: { kind: "unclear" }, headline: "look at the input" });
    expect(right.reason).toMatch(/^right: silent/);
    expect(left.headline).not.toBe("look at the input");
    expect(left.toSet.value).not.toBeNull();
  });

  it("of channels that both play sends to no input", () => {
    const { left, right } = cards(-12);
    for (const { headline, toSet } of [left, right]) {
      expect(headline).not.toBe("look at the input");
      expect(toSet.value).not.toBeNull();
    }
  });
});

describe("a tape of too few bands", () => {
  it("is no response to be kept, though what it holds was heard without a fault", () => {
    const bench = new PlaybackBench("ellesby-c-1r", TAPE, { "noise.db": -95, "hum.db": -100 }, 5);
    bench.goTo("response");
    bench.playFrom(0, TAPE.bands.length - 1);
    const laid = bench.laid("response");
    expect(laid.numbers?.response.missing).toEqual([]);
    const logged = response.readings(laid).toLog({
      newId: () => "r",
      jobId: "job",
      channel: "both",
      tapeId: TAPE.id,
      tapeUncertaintyPercent: 0.1,
      nominalHz: 3150,
      speedCmPerS: 4.76,
      phase: "as found",
      at: "2026-01-01T00:00:00.000Z",
      source: { kind: "practice", name: "bench" },
    });
    expect(logged).toBe(`${TAPE.name} has too few bands for a response.`);
  });

  it("leaves the equaliser's card nothing but to ask for another, whether it plays or not", () => {
    const bench = new PlaybackBench("ellesby-c-1r", { ...TAPE, bands: TAPE.bands.slice(0, 1) }, {}, 5);
    bench.goTo("response");
    const asked = () => advisedByTape(response, bench.laid("response"), null);
    const another = {
      headline: "choose another tape",
      reason: `${TAPE.name} has too few bands for a response.`,
    };
    expect(asked()).toMatchObject(another);
    bench.playFrom(0, 0);
    expect(asked()).toMatchObject(another);
  });

  it("is not what the card complains of where the tape serves", () => {
    const bench = new PlaybackBench("ellesby-c-1r", FOLLOWED_TAPE, {}, 5);
    bench.goTo("response");
    expect(advisedByTape(response, bench.laid("response"), null).headline).toBe("play the tape");
  });
});
