import { describe, expect, it } from "vitest";
import { dropOutRates, whoseFlicker } from "./drop-out-rates";

const at = (atSeconds: number, seconds = 0.02, depthDb = 12) => ({ atSeconds, seconds, depthDb });
const channel = (name: string, events: ReturnType<typeof at>[], seconds = 30) => ({
  channel: name,
  seconds,
  events,
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

  it("a channel that was not heard gives no rate", () => {
    expect(dropOutRates([])).toBeNull();
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
