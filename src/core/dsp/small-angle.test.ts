import fc from "fast-check";
import { expect, it } from "vitest";
import { angleOf } from "./small-angle";

it("is the angle that the language's own function gives, in every direction", () => {
  fc.assert(
    fc.property(
      fc.double({ min: -Math.PI, max: Math.PI, noNaN: true }),
      fc.double({ min: 1e-9, max: 1e3, noNaN: true }),
      (angle, radius) => {
        const [y, x] = [radius * Math.sin(angle), radius * Math.cos(angle)];
        expect(Math.abs(angleOf(y, x) - Math.atan2(y, x))).toBeLessThan(1e-12);
      },
    ),
    { numRuns: 2000 },
  );
  expect(angleOf(0, 0)).toBe(0);
  expect(angleOf(0, -1)).toBe(Math.PI);
});
