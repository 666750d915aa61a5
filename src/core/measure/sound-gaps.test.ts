import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { fmTone, whiteNoise } from "@/testing/fm-tone";
import { SoundGaps } from "./sound-gaps";
import { bandLimitOf, SpectrumWatch } from "./spectrum-watch";
import { sampled } from "@/core/dsp/sampled";

const RATE = 48000;
const START = 2 * RATE;

function gapsIn(channels: Float64Array[], block = 1024): SoundGaps {
  const gaps = new SoundGaps();
  for (let at = 0; at < channels[0].length; at += block)
    gaps.push(channels.map((channel) => channel.subarray(at, at + block)));
  return gaps;
}
const holed = (x: Float64Array, from: number, length: number) =>
  x.map((v, i) => (i >= from && i < from + length ? 0 : v));

describe("holes in the sound", () => {
  const tone = fmTone(4, RATE, 1000, [], 0.3);

  it("of any length and place are found, with their length to the sample, whatever the blocks", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: START + 1000, max: 3.5 * RATE }),
        fc.integer({ min: 60, max: 20_000 }),
        fc.integer({ min: 100, max: 5000 }),
        (from, length, block) => {
          const gaps = gapsIn([holed(tone, from, length)], block);
          expect(gaps.count).toBe(1);
          // a zero crossing of the tone may stand at either end of the hole
          expect(gaps.missingSamples).toBeGreaterThanOrEqual(length);
          expect(gaps.missingSamples).toBeLessThanOrEqual(length + 2);
          expect(Math.abs(gaps.latestAt - from - length)).toBeLessThanOrEqual(1);
        },
      ),
      { numRuns: 40 },
    );
  });

  it.each([
    ["a tone", [tone]],
    ["a hole on one channel only: that channel was muted", [holed(tone, START + 5000, 900), tone]],
    ["a hole shorter than a millisecond", [holed(tone, START + 5000, 30)]],
    ["two seconds of silence: the tape was stopped", [holed(fmTone(6, RATE, 1000), START + 5000, 2 * RATE)]],
    ["silence before the sound begins", [holed(tone, 0, START + 9000)]],
    ["stutter while the input starts", [holed(tone, 3000, 900)]],
    [
      "sound so faint that it falls to zero by itself",
      [
        holed(
          tone.map((v) => v / 1000),
          START + 5000,
          900,
        ),
      ],
    ],
  ])("none in %s", (_, channels) => {
    expect(gapsIn(channels).count).toBe(0);
  });
});

describe("where the noise of an input ends", () => {
  function watching(x: Float64Array, rate = RATE): SpectrumWatch {
    const watch = new SpectrumWatch(rate);
    for (let at = 0; at < x.length; at += 2000) watch.push(x.subarray(at, at + 2000));
    return watch;
  }
  /** Noise with nothing above a share of half the rate: a long windowed sinc. */
  function limited(share: number): Float64Array {
    const noise = whiteNoise(4 * RATE, 0.01, 6);
    const half = 150;
    const taps = sampled(2 * half + 1, (i) => {
      const x = i - half;
      const window = 0.42 + 0.5 * Math.cos((Math.PI * x) / half) + 0.08 * Math.cos((2 * Math.PI * x) / half);
      return window * (x === 0 ? share : Math.sin(Math.PI * share * x) / (Math.PI * x));
    });
    return noise.map((_, i) => {
      let sum = 0;
      if (i > 2 * half) for (let j = 0; j < taps.length; j++) sum += taps[j] * noise[i - j];
      return sum;
    });
  }

  it.each([
    [1 / 6, 4000],
    [1 / 3, 8000],
    [2 / 3, 16000],
  ])("at %f of half the rate is told as a limit of %i Hz", (share, limitHz) => {
    expect(bandLimitOf(watching(limited(share * 0.97)), RATE)).toBe(limitHz);
  });

  it("nowhere in plain noise, nor in silence, nor before enough was heard", () => {
    expect(bandLimitOf(watching(whiteNoise(4 * RATE, 0.01)), RATE)).toBeNull();
    expect(bandLimitOf(watching(new Float64Array(4 * RATE)), RATE)).toBeNull();
    expect(bandLimitOf(watching(limited(1 / 3).subarray(0, RATE)), RATE)).toBeNull();
  });

  it("how much of the sound is one tone", () => {
    expect(watching(fmTone(3, RATE, 3150)).tonality).toBeGreaterThan(0.99);
    expect(watching(whiteNoise(3 * RATE, 0.1)).tonality).toBeLessThan(0.1);
  });
});
