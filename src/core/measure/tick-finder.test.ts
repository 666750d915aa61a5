import { describe, expect, it } from "vitest";
import { TickFinder, type TickFinding } from "./tick-finder";

const RATE = 48000;
function randoms(seed: number): () => number {
  let state = seed;
  return () => {
    state = (Math.imul(state, 1103515245) + 12345) >>> 0;
    return state / 2 ** 32;
  };
}

interface Mechanism {
  seconds?: number;
  rateHz?: number;
  /** Of each tick, ± share of a turn. */
  jitter?: number;
  /** Share of the ticks that do not sound. */
  missing?: number;
  /** Others a second, at random. */
  others?: number;
  /** Motor and fan: hum with its harmonics, and noise. */
  noiseDb?: number;
  seed?: number;
}

/** What a microphone hears at a mechanism: short knocks that ring, over a motor. */
function heard({
  seconds = 30,
  rateHz = 0,
  jitter = 0.01,
  missing = 0,
  others = 0,
  noiseDb = -50,
  seed = 3,
}: Mechanism): TickFinding {
  const random = randoms(seed);
  const x = new Float64Array(seconds * RATE);
  const noise = 10 ** (noiseDb / 20);
  for (let i = 0; i < x.length; i++)
    x[i] = noise * (random() + random() - 1) + 0.05 * Math.sin((2 * Math.PI * 100 * i) / RATE);
  const knock = (at: number) => {
    const from = Math.round(at * RATE);
    for (let i = 0; i < 0.012 * RATE && from + i < x.length; i++)
      x[from + i] += 0.15 * Math.exp(-i / (0.003 * RATE)) * Math.sin((2 * Math.PI * 3300 * i) / RATE);
  };
  if (rateHz > 0)
    for (let turn = 0.3; turn < rateHz * seconds; turn++)
      if (random() >= missing) knock((turn + jitter * (2 * random() - 1)) / rateHz);
  for (let n = 0; n < others * seconds; n++) knock(seconds * random());
  const finder = new TickFinder(RATE);
  for (let i = 0; i < x.length; i += 4800) finder.push(x.subarray(i, i + 4800));
  return finder.result;
}

describe("the rhythm of a tick", () => {
  it.each([0.42, 1.21, 2.55, 6.3, 9.8])(
    "at %d a second, within one in a hundred and what is said",
    (rateHz) => {
      const { rhythm } = heard({ rateHz });
      expect(Math.abs(rhythm!.rateHz / rateHz - 1)).toBeLessThan(0.01);
      expect(Math.abs(rhythm!.rateHz - rateHz)).toBeLessThan(rhythm!.uncertaintyHz + 1e-9);
      expect(rhythm!.share).toBeGreaterThan(0.9);
    },
  );

  it.each<[string, Mechanism]>([
    ["one in five does not sound", { missing: 0.2 }],
    ["among others at random", { others: 0.6 }],
    ["uneven by a twentieth of a turn", { jitter: 0.05 }],
    ["in the noise of a fan", { noiseDb: -36 }],
  ])("%s", (_, mechanism) => {
    const { rhythm } = heard({ rateHz: 2.55, ...mechanism });
    expect(Math.abs(rhythm!.rateHz / 2.55 - 1)).toBeLessThan(0.01);
  });

  it.each([1, 2, 3, 4, 5, 6, 7, 8])("ticks at random have none (%d)", (seed) => {
    expect(heard({ others: 2, seed }).rhythm).toBeNull();
    expect(heard({ others: 0.4, seed }).rhythm).toBeNull();
  });

  it("silence and a steady motor have none, and nothing ticks", () => {
    expect(heard({})).toMatchObject({ rhythm: null, heard: 0 });
  });

  it("a rhythm is not told from a few ticks", () => {
    expect(heard({ rateHz: 2.55, seconds: 3 }).rhythm).toBeNull();
  });
});
