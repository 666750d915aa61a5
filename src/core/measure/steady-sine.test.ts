import { expect, it } from "vitest";
import { fmTone, sumOf, whiteNoise } from "@/testing/fm-tone";
import { SignalCheck } from "./signal-check";
import { whyNoSteadySine } from "./steady-sine";

const RATE = 48_000;
const SECONDS = 2.5;
const N = SECONDS * RATE;
const sine = (hz: number, amplitude = 0.3, seconds = SECONDS) => fmTone(seconds, RATE, hz, [], amplitude);

function said(left: Float64Array, right = left): string | null {
  const check = new SignalCheck(RATE, 2);
  check.push([left, right]);
  return whyNoSteadySine(check.report!);
}

it.each([
  ["a sine of the middle", sine(1000)],
  ["a high one, between whose samples its peak lies", sine(11_999)],
  ["a low one", sine(63)],
  ["of a tape: it trembles, with hiss and a third harmonic of 3 %", ofTape()],
])("%s is taken", (_, x) => {
  expect(said(x)).toBeNull();
});

it.each([
  ["silence", new Float64Array(N), "left has no level"],
  ["noise", whiteNoise(N, 0.1, 3), "left is no"],
  ["two tones", sumOf(sine(1000, 0.2), sine(1700, 0.2)), "left is no sine"],
  ["a square wave", sine(400).map((v) => 0.3 * Math.sign(v)), "left is no sine"],
  ["what still rises", sine(1000).map((v, i) => v * (1 + (0.2 * i) / N)), "left is not steady"],
  ["what begins just now", sine(1000).map((v, i) => (i < N / 2 ? 0 : v)), "left is not steady"],
  ["what is too loud", sine(1000, 1.4).map((v) => Math.max(-1, Math.min(1, v))), "left clipped"],
  ["a direct voltage beside it", sine(1000, 0.2).map((v) => v + 0.1), "left carries a direct voltage"],
  ["a second of it", sine(1000, 0.3, 1), "two seconds"],
])("%s is not", (_, x, why) => {
  expect(said(x)).toContain(why);
});

it("says which channel it is", () => {
  expect(said(sine(1000), new Float64Array(N))).toContain("right has no level");
});

function ofTape(): Float64Array {
  const trembling = sine(1000).map((v, i) => v * (1 + 0.01 * Math.sin((2 * Math.PI * 3 * i) / RATE)));
  return sumOf(sumOf(trembling, sine(3000, 0.009)), whiteNoise(N, 0.001, 5));
}
