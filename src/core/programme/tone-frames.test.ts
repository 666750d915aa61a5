import { describe, expect, it } from "vitest";
import { fmTone, sumOf, whiteNoise } from "@/testing/fm-tone";
import { findSweep } from "./find-sweep";
import { heardSegments } from "./heard-segments";
import { humLines, isHum } from "./hum-lines";
import { ToneFrames } from "./tone-frames";
import { sampled } from "@/core/dsp/sampled";

function framesOf(channels: Float64Array[], rate = 48000, block = 7000): ToneFrames {
  const frames = new ToneFrames(rate, channels.length);
  for (let at = 0; at < channels[0].length; at += block)
    frames.push(channels.map((x) => x.subarray(at, at + block)));
  frames.finish();
  return frames;
}
/** The strongest line of a frame. */
function strongest(frames: ToneFrames, frame: number) {
  const lines = [0, 1, 2, 3, 4, 5].map((line) => frames.peak(frame, line));
  return lines.reduce((a, b) => (b.left > a.left ? b : a));
}

describe("what is heard from moment to moment", () => {
  it.each([
    [48000, 31.5],
    [48000, 318],
    [48000, 1000.4],
    [44100, 12500],
    [96000, 18000],
    [192000, 3150],
  ])("at %i Hz: a tone of %f Hz, its frequency within 0.01 %% and its level within 0.01 dB", (rate, hz) => {
    const x = fmTone(2, rate, hz, [], 0.1);
    const frames = framesOf([x, x.map((v) => v / 2)], rate);
    const { hz: found, left, right } = strongest(frames, Math.round(1 / frames.secondsPerFrame));
    expect(Math.abs(found / hz - 1)).toBeLessThan(1e-4);
    expect(Math.abs(10 * Math.log10(left) + 20)).toBeLessThan(0.01);
    expect(Math.abs(10 * Math.log10(right) + 26.02)).toBeLessThan(0.01);
  });

  it("a frame belongs to the time of its middle", () => {
    const x = new Float64Array(48000);
    x.set(fmTone(0.5, 48000, 2000), 24000);
    const frames = framesOf([x]);
    let first = 0;
    while (frames.power(first).left < 0.125) first++; // half of the power of an amplitude of a half
    expect(Math.abs(frames.secondsOf(first) - 0.5)).toBeLessThan(frames.secondsPerFrame + 0.003);
  });

  it("an endless source is remembered for as long as was asked", () => {
    const frames = new ToneFrames(48000, 1, 5);
    for (let s = 0; s < 30; s++) frames.push([fmTone(1, 48000, 1000)]);
    expect(frames.length * frames.secondsPerFrame).toBeLessThan(10.1);
    expect(frames.secondsOf(frames.length - 1)).toBeGreaterThan(29.4);
  });
});

describe("hum", () => {
  it("beside a stronger tone is known, and then not taken for a tone where it stands alone", () => {
    const mains = sumOf(fmTone(8, 48000, 50, [], 0.01), fmTone(8, 48000, 250, [], 0.003));
    const x = sumOf(
      sumOf(mains, whiteNoise(mains.length, 1e-6)),
      Float64Array.from([...fmTone(4, 48000, 1000, [], 0.1), ...new Float64Array(4 * 48000)]),
    );
    const frames = framesOf([x]);
    const lines = humLines(frames);
    expect([...lines.keys()].sort((a, b) => a - b)).toEqual([50, 250]);
    expect(isHum(50.1, 1e-4, lines)).toBe(true);
    expect(isHum(250, 0.01, lines)).toBe(false); // a test tone at a mains harmonic is far stronger
    expect(heardSegments(frames).filter(({ kind }) => kind === "tone")).toHaveLength(1);
  });
});

describe("a sweep of known shape", () => {
  const shape = { frequencyHz: 40, toFrequencyHz: 12500, seconds: 10 };
  const sweep = (ratio: number) => {
    const pace = Math.log(12500 / 40);
    return sampled(Math.round((10 / ratio) * 48000), (i) => {
      const share = (ratio * i) / 48000 / 10;
      return 0.05 * Math.sin(((2 * Math.PI * 40 * 10) / pace) * Math.expm1(share * pace));
    });
  };
  const around = (x: Float64Array) =>
    sumOf(
      Float64Array.from([...new Float64Array(96000), ...x, ...new Float64Array(48000)]),
      whiteNoise(x.length + 144000, 3e-4),
    );
  const noHum = () => false;

  it.each([0.94, 1, 1.06])("is found at %f times its speed, from end to end", (ratio) => {
    const found = findSweep(framesOf([around(sweep(ratio))]), shape, noHum)!;
    expect(Math.abs(found.startSeconds - 2)).toBeLessThan(0.15);
    expect(Math.abs(found.endSeconds - 2 - 10 / ratio)).toBeLessThan(0.15);
    expect(found.frequencyHz / 40).toBeCloseTo(ratio, 1);
  });

  it("is not found in noise or in a steady tone", () => {
    expect(findSweep(framesOf([whiteNoise(15 * 48000, 0.1)]), shape, noHum)).toBeNull();
    expect(findSweep(framesOf([fmTone(15, 48000, 1000)]), shape, noHum)).toBeNull();
  });
});
