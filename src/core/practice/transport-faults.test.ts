import { describe, expect, it } from "vitest";
import { explainTransport, NOTHING_KNOWN, type Explanation } from "@/core/advice/explain-transport";
import { findParts } from "@/core/advice/find-parts";
import { PRACTICE_CONDITIONS, PRACTICE_MACHINES, practiceMachine } from "@/core/simulator/practice-machines";
import { Transport } from "@/core/simulator/transport";
import type { Way } from "@/core/simulator/transport-faults";
import type { TransportParameters } from "@/core/simulator/transport-parameters";
import { speedOf } from "@/core/measure/speed";
import { transportEvents } from "@/core/measure/transport-events";
import { TOLERANCE_CLASSES } from "@/core/standards/tolerance-classes";
import { DEMO_MACHINES } from "./demo-machines";
import { practiceParts } from "./practice-parts";
import { sampled } from "@/core/dsp/sampled";

const RATE = 1600;
const FORWARDS: Way = { sideB: false, reverse: false };

/** What the transport does in a while, as a perfect demodulator would have it. */
function run(
  parameters: TransportParameters,
  { seconds = 90, way = FORWARDS, fromMm = 20_000, seed = 5 } = {},
) {
  const transport = new Transport(parameters, RATE, seed);
  transport.way = way;
  transport.tapeMm = fromMm;
  transport.run(new Float64Array(2 * RATE));
  const speeds = new Float64Array(seconds * RATE);
  transport.run(speeds);
  const deviation = speeds.map((speed) => speed - 1);
  return { deviation, rateHz: RATE };
}

function explained(id: string, settings: Partial<TransportParameters>, how = {}): Explanation[] {
  const { transport } = practiceMachine(id);
  const parameters = { ...transport, ...settings };
  const heard = run(parameters, how);
  const speed = speedOf(heard);
  const house = TOLERANCE_CLASSES[DEMO_MACHINES.find((m) => m.id === id)!.toleranceClass];
  return explainTransport({
    ...NOTHING_KNOWN,
    finding: findParts(heard, practiceParts(parameters), parameters.speedCmPerS),
    flutterLimitPercent: house.weightedPeakFlutterPercent,
    speedLimitPercent: house.speedErrorPercent,
    speedErrorPercent: speed.errorPercent,
    speedUncertaintyPercent: speed.uncertaintyPercent,
    driftPercentPerMinute: speed.driftPercentPerMinute,
    driftUncertainty: speed.driftUncertaintyPercentPerMinute,
    events: transportEvents(heard.deviation, RATE),
    watchedSeconds: heard.deviation.length / RATE,
  });
}
const settingsOf = (condition: string) => PRACTICE_CONDITIONS.find(({ id }) => id === condition)!.settings;

describe("a fault-free machine is not accused", () => {
  it.each(PRACTICE_MACHINES.map(({ id }) => id))("%s", (id) => {
    for (const seed of [1, 2, 3])
      expect(explained(id, { "warmUp.minutesSincePowerOn": 60 }, { seed })).toEqual([]);
  });
});

describe("each fault, set alone, is explained in the first place", () => {
  it.each<[string, RegExp, number?]>([
    ["slow-lumpy-belt", /^belt/],
    ["bent-capstan", /^capstan/],
    ["flat-roller", /^pinch roller/],
    ["worn-idler", /^idler/],
    ["bent-hub", /reel/],
    ["tugging-clutch", /^take-up reel/, 600],
    ["dry-bearing", /^dry bearing/],
    ["slipping-belt", /^slipping/],
    ["motor-cogging", /^motor/],
    ["scrape", /^scrape/],
    ["fast", /^runs fast/],
    ["cold", /^still warming up/],
  ])("%s", (condition, fault, seconds = 90) => {
    const [first] = explained("ellesby-c-1r", settingsOf(condition), { seconds });
    expect(first?.fault).toMatch(fault);
    expect(first.because).toMatch(/\d/);
    expect(first.cure.length).toBeGreaterThan(20);
  });

  it("one direction only: that direction's roller", () => {
    const settings = settingsOf("reverse-roller");
    expect(explained("ellesby-c-1r", settings)).toEqual([]);
    const [first] = explained("ellesby-c-1r", settings, { way: { sideB: true, reverse: true } });
    expect(first.fault).toBe("pinch roller");
  });

  it("sides that differ, and a speed that changes along the reel", () => {
    const { transport } = practiceMachine("ellesby-c-1r");
    const speed = (settings: object, how: object) =>
      speedOf(run({ ...transport, ...settings }, { seconds: 20, ...how })).errorPercent;
    const sides = settingsOf("sides-differ");
    const sideDifferencePercent = speed(sides, { way: { sideB: true, reverse: false } }) - speed(sides, {});
    expect(sideDifferencePercent).toBeCloseTo(-1, 1);
    const reel = settingsOf("hold-back");
    const reelDifferencePercent = speed(reel, { fromMm: 85_000 }) - speed(reel, { fromMm: 0 });
    expect(reelDifferencePercent).toBeCloseTo(-1.2, 0);
    const faults = explainTransport({ ...NOTHING_KNOWN, sideDifferencePercent, reelDifferencePercent });
    expect(faults.map(({ fault }) => fault).toSorted()).toEqual([
      "sides differ",
      "speed changes along the reel",
    ]);
  });
});

describe("events", () => {
  const steady = (i: number) => 0.001 * Math.sin(i / 60);
  const withBump = (from: number, seconds: number, depth: number) =>
    sampled(60 * RATE, (i) => {
      const u = (i / RATE - from) / seconds;
      return steady(i) + (u > 0 && u < 1 ? (depth / 2) * (1 - Math.cos(2 * Math.PI * u)) : 0);
    });

  it.each([
    ["slip", 20, 0.4, -0.05],
    ["surge", 33, 0.8, 0.03],
    ["tick", 41, 0.04, 0.03],
  ])("a %s is found with its time and size", (kind, at, seconds, depth) => {
    const [event, ...others] = transportEvents(withBump(at, seconds, depth), RATE, 100);
    expect(others).toEqual([]);
    expect(event.kind).toBe(kind);
    expect(Math.abs(event.atSeconds - 100 - at)).toBeLessThan(0.2);
    expect(Math.abs(event.percent! / 100 - depth)).toBeLessThan(0.3 * Math.abs(depth));
  });

  it("a stall is found where the tone is gone; steady flutter is no event, however large", () => {
    const stalled = withBump(0, 1, 0).map((v, i) => (i > 30 * RATE && i < 30.6 * RATE ? NaN : v));
    expect(transportEvents(stalled, RATE).map(({ kind }) => kind)).toEqual(["stall"]);
    const wow = sampled(60 * RATE, (i) => 0.02 * Math.sin((2 * Math.PI * i) / RATE));
    expect(transportEvents(wow, RATE)).toEqual([]);
    expect(transportEvents(new Float64Array(10), RATE)).toEqual([]);
  });
});
