import { describe, expect, it } from "vitest";
import { WindWatch, type WindHeard } from "./wind-watch";

const RATE = 16_000;
const BLOCK = 1600;

function randoms(seed: number): () => number {
  let state = seed;
  return () => {
    state = (Math.imul(state, 1103515245) + 12345) >>> 0;
    return state / 2 ** 32;
  };
}

/** Loudness of the noise around 1, dB re full scale, at each moment; hum of the mains beneath it all. */
function heard(loudDb: (seconds: number) => number, seconds: number): WindHeard {
  const watch = new WindWatch(RATE);
  const random = randoms(7);
  for (let from = 0; from < seconds * RATE; from += BLOCK)
    watch.push(
      Float32Array.from({ length: BLOCK }, (_, i) => {
        const t = (from + i) / RATE;
        return (
          10 ** (loudDb(t) / 20) * (random() + random() - 1) +
          0.05 * Math.sin(2 * Math.PI * 50 * t) +
          0.02 * Math.sin(2 * Math.PI * 150 * t)
        );
      }),
    );
  return watch.result;
}

const QUIET_DB = -62;
/** Quiet, then winding from the fourth second for so long, louder towards its end. */
const wind =
  (lasts: number, db = -40) =>
  (t: number) =>
    t < 4 || t > 4 + lasts ? QUIET_DB : db + (4 * (t - 4)) / lasts;

describe("a mechanism timed by ear", () => {
  for (const lasts of [8.3, 61.75])
    it(`tells how long it wound, ${lasts} s`, () => {
      const told = heard(wind(lasts), lasts + 8);
      expect(told).toMatchObject({ state: "stopped", doubt: null });
      expect(Math.abs(told.seconds! - lasts)).toBeLessThan(told.uncertaintySeconds!);
    });

  it("a knock before and one at the end are not winding", () => {
    const knocks = (t: number) => ((t > 2.5 && t < 2.75) || (t > 14.2 && t < 14.4) ? -15 : wind(10)(t));
    const told = heard(knocks, 18);
    expect(told).toMatchObject({ state: "stopped" });
    expect(Math.abs(told.seconds! - 10)).toBeLessThan(0.5);
  });

  it("counts while it runs, and goes on counting only until it has ended", () => {
    expect(heard(wind(30), 14)).toMatchObject({ state: "runs", doubt: null });
    expect(heard(wind(30), 14).seconds).toBeCloseTo(10, 0);
    expect(heard(wind(6), 40)).toMatchObject({ state: "stopped" });
  });

  it("waits for quiet, and begins nothing with what is hardly louder", () => {
    const restless = (t: number) => (t % 1 < 0.4 ? -30 : QUIET_DB);
    expect(heard(restless, 10).state).toBe("waits for quiet");
    expect(heard(wind(10, QUIET_DB + 3), 18)).toMatchObject({ state: "ready", seconds: null });
  });

  it("what went quiet in between, or had something louder in it, is doubted", () => {
    const pause = (t: number) => (t > 9 && t < 9.8 ? QUIET_DB : wind(12)(t));
    expect(heard(pause, 20).doubt).toMatch(/went quiet in between/);
    const voice = (t: number) => (t > 8 && t < 9.5 ? -18 : wind(12)(t));
    expect(heard(voice, 20).doubt).toMatch(/louder/);
  });
});
