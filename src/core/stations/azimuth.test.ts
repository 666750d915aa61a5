import { expect, it } from "vitest";
import { FOLLOWED_TAPE } from "@/testing/follow-the-screens";
import { PlaybackBench } from "@/testing/playback-bench";
import { azimuth } from "./azimuth";

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
