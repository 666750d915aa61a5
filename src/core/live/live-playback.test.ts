import { describe, expect, it } from "vitest";
import { PracticeDeck } from "@/core/simulator/practice-deck";
import type { TransportParameters } from "@/core/simulator/transport-parameters";
import { practiceTape } from "@/core/practice/practice-tape";
import { sectionName } from "@/core/programme/programme";
import type { Band, ReferenceTape } from "@/core/reference/reference-tape";
import { PERFECT_TRANSPORT } from "@/testing/perfect-transport";
import { LiveListening } from "./live-listening";
import type { PlaybackNow } from "@/core/playback/playback-now";
import { PeakHold } from "./peak-hold";
import { steadyFrames } from "./steady-frames";

const RATE = 48000;
const tone = (frequencyHz: number, seconds: number, fields: Partial<Band> = {}): Band => ({
  kind: "tone",
  role: "azimuth",
  frequencyHz,
  levelDb: -10,
  seconds,
  ...fields,
});
const TAPE: ReferenceTape = {
  format: "unzel-reference-tape",
  version: 1,
  id: "ladder",
  name: "ladder",
  speedCmPerS: 4.76,
  equalisation: "3180/120",
  frequencyUncertaintyPercent: 0.05,
  bands: [tone(315, 4), tone(1000, 4), tone(3150, 4), tone(10_000, 60)],
};

/** A deck that plays into the ear, a tenth of a second at a time. */
class Listening {
  readonly deck: PracticeDeck;
  readonly live: LiveListening;
  now: PlaybackNow | null = null;
  constructor(settings: Partial<TransportParameters>, tape = TAPE) {
    const parameters = { ...PERFECT_TRANSPORT, "noise.db": -75, "trimmer.backlashTurns": 0, ...settings };
    this.deck = new PracticeDeck({ parameters, sampleRateHz: RATE, tape: practiceTape(tape), seed: 2 });
    this.deck.press("play");
    this.live = new LiveListening({
      sampleRateHz: RATE,
      channelCount: 2,
      tape,
      speedFactor: 1,
      nominalHz: 3150,
      evidenceSeconds: 0,
    });
  }
  hear(seconds: number): PlaybackNow {
    for (let i = 0; i < 10 * seconds; i++) {
      this.live.push(this.deck.render(RATE / 10));
      this.now = this.live.result(false, "azimuth").playback ?? this.now;
    }
    return this.now!;
  }
}

/** Of phase at 10 kHz for each minute of arc, tracks 0.9 mm apart at 4.76 cm/s. */
const DEGREES_A_MINUTE = 19.8;

describe("the tones of a tape while it plays", () => {
  // 9′ is 178° at 10 kHz; 26′ is 515°, more than a cycle
  const bench = new Listening({ "head.azimuthArcMinutes": 26, "azimuth.arcMinutesPerTurn": 40 });

  it("the ladder counts the cycles of the highest tone", () => {
    const { phase, azimuth, tones } = bench.hear(22);
    expect(tones.map(({ index, fresh }) => [index, fresh])).toEqual([0, 1, 2, 3].map((i) => [i, true]));
    expect(azimuth!.tiltArcMinutes!).toBeCloseTo(26, 0);
    expect(phase!.degrees).toBeGreaterThan(505);
    expect(phase!.degrees).toBeLessThan(525);
    expect(phase).toMatchObject({ counted: true, settled: true });
  });

  it("a turn is followed through its cycles, though nobody says a word until it is done", () => {
    for (let i = 0; i < 10; i++) {
      bench.deck.playback.azimuthScrews[0].turn(-0.055);
      bench.hear(0.1);
    }
    bench.hear(1);
    expect(bench.now!.playing!.before!.phaseDegrees!).toBeGreaterThan(500);
    bench.live.mark();
    const { phase, tones, azimuth } = bench.hear(5);
    // 26′ − 0.55 turns of 40′ are 4′: 79°
    expect(phase!.degrees).toBeGreaterThan(70);
    expect(phase!.degrees).toBeLessThan(90);
    expect(phase).toMatchObject({ counted: true, settled: true });
    expect(tones.filter(({ fresh }) => fresh).map(({ index }) => index)).toEqual([3]);
    // the one tone that was heard since tells no cycles, but they were followed
    expect(azimuth).toMatchObject({ resolved: true, doubt: null });
    expect(azimuth!.tiltArcMinutes!).toBeCloseTo(4, 0);
  });

  it("a turn in silence leaves the cycles unknown, and says so", () => {
    bench.deck.press("stop");
    bench.hear(4);
    bench.live.mark();
    bench.deck.press("play");
    const { phase } = bench.hear(6);
    expect(phase).toMatchObject({ counted: false });
    expect(phase!.uncertaintyDegrees).toBeGreaterThan(180);
  });

  it("a leap that is too quick to be followed leaves them unknown, rather than a cycle wrong", () => {
    const leapt = new Listening({ "head.azimuthArcMinutes": 26, "azimuth.arcMinutesPerTurn": 40 });
    expect(leapt.hear(22).phase).toMatchObject({ counted: true });
    // a quarter of a turn of 40′ is 198° at 10 kHz: it looks like 162° the other way round
    leapt.deck.playback.azimuthScrews[0].turn(-0.25);
    leapt.hear(1);
    leapt.live.mark();
    const { phase } = leapt.hear(5);
    expect(phase).toMatchObject({ counted: false });
    expect(phase!.uncertaintyDegrees).toBeGreaterThan(180);
  });

  it("a turn with rests in it is followed too: what stood before it does not count its cycles anew", () => {
    const bands = [tone(1000, 3), tone(3150, 3), tone(6300, 3), tone(10_000, 60)];
    const resting = new Listening(
      { "head.azimuthArcMinutes": 26, "azimuth.arcMinutesPerTurn": 40 },
      { ...TAPE, bands },
    );
    expect(resting.hear(18).phase).toMatchObject({ counted: true });
    const from = resting.now!.phase!.degrees;
    const turns = 0.04;
    for (let done = 1; done <= 11; done++) {
      resting.deck.playback.azimuthScrews[0].turn(-turns);
      const { phase } = resting.hear(2.6);
      expect(phase!.counted).toBe(true);
      expect(Math.abs(phase!.degrees - (from - done * turns * 40 * DEGREES_A_MINUTE))).toBeLessThan(30);
    }
  });

  it("another direction begins with nothing", () => {
    bench.live.clearPlayback();
    bench.deck.press("stop");
    expect(bench.hear(3)).toMatchObject({ tones: [], phase: null });
  });
});

describe("bands of one frequency", () => {
  it("are told apart by their level when others were heard, else by what is wanted", () => {
    const bands = [
      tone(315, 5, { role: "level", levelDb: 0 }),
      tone(1000, 5),
      tone(315, 5, { role: "azimuth", levelDb: -20 }),
    ];
    const bench = new Listening({}, { ...TAPE, bands });
    expect(bench.hear(5).playing!.index).toBe(2);
    expect(bench.live.result(false, "azimuth").band).toMatchObject({
      index: 2,
      name: sectionName(bands[2]),
    });
    const { tones } = bench.hear(13);
    expect(tones.map(({ index }) => index)).toEqual([0, 1, 2]);
    const [first, , last] = tones.map(({ pair }) => pair.channels[0].levelDbfs);
    expect(first - last).toBeCloseTo(20, 0);
  });
});

describe("what stands and what wanders", () => {
  const frames = (levels: number[], phases = levels.map(() => 0)) => ({
    frequencyHz: 1000,
    seconds: levels.length / 10,
    channels: [
      { levelDbfs: 0, spreadDb: 0.05, uncertaintyDb: 0.01, track: Float64Array.from(levels), clipped: false },
    ],
    pair: {
      phaseDegrees: 0,
      spreadDegrees: 1,
      coherence: 1,
      uncertaintyDegrees: 1,
      isMono: false,
      track: Float64Array.from(phases),
    },
  });
  const flat = (count: number, level: number) => Array.from({ length: count }, () => level);

  it("a level that moved: only what came after belongs together", () => {
    expect(steadyFrames(frames([...flat(20, -12), ...flat(25, -10)]))).toBe(25);
    expect(steadyFrames(frames(flat(40, -12)))).toBe(40);
  });
  it("a phase that moved, the short way round", () => {
    const phases = [...flat(20, 150), ...flat(20, -170)];
    expect(steadyFrames(frames(flat(40, 0), phases))).toBe(20);
    expect(steadyFrames(frames(flat(40, 0), [...flat(20, 178), ...flat(20, -178)]))).toBe(40);
  });
  it("the peak hold takes a second of it, not a bump", () => {
    const hold = new PeakHold();
    expect(hold.level).toBe(-Infinity);
    hold.add([...flat(10, -20), -12, -12, ...flat(10, -20)]);
    expect(hold.level).toBe(-20);
    expect(hold.hasMoved).toBe(false);
    hold.add(flat(10, -18));
    hold.add(flat(30, -25));
    expect(hold.level).toBe(-18);
    expect(hold.hasMoved).toBe(true);
    hold.clear();
    hold.add(flat(10, -25));
    expect(hold.level).toBe(-25);
  });
});
