import { describe, expect, it } from "vitest";
import { sineWave } from "@/testing/sine-wave";
import { ControlWatch, type ControlTest } from "./control-watch";

const RATE = 32_000;

/** A generator of its own, so that what is counted does not come from what counts. */
function randoms(seed: number): () => number {
  let state = seed;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 32;
  };
}

interface Worked {
  seconds?: number;
  hz?: number;
  hissDb?: number;
  crackles?: number;
  /** Of each crackle, re full scale. */
  crackleDb?: number;
  dropOuts?: number;
  /** The level goes down and up again by so much, as a hand turns it; the right channel less. */
  turnedDb?: number;
  trackingDb?: number;
}

/** A tone, hiss, and crackles: short bursts in which the contact jumps, at places far enough apart to be told. */
function worked({
  seconds = 20,
  hz = 1000,
  hissDb = -70,
  crackles = 0,
  crackleDb = -30,
  dropOuts = 0,
  turnedDb = 0,
  trackingDb = 0,
}: Worked): ControlTest {
  const random = randoms(7);
  const frames = seconds * RATE;
  const gain = (share: number) => 10 ** (share / 20);
  const [left, right] = [new Float64Array(frames), new Float64Array(frames)];
  const tone = sineWave(frames, hz / RATE).map((x) => 0.25 * x);
  const swing = sineWave(frames, 1 / (RATE * 4), Math.PI / 2);
  const turnedBy = (db: number, turn: number) => (db === 0 ? 1 : gain(-db * turn));
  const hiss = gain(hissDb);
  for (let i = 0; i < frames; i++) {
    const turn = 0.5 - 0.5 * swing[i];
    left[i] = tone[i] * turnedBy(turnedDb, turn) + hiss * (random() + random() - 1);
    right[i] = tone[i] * turnedBy(turnedDb + trackingDb, turn) + hiss * (random() + random() - 1);
  }
  const places = (count: number, n: number) =>
    Math.round(RATE * (1 + ((seconds - 2) * (n + 0.4 * random())) / count));
  for (let n = 0; n < crackles; n++) {
    const from = places(crackles, n);
    const length = Math.round(RATE * (0.001 + 0.006 * random()));
    for (let i = 0; i < length; i++)
      left[from + i] += 2 * gain(crackleDb) * (random() - 0.5) * Math.exp((-3 * i) / length);
  }
  for (let n = 0; n < dropOuts; n++) {
    const from = places(dropOuts, n);
    for (let i = 0; i < 0.06 * RATE; i++)
      right[from + i] *= 0.3 + 0.7 * Math.abs(1 - (2 * i) / (0.06 * RATE)) ** 4;
  }
  const watch = new ControlWatch(RATE, 2);
  for (let i = 0; i < frames; i += 4800)
    watch.push([left.subarray(i, i + 4800), right.subarray(i, i + 4800)]);
  return watch.result;
}

describe("a control that is worked while a tone plays", () => {
  it.each([5, 20, 60])("%d crackles are counted within one in ten", (crackles) => {
    const { channels } = worked({ crackles });
    expect(Math.abs(channels[0].crackles - crackles)).toBeLessThanOrEqual(crackles / 10);
    expect(channels[1].crackles).toBe(0);
  });

  it.each<[string, Worked]>([
    ["a clean contact", {}],
    ["a clean one in much hiss", { hissDb: -45 }],
    ["a low tone", { hz: 315 }],
    ["a level that a hand turns down and up", { turnedDb: 30 }],
  ])("%s: nothing is counted", (_, clean) => {
    for (const { crackles, dropOuts } of worked(clean).channels) {
      expect(crackles).toBe(0);
      expect(dropOuts).toBe(0);
    }
  });

  it("crackles are counted while the level is turned, and faint ones out of what is between them", () => {
    expect(worked({ crackles: 20, turnedDb: 30 }).channels[0].crackles).toBeGreaterThanOrEqual(18);
    expect(worked({ crackles: 20, crackleDb: -50, hissDb: -90 }).channels[0].crackles).toBeGreaterThanOrEqual(
      18,
    );
  });

  it("drop-outs are told in their channel", () => {
    const { channels } = worked({ dropOuts: 10 });
    expect(channels[0].dropOuts).toBe(0);
    expect(Math.abs(channels[1].dropOuts - 10)).toBeLessThanOrEqual(1);
  });

  it("balance is followed, re where it began", () => {
    const { balance, seconds } = worked({ turnedDb: 20, trackingDb: 3 });
    expect(balance!.fromDb).toBeGreaterThan(-0.3);
    expect(balance!.toDb).toBeCloseTo(3, 0);
    expect(seconds).toBeGreaterThan(19);
  });

  it("without a tone there are no seconds to count in", () => {
    const watch = new ControlWatch(RATE, 2);
    const silence = new Float64Array(2 * RATE);
    watch.push([silence, silence]);
    expect(watch.result.seconds).toBe(0);
  });
});
