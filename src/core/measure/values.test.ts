import fc from "fast-check";
import { describe, expect, it } from "vitest";
import {
  allOf,
  bridgedValues,
  eachPiece,
  kept,
  PIECE,
  readMirrored,
  stepsOf,
  valuesOf,
  valuesWithoutTrend,
} from "./values";

const numbers = fc.array(fc.double({ min: -5, max: 5, noNaN: true }), { minLength: 3, maxLength: 60 });
const whole = (values: ReturnType<typeof valuesOf>) => [...allOf(values)];
/** What a room held before is not to show through. */
const used = (length: number) => new Float64Array(length).fill(99);

describe("values that are read piece by piece", () => {
  it("are the same in pieces as all at once, whatever was done to them", () => {
    fc.assert(
      fc.property(numbers, fc.nat(), fc.nat(), (list, a, b) => {
        const x = Float64Array.from(list);
        const [from, to] = [a % x.length, b % x.length].sort((p, q) => p - q);
        for (const values of [
          valuesOf(x),
          kept(valuesOf(x)),
          stepsOf(x, 3),
          valuesWithoutTrend(valuesOf(x)),
          bridgedValues(valuesOf(x), [{ from, to, lost: false }], 1),
        ])
          expect([...values.read(from, used(to - from))]).toEqual(whole(values).slice(from, to));
      }),
    );
  });

  it("leave what they were made of alone", () => {
    const x = Float64Array.of(1, 2, 3, 4);
    allOf(valuesOf(x)).fill(9);
    allOf(valuesWithoutTrend(valuesOf(x))).fill(9);
    expect([...x]).toEqual([1, 2, 3, 4]);
  });
});

it("steps lie between each value and the next, and nought behind the last", () => {
  expect(whole(stepsOf(Float64Array.of(1, 4, 2, 2), 10))).toEqual([30, -20, 0, 0]);
});

describe("deviations from their own mean", () => {
  it("have lost what drifts straight, over more than one piece, and are re the mean carrier", () => {
    const length = PIECE + 4321;
    const wave = (i: number) => 0.001 * Math.sin((2 * Math.PI * 50 * i) / length);
    const x = Float64Array.from({ length }, (_, i) => 0.04 + (2e-3 * (i - length / 2)) / length + wave(i));
    const values = whole(valuesWithoutTrend(valuesOf(x)));
    const off = values.map((v, i) => Math.abs(v - wave(i) / 1.04));
    // a wave of fifty turns has a slope of its own, of one part in fifty
    expect(Math.max(...off)).toBeLessThan(4e-5);
    expect(Math.abs(values.reduce((a, b) => a + b, 0) / length)).toBeLessThan(1e-12);
  });

  it("of two values have no slope taken out", () => {
    expect(whole(valuesWithoutTrend(valuesOf(Float64Array.of(0.1, -0.1))))).toEqual([0.1, -0.1]);
  });
});

describe("straight lines over what cannot be read", () => {
  const x = Float64Array.from({ length: 20 }, (_, i) => i);

  it("lead from the value before to the value behind, and change nothing else", () => {
    const spoiled = x.map((v, i) => (i >= 8 && i < 12 ? 100 : v));
    const values = whole(bridgedValues(valuesOf(spoiled), [{ from: 9, to: 11, lost: false }], 1));
    values.forEach((v, i) => {
      if (i < 8 || i >= 12) expect(v).toBe(i);
      else expect(Math.abs(v - i)).toBeLessThan(1.01);
    });
    expect(Math.max(...values)).toBe(19);
  });

  it("are one where their edges meet, and end at the ends", () => {
    const spoiled = x.map((v, i) => (i < 3 || (i >= 8 && i < 14) || i === 19 ? NaN : v));
    const values = whole(
      bridgedValues(
        valuesOf(spoiled.with(0, 3).with(19, 18)),
        [
          { from: 11, to: 13, lost: false },
          { from: 1, to: 2, lost: false },
          { from: 9, to: 10, lost: false },
        ],
        1,
      ),
    );
    values.forEach((v, i) => expect(Number.isNaN(v), `at ${i}`).toBe(false));
  });
});

describe("values mirrored at their ends", () => {
  it("are the same within, and come back the way they went beyond", () => {
    fc.assert(
      fc.property(numbers, fc.nat(), fc.nat(), (list, a, b) => {
        const n = list.length;
        const [from, to] = [(a % (3 * n)) - n, (b % (3 * n)) - n].sort((p, q) => p - q);
        const at = (i: number) => list[i < 0 ? -1 - i : i >= n ? 2 * n - 1 - i : i];
        const expected = Array.from({ length: to - from }, (_, k) => at(from + k));
        expect([...readMirrored(valuesOf(Float64Array.from(list)), from, used(to - from))]).toEqual(expected);
      }),
    );
  });

  it("come in pieces of one size, the last as short as it is, from before the first to behind the last", () => {
    const values = valuesOf(Float64Array.from({ length: 2 * PIECE }, (_, i) => i));
    const places = { from: -PIECE, to: 2 * PIECE + 7 };
    const [all, begins]: [number[], number[]] = [[], []];
    eachPiece(values, places, (piece, at) => {
      begins.push(at);
      all.push(...piece);
    });
    expect(begins).toEqual([-PIECE, 0, PIECE, 2 * PIECE]);
    expect(all).toEqual([...readMirrored(values, places.from, used(places.to - places.from))]);
    eachPiece(values, { from: 5, to: 5 }, () => expect.unreachable("there is nothing to be read"));
  });
});
