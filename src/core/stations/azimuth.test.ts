import { expect, it } from "vitest";
import { FOLLOWED_TAPE } from "@/testing/follow-the-screens";
import { PlaybackBench } from "@/testing/playback-bench";
import { laidBench } from "@/testing/laid-bench";
import { aMachine, aReading } from "@/testing/records";
import { azimuth } from "./azimuth";
import { levelsOfSearch } from "./azimuth-search";

/** The ladder as it comes from a machine whose right channel stands so, and what the card says then. */
function card(rightDb: number) {
  const tape = { ...FOLLOWED_TAPE, bands: FOLLOWED_TAPE.bands.slice(1, 4) };
  const settings = { "output.rightDb": rightDb, "noise.db": -95, "hum.db": -100 };
  const bench = new PlaybackBench("ellesby-c-1r", tape, settings, 6);
  bench.goTo("azimuth");
  bench.playFrom(0, 2);
  return azimuth.advise(bench.laid("azimuth"), null);
}

it("no screw is to be turned by tones that are heard in one channel alone", () => {
  const { advice, headline, reason } = card(-110);
  expect(advice.kind).toBe("unclear");
  expect(headline).toBe("look at the input");
  expect(reason).toMatch(/nothing in common/);
  expect(card(-12).headline).not.toBe("look at the input");
});

it("the search for the loudest point takes levels of the screw's own direction alone", () => {
  const machine = aMachine({
    adjusters: ["A", "B"].map((side) => ({
      id: `azimuth-${side}`,
      name: `AZIMUTH ${side}`,
      where: "",
      sets: "azimuth",
      kind: "turn" as const,
      side: side as "A" | "B",
    })),
  });
  const reading = (value: number, side: "A" | "B", minutes: number) =>
    aReading({
      minutes,
      station: "azimuth",
      quantity: "azimuth.treble",
      value,
      context: { ...aReading().context, side },
    });
  const readings = [reading(-1, "B", 1), reading(-6, "A", 2), reading(-0.5, "B", 3)];
  const bench = laidBench({ machine, readings });
  expect(levelsOfSearch(bench, "azimuth-B").map(({ levelDb }) => levelDb)).toEqual([-1, -0.5]);
  expect(levelsOfSearch(bench, "azimuth-A").map(({ levelDb }) => levelDb)).toEqual([-6]);
});
