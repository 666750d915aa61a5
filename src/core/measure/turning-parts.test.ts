import { describe, expect, it } from "vitest";
import { bump, flutterOfParts, reelWave, wave } from "@/testing/part-flutter";
import { valuesOf } from "@/core/dsp/values";
import { movingLine, RateFrames } from "./moving-lines";
import { onceAround, shapeOf } from "./once-around";
import { rateLines } from "./rate-lines";
import { POINTS_FROM_HZ, ratePoints } from "./rate-points";
import { withoutTrend } from "./without-trend";
import { sampled } from "@/core/dsp/sampled";

describe("lines of the rate spectrum", () => {
  it("have the power of their sines and the place of their rates", () => {
    const { lines, totalPower } = rateLines(flutterOfParts(60, [wave(0.1, 6.06), wave(0.03, 41.3)], 1e-5));
    expect(lines).toHaveLength(2);
    [
      [6.06, 0.1],
      [41.3, 0.03],
    ].forEach(([rateHz, percent], i) => {
      expect(Math.abs(lines[i].rateHz - rateHz)).toBeLessThan(0.002);
      expect(100 * Math.sqrt(2 * lines[i].power)).toBeCloseTo(percent, 3);
    });
    expect(100 * Math.sqrt(2 * totalPower)).toBeCloseTo(Math.hypot(0.1, 0.03), 3);
  });

  it("stay sharp while the speed drifts, since they are read in turns of tape", () => {
    const turns = (t: number) => 40 * (t + 0.0002 * t * t);
    const drifting = (t: number) => 0.0004 * t + 0.0005 * Math.sin(2 * Math.PI * turns(t));
    const { lines } = rateLines(flutterOfParts(60, [drifting], 1e-6));
    expect(lines).toHaveLength(1);
    expect(100 * Math.sqrt(2 * lines[0].power)).toBeCloseTo(0.05, 2);
  });

  it("are drawn from 0.05 Hz up, each as high as it is", () => {
    const shown = (percent: number, hz: number) => {
      const points = ratePoints(rateLines(flutterOfParts(80, [wave(percent, hz)])).spectrum);
      expect(points[0].rateHz).toBeGreaterThanOrEqual(POINTS_FROM_HZ);
      expect(points.length).toBeLessThanOrEqual(800);
      const near = points.filter(({ rateHz }) => Math.abs(rateHz / hz - 1) < 0.1);
      return Math.max(...near.map((point) => point.percent));
    };
    expect(shown(0.2, 0.08)).toBeCloseTo(0.2, 1);
    expect(shown(0.1, 150)).toBeCloseTo(0.1, 2);
  });
});

describe("once around", () => {
  const RATE_HZ = 3.3;
  const shapeFor = (deviation: (t: number) => number) => {
    const { deviation: even, rateHz } = flutterOfParts(60, [deviation, wave(0.1, 7.77)]);
    return onceAround(valuesOf(even), rateHz, RATE_HZ);
  };

  it("what belongs to the part stands, what does not averages out", () => {
    const { percent, turns } = shapeFor(wave(0.2, RATE_HZ));
    expect(turns).toBe(198);
    expect(Math.max(...percent)).toBeCloseTo(0.2, 1);
    expect(percent.reduce((a, b) => a + b, 0)).toBeCloseTo(0, 9);
    expect(Math.max(...shapeFor(() => 0).percent)).toBeLessThan(0.02);
  });

  it.each([
    ["wave", wave(0.2, RATE_HZ)],
    ["rise", bump(0.4, RATE_HZ)],
    ["dip", bump(-0.4, RATE_HZ)],
  ] as const)("a %s is seen as what it is", (shape, deviation) => {
    expect(shapeOf(shapeFor(deviation))).toBe(shape);
  });
});

describe("the line of a reel", () => {
  const MM_PER_S = 47.6;
  const PACK = { hubRadiusMm: 11, fullRadiusMm: 25 };
  const found = (
    deviation: (t: number) => number,
    seconds = 400,
    pack: typeof PACK & { tapeThicknessMicrometres?: number } = PACK,
  ) => {
    const { deviation: x, rateHz } = flutterOfParts(seconds, [deviation], 2e-5);
    return movingLine(new RateFrames(x, rateHz, 4), MM_PER_S, pack);
  };

  it.each([
    [24, -18],
    [12, 18],
    [18, 12],
  ])("of a pack of %i mm with tape of %i µm tells radius and thickness", (radiusMm, micrometres) => {
    const line = found(reelWave(0.1, radiusMm, micrometres, MM_PER_S))!;
    expect(line.startRadiusMm).toBeCloseTo(radiusMm, 0);
    expect(((1000 * Math.PI) / MM_PER_S) * line.squareMmPerSecond).toBeCloseTo(micrometres, 0);
    expect(100 * Math.sqrt(2 * line.harmonicPower[0])).toBeCloseTo(0.1, 2);
  });

  it("is no line that stands still, none that no tape could make, and none in noise", () => {
    expect(found(wave(0.1, 0.45))).toBeNull();
    expect(
      found(reelWave(0.1, 24, -18, MM_PER_S), 400, { ...PACK, tapeThicknessMicrometres: 50 }),
    ).toBeNull();
    expect(found(() => 0)).toBeNull();
    expect(found(reelWave(0.1, 24, -18, MM_PER_S), 3)).toBeNull();
  });
});

it("a deviation without its trend is about its own mean", () => {
  const x = sampled(1000, (i) => 0.02 + 1e-5 * i + 0.001 * Math.sin(i / 7));
  const out = withoutTrend(x);
  expect(out.reduce((a, b) => a + b, 0) / out.length).toBeCloseTo(0, 9);
  const carrier = 1 + x.reduce((a, b) => a + b, 0) / x.length;
  expect(Math.max(...out)).toBeCloseTo(0.001 / carrier, 4);
});
