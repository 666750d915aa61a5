import { describe, expect, it } from "vitest";
import fc from "fast-check";
import { FullScaleRuns } from "./full-scale";

describe("places at full scale", () => {
  it("are runs of three samples or more, however they are cut into blocks", () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom(0, 0.5, -0.9999, 1, -1, 32767 / 32768), { maxLength: 60 }),
        fc.array(fc.integer({ min: 1, max: 9 }), { minLength: 60, maxLength: 60 }),
        (samples, cuts) => {
          const runs = new FullScaleRuns();
          let at = 0;
          for (const cut of cuts) {
            runs.push(Float32Array.from(samples.slice(at, at + cut)));
            at += cut;
          }
          const marks = samples.map((v) => (Math.abs(v) >= 32767 / 32768 ? "x" : "-")).join("");
          expect(runs.count).toBe((marks.match(/x{3,}/g) ?? []).length);
        },
      ),
    );
  });
});
