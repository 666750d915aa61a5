import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { intoTriangle, solveLower, solveUpper } from "./cholesky";

const SIZE = 4;
const numbers = (count: number) =>
  fc.array(fc.double({ min: -2, max: 2, noNaN: true }), { minLength: count, maxLength: count });

/** A·Aᵀ + 1, which is positive definite whatever A is. */
const positive = (a: readonly number[]) =>
  Float64Array.from({ length: SIZE * SIZE }, (_, at) => {
    const [i, j] = [Math.floor(at / SIZE), at % SIZE];
    let sum = i === j ? 1 : 0;
    for (let k = 0; k < SIZE; k++) sum += a[i * SIZE + k] * a[j * SIZE + k];
    return sum;
  });

describe("a positive definite matrix as two triangles", () => {
  it("solves what is multiplied by it", () => {
    fc.assert(
      fc.property(numbers(SIZE * SIZE), numbers(SIZE), (a, x) => {
        const matrix = positive(a);
        const b = Float64Array.from(x, (_, i) =>
          x.reduce((sum, one, j) => sum + matrix[i * SIZE + j] * one, 0),
        );
        intoTriangle(matrix, SIZE);
        solveLower(matrix, b);
        solveUpper(matrix, b);
        x.forEach((one, i) => expect(b[i]).toBeCloseTo(one, 8));
      }),
    );
  });

  it("is refused where it is none, or holds what is no number", () => {
    expect(() => intoTriangle(Float64Array.of(1, 2, 2, 1), 2)).toThrow(/not positive definite/);
    expect(() => intoTriangle(Float64Array.of(NaN), 1)).toThrow(RangeError);
  });
});
