import { describe, expect, it } from "vitest";
import { playbackNumbers } from "@/core/playback/playback-numbers";
import { PracticeDeck } from "@/core/simulator/practice-deck";
import { responseCorridor } from "@/core/stations/response";
import { DEMO_MACHINES } from "@/core/practice/demo-machines";
import { practiceTape } from "@/core/practice/practice-tape";
import type { ReferenceTape } from "@/core/reference/reference-tape";
import { PERFECT_TRANSPORT } from "@/testing/perfect-transport";
import { LiveListening } from "./live-listening";
import type { PlaybackNow } from "@/core/playback/playback-now";
import { RecentSound } from "./recent-sound";

const RATE = 48000;
const TAPE: ReferenceTape = {
  format: "unzel-reference-tape",
  version: 1,
  id: "wide",
  name: "level, sweep and noise",
  speedCmPerS: 4.76,
  equalisation: "3180/120",
  frequencyUncertaintyPercent: 0.05,
  bands: [
    { kind: "tone", role: "level", frequencyHz: 315, levelDb: 0, seconds: 4 },
    {
      kind: "sweep",
      role: "response",
      frequencyHz: 40,
      toFrequencyHz: 12_500,
      levelDb: -20,
      seconds: 14,
    },
    { kind: "noise", role: "response", frequencyHz: 0, levelDb: -20, seconds: 16 },
  ],
};
const MACHINE = DEMO_MACHINES.find(({ id }) => id === "ellesby-c-1r")!;
const numbersOf = (now: PlaybackNow, wanted: "sweep" | "noise" | null = null) =>
  playbackNumbers({ tape: TAPE, machine: MACHINE, corridor: responseCorridor(MACHINE) }, now, null, wanted)
    .response;

describe("a sweep and noise while they play", () => {
  const parameters = { ...PERFECT_TRANSPORT, "noise.db": -75, "playback.rightT2ErrorPercent": -30 };
  const deck = new PracticeDeck({ parameters, sampleRateHz: RATE, tape: practiceTape(TAPE), seed: 2 });
  deck.press("play");
  const live = new LiveListening({
    sampleRateHz: RATE,
    channelCount: 2,
    tape: TAPE,
    speedFactor: 1,
    nominalHz: 3150,
    evidenceSeconds: 0,
  });
  let now: PlaybackNow | null = null;
  const hear = (seconds: number) => {
    for (let i = 0; i < 10 * seconds; i++) {
      live.push(deck.render(RATE / 10));
      now = live.result(false, "response").playback ?? now;
    }
    return now!;
  };

  it("a part of the sweep is a part of the curve, and it is said that more is to come", () => {
    const { from, channels, missing } = numbersOf(hear(16));
    expect(from).toBe("sweep");
    expect(missing).toEqual(["the sweep to its end"]);
    const highest = Math.max(...channels[0].points.map(({ frequencyHz }) => frequencyHz));
    expect(highest).toBeGreaterThan(200);
    expect(highest).toBeLessThan(12_000);
  });

  it("to its end it is the whole response of each channel, re the level band", () => {
    const { channels, missing, referenceHz } = numbersOf(hear(8), "sweep");
    expect([missing, referenceHz]).toEqual([[], 315]);
    const [left, right] = channels;
    left.points.forEach(({ levelDb }) => expect(Math.abs(levelDb)).toBeLessThan(0.1));
    // 84 µs instead of 120
    expect(right.judged.treble!.levelDb).toBeCloseTo(
      10 * Math.log10((1 + (0.062832 * 84) ** 2) / (1 + (0.062832 * 120) ** 2)) -
        10 * Math.log10((1 + (0.0019792 * 84) ** 2) / (1 + (0.0019792 * 120) ** 2)),
      1,
    );
  });

  it("noise that follows is what the response is read from then, the sweep when that is wanted", () => {
    const heard = hear(14);
    const noise = numbersOf(heard);
    expect(noise).toMatchObject({ from: "noise", sources: ["sweep", "noise"], missing: [] });
    for (const { frequencyHz, levelDb, uncertaintyDb } of noise.channels[0].points)
      expect(Math.abs(levelDb), `${frequencyHz} Hz`).toBeLessThan(2 * uncertaintyDb);
    expect(numbersOf(heard, "sweep").from).toBe("sweep");
  });

  it("after a turn both have to be heard anew", () => {
    const marks = live.mark();
    expect(live.mark()).toBe(marks + 1);
    const { missing, channels } = numbersOf(hear(1), "sweep");
    expect(missing).toEqual(["the sweep to its end"]);
    expect(channels[0].trebleFresh).toBe(false);
  });
});

describe("the sound that a live source remembers", () => {
  const filled = (pushed: number) => {
    const ring = new RecentSound(10, 1, 2);
    for (let i = 0; i < pushed; i += 7)
      ring.push([Float32Array.from({ length: Math.min(7, pushed - i) }, (_, k) => i + k)]);
    return ring;
  };

  it.each([
    [5, Infinity, [0, 1, 2, 3, 4]],
    [5, 0.2, [3, 4]],
    [33, 0.4, [29, 30, 31, 32]],
    [40, 0.3, [37, 38, 39]],
  ])("of %d samples the last %s seconds", (pushed, seconds, expected) => {
    expect([...filled(pushed).contents(seconds)[0]]).toEqual(expected);
  });

  it("all of it is what fits, oldest first", () => {
    expect([...filled(33).contents()[0]]).toEqual(Array.from({ length: 20 }, (_, i) => 13 + i));
    expect(new RecentSound(10, 2, 0).contents().map((x) => x.length)).toEqual([0, 0]);
  });
});
