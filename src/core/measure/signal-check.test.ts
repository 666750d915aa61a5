import { describe, expect, it } from "vitest";
import { fmTone, sumOf, whiteNoise } from "@/testing/fm-tone";
import { SignalCheck } from "./signal-check";
import type { CheckName } from "./signal-findings";

const RATE = 48000;
const SECONDS = 8;
const N = SECONDS * RATE;
const tone = (hz: number, amplitude = 0.25) => fmTone(SECONDS, RATE, hz, [], amplitude);
const hiss = (seed: number) => whiteNoise(N, 2e-4, seed);
const left = sumOf(tone(3150), hiss(1));
const right = sumOf(tone(3150, 0.24), hiss(2));

function checkOf(channels: Float64Array[], lost = 0) {
  const check = new SignalCheck(RATE, channels.length);
  check.lose(lost);
  for (let at = 0; at < N; at += 1024) check.push(channels.map((x) => x.subarray(at, at + 1024)));
  return check.report!;
}
const stateOf = (channels: Float64Array[], name: CheckName, lost = 0) =>
  checkOf(channels, lost).findings.find(({ check }) => check === name)!;

it("a sound signal has nothing against it, and level and peak of each channel", () => {
  const report = checkOf([left, right]);
  expect(report.findings.filter(({ state }) => state === "fault" || state === "note")).toEqual([]);
  expect(report.channels[0].rmsDbfs).toBeCloseTo(20 * Math.log10(0.25) - 3.01, 1);
  expect(report.channels.map(({ channel }) => channel)).toEqual(["left", "right"]);
});

describe("what is wrong is named", () => {
  const silence = new Float64Array(N);
  const low = sumOf(tone(220), hiss(3));
  const glide = (amount: number) => left.map((v, i) => v * 10 ** ((amount * i) / N / 20));
  const speech = new Float64Array(N);
  const source = whiteNoise(N, 0.02, 9);
  for (let i = 40; i < N; i++) for (let j = 0; j < 40; j++) speech[i] += source[i - j] / 8; // nothing much above 1 kHz

  it.each<[string, Float64Array[], CheckName, string, RegExp]>([
    ["no sound at all", [silence, silence], "arrives", "fault", /nothing arrives/],
    ["one channel missing", [left, silence], "arrives", "fault", /right is missing/],
    [
      "a clipped input",
      [left.map((v) => Math.max(-1, Math.min(1, 8 * v))), right],
      "clipping",
      "fault",
      /left clipped/,
    ],
    ["mono on both", [left, left.slice()], "both channels", "note", /very same sound/],
    [
      "one channel inverted",
      [
        low,
        sumOf(
          low.map((v) => -v),
          hiss(4),
        ),
      ],
      "polarity",
      "fault",
      /inverted/,
    ],
    ["strong hum", [sumOf(left, tone(60, 0.02)), right], "mains hum", "note", /60 Hz/],
    ["direct current", [left.map((v) => v + 0.03), right], "DC", "note", /3.00 % .*left/],
    ["a gain that is ridden", [glide(-4), glide(-4)], "steady gain", "fault", /glides by −3/],
  ])("%s", (_, channels, name, state, says) => {
    const finding = stateOf(channels, name);
    expect(finding.state).toBe(state);
    expect(finding.says).toMatch(says);
    expect(finding.advice).not.toBe("");
  });

  it("an input that went through 16 kHz", () => {
    const kept = 2 / 3; // of half the rate: 16 kHz is left of 24
    const taps = 401;
    const lowPass = Array.from({ length: taps }, (_, j) => {
      const x = j - (taps - 1) / 2;
      const window =
        0.42 + 0.5 * Math.cos((2 * Math.PI * x) / taps) + 0.08 * Math.cos((4 * Math.PI * x) / taps);
      return window * (x === 0 ? kept / 2 : Math.sin(Math.PI * (kept / 2) * x) / (Math.PI * x));
    });
    const filtered = new Float64Array(N);
    const noise = whiteNoise(N, 0.01, 5);
    for (let i = taps; i < N; i++) for (let j = 0; j < taps; j++) filtered[i] += noise[i - j] * lowPass[j];
    const finding = stateOf([filtered, filtered.slice().reverse()], "sample rate");
    expect(finding.state).toBe("note");
    expect(finding.says).toMatch(/above 8\.0 kHz.*16000 Hz/);
  });

  it("a hole in the sound, and samples that the sender missed", () => {
    const holed = [left, right].map((x) => x.map((v, i) => (i > 100_000 && i < 101_025 ? 0 : v)));
    expect(stateOf(holed, "no gaps")).toMatchObject({
      state: "fault",
      says: "1024 samples lost before they arrived, in 1 hole, the latest 2.1 s after the start; bridged in speed and flutter",
    });
    expect(stateOf([left, right], "no gaps", 480).says).toContain("480 samples lost on their way");
  });

  it("one channel that wanders by itself is the tape's, not a gain control", () => {
    expect(stateOf([glide(-4), right], "steady gain").state).toBe("sound");
  });
});

it("says what it cannot tell from what plays", () => {
  expect(stateOf([left, right], "polarity").state).toBe("open");
  expect(stateOf([hiss(1), hiss(2)], "steady gain").state).toBe("open");
});

it("a strong tone in undithered 16-bit sound is not mistaken for a sample-rate conversion", () => {
  for (const hz of [3150, 3189.4, 7000, 10000]) {
    const x = fmTone(SECONDS, RATE, hz, [{ rateHz: 4, peak: 0.002 }], 0.5).map(
      (v) => Math.round(v * 32768) / 32768,
    );
    expect(stateOf([x, x.map((v) => Math.round((v / 2) * 32768) / 32768)], "sample rate").state).toBe(
      "sound",
    );
  }
});
