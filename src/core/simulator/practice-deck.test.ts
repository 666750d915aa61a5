import { describe, expect, it } from "vitest";
import { findParts } from "@/core/advice/find-parts";
import { flutterOf } from "@/core/measure/flutter";
import { LiveTransport, changePoint } from "@/core/measure/live-transport";
import { TransportMeter } from "@/core/measure/transport-meter";
import { PERFECT_TRANSPORT } from "@/testing/perfect-transport";
import { PracticeDeck } from "./practice-deck";
import { PRACTICE_CONDITIONS, practiceMachine } from "./practice-machines";
import { PARAMETER_RANGES, parameterSetting, type TransportParameters } from "./transport-parameters";
import { Trimmer } from "./trimmer";
import { sampled } from "@/core/dsp/sampled";

const RATE = 32_000;
const deckWith = (settings: Partial<TransportParameters>) =>
  new PracticeDeck({ parameters: { ...PERFECT_TRANSPORT, ...settings }, toneHz: 3150, sampleRateHz: RATE });

function measured(settings: Partial<TransportParameters>, seconds = 20, turns = 0) {
  const deck = deckWith(settings);
  deck.transport.trimmers[0].turn(turns);
  const meter = new TransportMeter(RATE, 2, 3150);
  for (let i = 0; i < seconds; i++) meter.push(deck.render(RATE));
  return { speed: meter.speed(0).result!, flutter: meter.flutter(0).result!, levels: meter };
}

describe("the closed loop: what is set is what is measured", () => {
  it.each([-14, -2, -0.1, 0, 0.5, 5])("speed error %f %%", (errorPercent) => {
    expect(measured({ "speed.errorPercent": errorPercent }, 4).speed.errorPercent).toBeCloseTo(
      errorPercent,
      5,
    );
  });

  it("a turn of the trimmer, less half the slack from the middle", () => {
    const { speed } = measured({ "speed.errorPercent": -2, "trimmer.backlashTurns": 0.04 }, 4, 0.25);
    expect(speed.errorPercent).toBeCloseTo(-2 + 8 * (0.25 - 0.02), 5);
  });

  it.each([
    ["capstan", { "capstan.eccentricityPercent": 0.2 }, 47.6 / (Math.PI * 2.5)],
    ["pinch roller", { "pinchRoller.eccentricityPercent": 0.2 }, 47.6 / (Math.PI * 11)],
    ["motor", { "motor.cogPercent": 0.2 }, (6.7 * 47.6) / (Math.PI * 2.5)],
  ] as const)("an eccentric %s: its rate and its peak", (_, settings, rateHz) => {
    const [line] = measured(settings).flutter.components;
    expect(line.rateHz / rateHz).toBeCloseTo(1, 3);
    expect(line.peakPercent / 0.2).toBeCloseTo(1, 2);
  });

  it("a belt lump: a comb at the belt's rate", () => {
    const { components } = measured({ "belt.lumpPercent": 0.5 }).flutter;
    const rateHz = (47.6 / (Math.PI * 2.5)) * ((Math.PI * 40) / 230);
    const rates = components.map((c) => c.rateHz).sort((a, b) => a - b);
    rates.slice(0, 5).forEach((rate, i) => expect(rate / ((i + 1) * rateHz)).toBeCloseTo(1, 2));
  });

  it("reels whose rates move as the tape is wound", () => {
    const { components } = measured({ "reel.eccentricityPercent": 0.3 }, 30).flutter;
    const rates = components
      .slice(0, 2)
      .map((c) => c.rateHz)
      .sort((a, b) => a - b);
    expect(rates[0]).toBeCloseTo(47.6 / (2 * Math.PI * 25), 1); // supply, full
    expect(rates[1]).toBeCloseTo(47.6 / (2 * Math.PI * 11), 1); // take-up, empty
  });

  it("warm-up as drift", () => {
    const { speed } = measured(
      { "warmUp.percent": -1, "warmUp.minutes": 5, "warmUp.minutesSincePowerOn": 0 },
      20,
    );
    expect(speed.driftPercentPerMinute / (1 / 5)).toBeCloseTo(1, 1);
  });

  it("scrape flutter of the RMS that was asked for, where the meters reach it", () => {
    const { flutter } = measured({ "scrape.percent": 0.1, "scrape.rateHz": 60 });
    expect(flutter.unweighted.rmsPercent / 0.1).toBeGreaterThan(0.85);
    expect(flutter.unweighted.rmsPercent / 0.1).toBeLessThan(1.15);
  });

  it("nothing, on a perfect transport", () => {
    expect(measured({}).flutter.unweighted.peakPercent).toBeLessThan(0.0005);
  });
});

it("gives the same sound for the same seed and another for another", () => {
  const render = (seed: number) =>
    new PracticeDeck({
      parameters: practiceMachine("tarnvik-t-2").transport,
      toneHz: 3150,
      sampleRateHz: RATE,
      seed,
    }).render(2000)[0];
  expect(render(3)).toEqual(render(3));
  expect(render(3)).not.toEqual(render(4));
});

it("has only conditions and machines whose parameters are in range", () => {
  for (const { settings } of PRACTICE_CONDITIONS)
    for (const [path, value] of Object.entries(settings))
      expect(() => parameterSetting(path, value)).not.toThrow();
  for (const path of Object.keys(PARAMETER_RANGES))
    expect(() => parameterSetting(path, PERFECT_TRANSPORT[path as keyof TransportParameters])).not.toThrow();
  expect(() => parameterSetting("capstan.colour", 1)).toThrow(/no parameter/);
  expect(() => parameterSetting("speed.errorPercent", 99)).toThrow(/-14 to 14 %/);
});

describe("trimmer", () => {
  it("moves nothing within its slack and stops at its stops", () => {
    const trimmer = new Trimmer(0.1, 1);
    trimmer.turn(0.5);
    expect(trimmer.spindleTurns).toBeCloseTo(0.45, 12);
    trimmer.turn(-0.1);
    expect(trimmer.spindleTurns).toBeCloseTo(0.45, 12);
    trimmer.turn(-0.1);
    expect(trimmer.spindleTurns).toBeCloseTo(0.35, 12);
    expect(trimmer.turn(9)).toBeLessThan(1);
    expect(trimmer.spindleTurns).toBe(1);
    expect(trimmer.atStop).toBe(true);
  });
});

describe("live readings of a deck", () => {
  it("settle, follow a turn at once, and remember what was before", () => {
    const deck = deckWith({ "speed.errorPercent": -2 });
    const live = new LiveTransport(RATE, 2, 3150);
    const run = (seconds: number) => {
      for (let i = 0; i < 10 * seconds; i++) {
        live.push(deck.render(RATE / 10));
        live.result(false);
      }
      return live.result(false);
    };
    const before = run(5).speed!;
    expect(before.settled).toBe(true);
    expect(before.errorPercent).toBeCloseTo(-2, 3);
    deck.transport.trimmers[0].turn(0.2);
    const during = run(1).speed!;
    expect(during.settled).toBe(false);
    expect(during.instantPercent).toBeCloseTo(-2 + 8 * 0.185, 2);
    expect(during.beforeChange?.errorPercent).toBeCloseTo(-2, 2);
    const after = run(4).speed!;
    expect(after.settled).toBe(true);
    expect(after.errorPercent).toBeCloseTo(-2 + 8 * 0.185, 3);
  });

  it("say within a second that the tone has stopped", () => {
    const live = new LiveTransport(RATE, 2, 3150);
    const deck = deckWith({});
    for (let i = 0; i < 30; i++) live.push(deck.render(RATE / 10));
    expect(live.result(true).speed).not.toBeNull();
    for (let i = 0; i < 10; i++) live.push([new Float64Array(RATE / 10), new Float64Array(RATE / 10)]);
    const result = live.result(true);
    expect(result.speed).toBeNull();
    expect(result.flutter).toBeNull();
    expect(result.channels[0].problem).toMatch(/stopped|silence/);
  });

  it("give flutter soon after a turn that changed the speed by more than a percent", () => {
    const deck = deckWith({ "speed.errorPercent": -3, "capstan.eccentricityPercent": 0.1 });
    const live = new LiveTransport(RATE, 2, 3150);
    const run = (seconds: number) => {
      for (let i = 0; i < 10 * seconds; i++) {
        live.push(deck.render(RATE / 10));
        live.result(true);
      }
      return live.result(true);
    };
    run(20);
    deck.transport.trimmers[0].turn(0.4);
    run(4);
    live.mark();
    // the steady stretch before the turn is still the longer one, but it has ended
    const soon = run(5);
    expect(soon.channels.map(({ problem }) => problem)).toEqual([null, null]);
    expect(soon.flutter).not.toBeNull();
    const after = run(7);
    expect(after.channels.map(({ problem }) => problem)).toEqual([null, null]);
    expect(after.flutter!.settled).toBe(true);
    expect(after.flutter!.unweighted.rmsPercent).toBeCloseTo(0.1 * Math.SQRT1_2, 2);
  });

  it("show the flutter that the file meters show", () => {
    const deck = deckWith({ "capstan.eccentricityPercent": 0.2 });
    const live = new LiveTransport(RATE, 2, 3150);
    for (let i = 0; i < 200; i++) live.push(deck.render(RATE / 10));
    const { flutter } = live.result(true);
    expect(flutter!.settled).toBe(true);
    expect(flutter!.unweighted.rmsPercent).toBeCloseTo(0.2 * Math.SQRT1_2, 2);
    const points = findParts(live.remembered()!, [], 4.76).spectrum;
    expect(Math.max(...points.map(({ percent }) => percent))).toBeCloseTo(0.2, 2);
    expect(points[0].rateHz).toBeLessThan(0.1);
  });
});

it("finds a step among scattered means and none where there is none", () => {
  const calm = [1, 2, -1, 0, 1, -2, 1, 0].map((v) => v * 1e-4);
  expect(changePoint(calm)).toBeNull();
  expect(changePoint([...calm.slice(0, 4), ...calm.slice(4).map((v) => v + 0.01)])).toBe(4);
});

it("measures flutter of a stretch without looking at its mean", () => {
  const deviation = sampled(40000, (i) => 0.1 + 0.001 * Math.sin((2 * Math.PI * 4 * i) / 2000));
  expect(flutterOf({ deviation, rateHz: 2000 }).weighted.rmsPercent).toBeCloseTo(
    (0.1 * Math.SQRT1_2) / 1.1,
    4,
  );
});
