import { readFileSync } from "node:fs";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import wabt from "wabt";
import { FFT_KERNEL } from "./fft-kernel";
import { FIR_KERNEL, firRow, KernelRoom } from "./fir-kernel";
import { SAMPLE_KERNEL, squaresAndPeak, stereoOfSixteen } from "./sample-kernel";
import { interpolateIn, interpolateMany, INTERPOLATOR_REACH } from "./sinc-interpolator";
import { SINC_KERNEL } from "./sinc-kernel";
import { SeededRandom } from "./seeded-random";
import { sampled } from "@/core/dsp/sampled";
import { largestDifference } from "@/testing/largest-difference";

it.each([
  ["fft-kernel", FFT_KERNEL],
  ["fir-kernel", FIR_KERNEL],
  ["sample-kernel", SAMPLE_KERNEL],
  ["sinc-kernel", SINC_KERNEL],
])("%s is what its source says", async (name, code) => {
  const { parseWat } = await wabt();
  const source = readFileSync(new URL(`./${name}.wat`, import.meta.url), "utf8");
  const { buffer } = parseWat(name, source, { simd: true }).toBinary({});
  expect(code).toBe(Buffer.from(buffer).toString("base64"));
});

it("values between samples are the same one by one and many at once", () => {
  const random = new SeededRandom(9);
  const samples = Float32Array.from({ length: 3000 }, () => random.normal());
  const span = samples.length - 2 * INTERPOLATOR_REACH - 1;
  for (const count of [1, 7, 2000]) {
    const at = sampled(count, () => INTERPOLATOR_REACH + span * random.uniform());
    const out = new Float64Array(count);
    interpolateMany(samples, at, out);
    const oneByOne = at.map((place) => interpolateIn(samples, place));
    expect(largestDifference(out, oneByOne)).toBeLessThan(5e-13);
  }
});

describe("the kernel of the filters", () => {
  it("sums as plain loops do, however many results there are", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 70 }),
        fc.integer({ min: 1, max: 9 }),
        fc.integer({ min: 1, max: 40 }),
        fc.integer({ min: 0, max: 5 }),
        (taps, step, count, from) => {
          const random = new SeededRandom(100 * taps + count);
          const row = () => sampled(taps, () => random.normal());
          const [first, second] = [row(), row()];
          const samples = new Float32Array(from + (count - 1) * step + taps + 3).map(() => random.normal());
          const room = new KernelRoom(1200);
          const at = room.put(samples) + from;
          const rows = [room.put(firRow(first)), room.put(firRow(second))] as const;
          const length = firRow(first).length;
          const [re, im, alone] = [room.place(count), room.place(count), room.place(count)];
          room.convolve(at, rows, length, step, count, re, im);
          room.convolve(at, [rows[0]], length, step, count, alone, alone);
          const plain = (by: Float64Array, k: number) =>
            by.reduce((sum, tap, j) => sum + tap * samples[from + k * step + j], 0);
          for (let k = 0; k < count; k++) {
            expect(Math.abs(room.singles[re + k] - plain(first, k))).toBeLessThan(1e-4);
            expect(Math.abs(room.singles[im + k] - plain(second, k))).toBeLessThan(1e-4);
            expect(room.singles[alone + k]).toBe(room.singles[re + k]);
          }
        },
      ),
      { numRuns: 60 },
    );
  });

  it("tells the steps of a phase all the way round, and how far from 0 it is", () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: -Math.PI, max: Math.PI, noNaN: true }), { minLength: 1, maxLength: 30 }),
        fc.double({ min: -3, max: 3, noNaN: true }),
        fc.double({ min: 0.01, max: 2, noNaN: true }),
        (angles, steady, distance) => {
          const room = new KernelRoom(400);
          const count = angles.length;
          const phases = [0];
          for (const angle of angles) phases.push(phases.at(-1)! + angle + steady);
          const re = room.put(Float32Array.from(phases, (phase) => distance * Math.cos(phase)));
          const im = room.put(Float32Array.from(phases, (phase) => distance * Math.sin(phase)));
          const [angle, size] = [room.place(count), room.place(count)];
          room.steps(re, im, count, { cos: Math.cos(steady), sin: Math.sin(steady) }, 1, angle, size);
          angles.forEach((wanted, k) => {
            const off = (room.singles[angle + k] - wanted) / (2 * Math.PI);
            expect(Math.abs(off - Math.round(off))).toBeLessThan(1e-6);
            expect(Math.abs(room.singles[size + k] / (2 * distance) - 1)).toBeLessThan(1e-6);
          });
        },
      ),
    );
  });

  it("tells of nothing that it goes nowhere", () => {
    const room = new KernelRoom(100);
    const [re, im] = [room.put(new Float32Array(4)), room.put(new Float32Array(4))];
    const [angle, size] = [room.place(3), room.place(3)];
    room.steps(re, im, 3, { cos: 1, sin: 0 }, 1, angle, size);
    expect([...room.singles.subarray(angle, angle + 3)]).toEqual([0, 0, 0]);
    expect([...room.singles.subarray(size, size + 3)]).toEqual([0, 0, 0]);
  });
});

describe("the kernel of samples", () => {
  it("reads stereo of 16 bits, whatever its length", () => {
    for (const frames of [1, 2, 3, 4, 5, 1001]) {
      const random = new SeededRandom(frames);
      const integers = Int16Array.from({ length: 2 * frames }, () =>
        Math.round(32767 * (2 * random.uniform() - 1)),
      );
      integers[0] = -32768;
      const [left, right] = [new Float32Array(frames), new Float32Array(frames)];
      stereoOfSixteen(new Uint8Array(integers.buffer), frames, left, right);
      for (let i = 0; i < frames; i++) {
        expect(left[i]).toBe(integers[2 * i] / 32768);
        expect(right[i]).toBe(integers[2 * i + 1] / 32768);
      }
    }
  });

  it("sums squares and finds the largest magnitude, and has no sum where one is no number", () => {
    fc.assert(
      fc.property(fc.array(fc.float({ min: -2, max: 2, noNaN: true }), { maxLength: 50 }), (values) => {
        const samples = Float32Array.from(values);
        const { squares, peak } = squaresAndPeak(samples);
        const sum = samples.reduce((all, v) => all + v * v, 0);
        expect(Math.abs(squares - sum)).toBeLessThan(1e-6 * sum + 1e-30);
        expect(peak).toBe(samples.reduce((most, v) => Math.max(most, Math.abs(v)), 0));
      }),
    );
    expect(squaresAndPeak(Float32Array.of(0.5, NaN, 0.25, 0, 0)).squares).toBeNaN();
    expect(squaresAndPeak(Float32Array.of(0.5, -Infinity)).squares).toBe(Infinity);
  });
});
