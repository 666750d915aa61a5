import { describe, expect, it } from "vitest";
import { SeededRandom } from "@/core/dsp/seeded-random";
import { headHints, usualWander, type HeadSigns } from "./head-hints";
import { suspectBands, type TapeCurve } from "./tape-suspect";

const WELL: HeadSigns = {
  middleBalanceDb: 0.2,
  trebleBalanceDb: 0.4,
  trebleSpreadDb: [0.2, 0.25],
  wanderDegrees: 3,
  usualWanderDegrees: 12,
  otherMiddleBalanceDb: null,
};
const faults = (signs: Partial<HeadSigns>) => headHints({ ...WELL, ...signs }).map(({ fault }) => fault);

describe("what two channels hint at", () => {
  it("accuses nothing on a head that stands well, or before anything was heard", () => {
    expect(faults({})).toEqual([]);
    expect(
      faults({ middleBalanceDb: null, trebleBalanceDb: null, trebleSpreadDb: null, wanderDegrees: null }),
    ).toEqual([]);
  });
  it("one channel dull: zenith, and which", () => {
    const [hint] = headHints({ ...WELL, trebleBalanceDb: 5 });
    expect(hint).toMatchObject({ fault: "zenith" });
    expect(hint.because).toContain("the right channel");
  });
  it("one channel low everywhere: height; surer when the other direction turns it over; not when both agree", () => {
    expect(faults({ middleBalanceDb: 4, trebleBalanceDb: 4.2 })).toEqual(["height"]);
    expect(faults({ middleBalanceDb: 4, trebleBalanceDb: 4.2, otherMiddleBalanceDb: -3.5 })).toEqual([
      "height",
    ]);
    expect(faults({ middleBalanceDb: 4, trebleBalanceDb: 4.2, otherMiddleBalanceDb: 3.8 })).toEqual([]);
  });
  it("a restless phase: guides; as much as is usual: nothing", () => {
    expect(faults({ wanderDegrees: 25 })).toEqual(["guides"]);
    expect(faults({ wanderDegrees: 11 })).toEqual([]);
  });
  it("treble of one channel that comes and goes: contact with the tape", () => {
    expect(faults({ trebleSpreadDb: [0.2, 1.5] })).toEqual(["contact"]);
  });
  it("two capstans hold the tape better, and a faster tape wanders less in phase", () => {
    expect(usualWander(true, 4.76)).toBeLessThan(usualWander(false, 4.76));
    expect(usualWander(false, 19.05)).toBeCloseTo(usualWander(false, 4.76) / (19.05 / 4.76), 9);
  });
});

const HZ = [315, 1000, 2000, 4000, 6300, 8000, 10_000, 12_500];
const curve = (name: string, of: (hz: number) => number): TapeCurve => ({
  machineId: name,
  machineName: name,
  points: HZ.map((frequencyHz) => ({ frequencyHz, levelDb: of(frequencyHz), uncertaintyDb: 0.2 })),
});

describe("a tape that several machines agree against", () => {
  const random = new SeededRandom(2);
  const noisy = (of: (hz: number) => number) => (hz: number) => of(hz) + 0.1 * random.normal();
  const dip = (hz: number) => (hz === 8000 ? -2 : 0);

  it("three machines with the same dip at 8 kHz: the tape", () => {
    const found = suspectBands([
      curve("one", noisy(dip)),
      curve(
        "two",
        noisy((hz) => dip(hz) - hz / 8000),
      ),
      curve(
        "three",
        noisy((hz) => dip(hz) + 0.5),
      ),
    ]);
    expect(found).toHaveLength(1);
    expect(found[0]).toMatchObject({ frequencyHz: 8000, machines: ["one", "two", "three"] });
    expect(found[0].db).toBeCloseTo(-2, 0);
  });
  it("two machines are too few, and two curves of one machine are one machine", () => {
    expect(suspectBands([curve("one", dip), curve("two", dip), curve("two", dip)])).toEqual([]);
  });
  it("three dull machines are not the tape: their curves bend, no band stands out", () => {
    const dull = (db: number) => noisy((hz) => (-db * hz) / 10_000);
    expect(suspectBands([curve("one", dull(3)), curve("two", dull(5)), curve("three", dull(4))])).toEqual([]);
  });
  it("one machine without the dip acquits the tape", () => {
    expect(suspectBands([curve("one", dip), curve("two", dip), curve("three", () => 0)])).toEqual([]);
  });
});
