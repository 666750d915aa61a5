import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { allOf, eachPiece, kept, PIECE, readMirrored, stepsOf, valuesOf } from "./values";

const numbers = fc.array(fc.double({ min: -5, max: 5, noNaN: true }), { minLength: 3, maxLength: 60 });
const whole = (values: ReturnType<typeof valuesOf>) => [...allOf(values)];
/** What a room held before is not to show through. */
const used = (length: number) => new Float64Array(length).fill(99);

describe("values that are read piece by piece", () => {
  it("are the same in pieces as all at once", () => {
    fc.assert(
      fc.property(numbers, fc.nat(), fc.nat(), (list, a, b) => {
        const x = Float64Array.from(list);
        const [from, to] = [a % x.length, b % x.length].sort((p, q) => p - q);
        for (const values of [valuesOf(x), kept(valuesOf(x)), stepsOf(x, 3)])
          expect([...values.read(from, used(to - from))]).toEqual(whole(values).slice(from, to));
      }),
    );
  });

  it("leave what they were made of alone", () => {
    const x = Float64Array.of(1, 2, 3, 4);
    allOf(valuesOf(x)).fill(9);
    allOf(stepsOf(x, 2)).fill(9);
    expect([...x]).toEqual([1, 2, 3, 4]);
  });
});

it("steps lie between each value and the next, and nought behind the last", () => {
  expect(whole(stepsOf(Float64Array.of(1, 4, 2, 2), 10))).toEqual([30, -20, 0, 0]);
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
