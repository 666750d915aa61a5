import { describe, expect, it } from "vitest";
import { biasWanted, dropOutRates, whoseFlicker, type PassportChannel } from "./passport";

const at = (atSeconds: number, seconds = 0.02, depthDb = 12) => ({ atSeconds, seconds, depthDb });
const channel = (name: string, events: ReturnType<typeof at>[], seconds = 30): PassportChannel => ({
  channel: name,
  sensitivity: null,
  treble: null,
  top: null,
  middle: null,
  mol: null,
  molAbove: null,
  noise: null,
  dropOuts: { seconds, events },
});

describe("bias wanted, from how the top comes back", () => {
  // the table of 15 kHz less that of 315 Hz
  it.each([
    [0, 0],
    [2.9, 2],
    [5.2, 4],
    [-3.8, -2],
    [1.45, 1],
  ])("%f dB of 15 kHz re 400 Hz: %f dB more", (value, wanted) => {
    const known = biasWanted({ value, uncertainty: 0.1 }, 4.76)!;
    expect(known.value).toBeCloseTo(wanted, 1);
    expect(known.uncertainty).toBeGreaterThan(0.15);
  });

  it("beyond the table, and at other speeds, it cannot be told", () => {
    expect(biasWanted({ value: 9, uncertainty: 0.1 }, 4.76)).toBeNull();
    expect(biasWanted({ value: -12, uncertainty: 0.1 }, 4.76)).toBeNull();
    expect(biasWanted({ value: 1, uncertainty: 0.1 }, 19.05)).toBeNull();
  });
});

describe("drop-outs of a tape", () => {
  it("are counted a minute in each channel, in both at once, by depth and length", () => {
    const rates = dropOutRates([
      channel("left", [at(1), at(5, 0.005, 8), at(9, 0.08, 25)]),
      channel("right", [at(1.001), at(20)]),
    ])!;
    expect(rates.perMinute).toEqual([
      { channel: "left", perMinute: 6 },
      { channel: "right", perMinute: 4 },
    ]);
    expect(rates.bothPerMinute).toBe(2);
    expect(rates.table.map(({ counts }) => counts)).toEqual([
      [1, 0, 0],
      [0, 3, 0],
      [0, 0, 1],
    ]);
  });

  it("a channel that was not heard long enough gives no rate", () => {
    expect(dropOutRates([{ ...channel("left", []), dropOuts: null }])).toBeNull();
    expect(dropOutRates([channel("left", [], 0)])).toBeNull();
  });

  it.each([
    ["the tape's", [1, 4, 9, 14], [1.01, 4, 9.02, 14]],
    ["the machine's", [1, 4, 9, 14], [2, 6, 11, 17]],
    ["both", [1, 4, 9, 14], [1, 4, 11, 17]],
  ])("played twice they are %s", (whose, once, again) => {
    expect(
      whoseFlicker(
        once.map((t) => at(t)),
        again.map((t) => at(t)),
      )!.whose,
    ).toBe(whose);
  });

  it("so few tell nothing", () => {
    expect(whoseFlicker([at(1)], [at(1)])).toBeNull();
  });
});
