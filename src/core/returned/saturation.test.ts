import { describe, expect, it } from "vitest";
import type { ReturnedStep } from "./returned";
import { saturationOf } from "./saturation";

/** Steps of 4 dB from −20 dB re 0 that come back through a curve, dB in and out. */
const heard = (out: (sentDb: number) => number, clippedAt = Infinity): ReturnedStep[] =>
  Array.from({ length: 7 }, (_, i) => {
    const sentDb = -20 + 4 * i;
    return {
      sentDbfs: sentDb - 12,
      levelDb: out(sentDb) - sentDb,
      thirdPercent: null,
      thdPercent: null,
      harmonics: [],
      measurable: false,
      clipped: sentDb >= clippedAt,
    };
  });
/** Rises as it is sent, and never above −3 dB. */
const soft = (db: number) => -20 * Math.log10(10 ** (-db / 20) + 10 ** (3 / 20));

describe("what a high tone comes back with at most", () => {
  it.each([
    ["stops rising", heard((db) => Math.min(db, -3.2)), -3.2],
    ["falls again", heard((db) => (db < -4 ? db : -8 - db)), -4],
    ["still rises", heard((db) => db), null],
    ["is still bending", heard(soft), null],
    ["clips the input", heard((db) => Math.min(db, -3), 0), null],
    ["one step only", heard((db) => db).slice(0, 1), null],
  ])("%s", (_, steps, expected) => {
    const found = saturationOf(steps);
    if (expected === null) expect(found).toBeNull();
    else expect(found).toBeCloseTo(expected, 6);
  });
});
