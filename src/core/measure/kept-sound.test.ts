import { describe, expect, it } from "vitest";
import fc from "fast-check";
import { sampled } from "@/core/dsp/sampled";
import { KeptSound } from "./kept-sound";

describe("sound that is kept", () => {
  it("is what lies between its ends, however it was cut into blocks, until it is measured", () => {
    const whole = [sampled(200, (i) => i), sampled(200, (i) => -i)];
    fc.assert(
      fc.property(
        fc.integer({ min: -40, max: 150 }),
        fc.nat(120),
        fc.array(fc.integer({ min: 1, max: 60 }), { minLength: 1, maxLength: 12 }),
        (from, length, cuts) => {
          const kept = new KeptSound(10, 2, { fromSeconds: from / 10, toSeconds: (from + length) / 10 });
          let at = 0;
          for (const cut of cuts) {
            kept.push(
              whole.map((x) => x.subarray(at, at + cut)),
              at,
            );
            at = Math.min(200, at + cut);
          }
          const wanted = whole.map((x) => [...x.subarray(Math.max(0, from), Math.max(0, from + length))]);
          const heard = wanted.map((x) => x.slice(0, Math.max(0, at - Math.max(0, from))));
          const given = kept.measure((channels) => channels.map((x) => [...x]));
          expect(given).toEqual(heard[0].length === 0 ? [] : heard);
          expect(kept.measure((channels) => channels)).toEqual([]);
        },
      ),
      { numRuns: 200 },
    );
  });

  it("is of two channels at most", () => {
    const kept = new KeptSound(10, 4, { fromSeconds: 0, toSeconds: 1 });
    kept.push(
      [1, 2, 3, 4].map((value) => new Float32Array(10).fill(value)),
      0,
    );
    expect(kept.measure((channels) => channels.map(([first]) => first))).toEqual([1, 2]);
  });
});
