import { describe, expect, it } from "vitest";
import type { PartFinding } from "./find-parts";
import { tickMeans } from "./tick-means";
import type { MachinePart } from "@/core/workshop/machine-part";

const round = (name: string, tapeDiameterMm: number): MachinePart => ({
  name,
  tapeDiameterMm,
  tolerancePercent: 1,
});
// at 4.76 cm/s: 5.05, 1.17 and 2.53 turns a second
const PARTS = [round("capstan", 3), round("pinch roller", 13), round("idler", 6)];
const GEOMETRY = { parts: PARTS, speedCmPerS: 4.76, firstSpeedCmPerS: 4.76 };
const tick = (rateHz: number) => ({ rateHz, uncertaintyHz: 0.005, ticks: 40, share: 0.95 });
const finding = (rateHz: number, sharePercent: number): PartFinding => ({
  parts: [],
  unexplained: [{ rateHz, peakPercent: 0.1, sharePercent, hint: null }],
  totalRmsPercent: 0.1,
  restRmsPercent: { wander: 0, rough: 0, scrape: 0 },
  spectrum: [],
  seconds: 30,
  resolutionHz: 0.05,
  warnings: [],
});

describe("what a tick is of", () => {
  it.each([
    [5.05, "capstan", 1],
    [1.166, "pinch roller", 1],
    [2.53, "idler", 1],
    [3.5, "pinch roller", 3],
  ])("%d a second is the %s, %d a turn", (rateHz, name, ticksATurn) => {
    expect(tickMeans(tick(rateHz), GEOMETRY, null).parts[0]).toEqual({ name, ticksATurn });
  });

  it("another part that would do is named beside it", () => {
    const { says } = tickMeans(tick(5.05), GEOMETRY, null);
    expect(says).toContain("fits capstan;");
    expect(says).toContain("idler, twice a turn");
  });

  it("fits nothing where nothing turns so, and says what is wanted without parts", () => {
    expect(tickMeans(tick(0.7), GEOMETRY, null).says).toContain("fits no part");
    expect(tickMeans(tick(0.7), { ...GEOMETRY, parts: [] }, null).says).toContain("no parts written down");
  });

  it.each<[string, PartFinding | null, RegExp]>([
    ["has it too", finding(2.54, 30), /flutter has 30 % of its power there too/],
    ["has it elsewhere", finding(1.2, 30), /nothing there/],
    ["has a trace of it", finding(2.54, 1), /nothing there/],
    ["was not heard", null, /Play the speed tone/],
  ])("flutter %s", (_, found, says) => {
    expect(tickMeans(tick(2.53), GEOMETRY, found).says).toMatch(says);
  });
});
