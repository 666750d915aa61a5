import { describe, expect, it } from "vitest";
import { NOISE_TO_HZ, noisePeriod } from "@/core/dsp/periodic-noise";
import { sampled } from "@/core/dsp/sampled";
import { whiteNoise } from "@/testing/fm-tone";
import { noiseGain } from "./noise-gain";

const LEVEL_DB = -32;
const GAIN = 10 ** (LEVEL_DB / 20) * Math.SQRT1_2;
const LEAD_SECONDS = 0.1;
const QUIET_SECONDS = 0.4;

type Colour = "pink" | "white";

/** The noise as it was sent, after a little silence, with hiss of an RMS in it and in the silence behind it. */
function cameBack(colour: Colour, rate: number, seconds: number, hiss: { rms: number; seed: number }) {
  const lead = LEAD_SECONDS * rate;
  const count = seconds * rate;
  const period = noisePeriod(colour, rate);
  const stray = whiteNoise(lead + count + QUIET_SECONDS * rate, 1, hiss.seed);
  const heard = sampled(
    lead + count,
    (i) => (i < lead ? 0 : GAIN * period[(i - lead) % period.length]) + hiss.rms * stray[i],
  );
  const quiet = stray.slice(lead + count).map((value) => hiss.rms * value);
  const place = { startSeconds: LEAD_SECONDS, speedRatio: 1 };
  const gains = noiseGain([heard], rate, { kind: colour, levelDb: LEVEL_DB }, place, [quiet]);
  expect(gains).not.toBeNull();
  return gains?.[0] ?? [];
}

describe("noise that came back as it was sent", () => {
  it.each([44_100, 48_000, 96_000] as const)(
    "has a gain of 0 dB at %i Hz, as far as it was sent and no farther",
    (rate) => {
      for (const colour of ["pink", "white"] as const) {
        const gains = cameBack(colour, rate, 5, { rms: 0, seed: 1 });
        for (const { gainDb } of gains) expect(Math.abs(gainDb)).toBeLessThan(0.01);
        const highest = gains.at(-1)?.frequencyHz ?? 0;
        expect(highest).toBeLessThan(NOISE_TO_HZ);
        expect(highest).toBeGreaterThan(0.8 * Math.min(NOISE_TO_HZ, 0.44 * rate));
      }
    },
  );
});

describe("noise with hiss in it", () => {
  it.each([
    ["far below it", 0.001],
    ["as strong as its upper bands", 0.004],
    ["over most of it", 0.012],
  ])("is as sure as it says, hiss %s", (_, rms) => {
    const off: number[] = [];
    for (const seed of [5, 18, 31, 44])
      for (const { gainDb, uncertaintyDb } of cameBack("pink", 48_000, 5, { rms, seed }))
        off.push(gainDb / uncertaintyDb);
    // ± at 95 %: a standard deviation of half of it, and few beyond
    const outside = off.filter((one) => Math.abs(one) > 1).length / off.length;
    expect(outside).toBeLessThan(0.1);
    const spread = Math.sqrt(off.reduce((sum, one) => sum + one * one, 0) / off.length);
    expect(spread).toBeLessThan(0.65);
    expect(spread).toBeGreaterThan(0.15);
  });
});
