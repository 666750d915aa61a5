import { describe, expect, it } from "vitest";
import { fmTone, whiteNoise } from "@/testing/fm-tone";
import { humSpeedOf } from "./hum-speed";
import { tuningOf } from "./tuning";
import { warmUpOf } from "./warm-up";
import { MOST_SPECTRA, MOST_STEPS, WatchLog } from "./watch-log";

const moment = (speedPercent: number | null) => ({ speedPercent, flutterPercent: 0.1, levelDb: -12 });

describe("the log of a long run", () => {
  it("keeps means at even steps, nothing where there was no tone", () => {
    const log = new WatchLog(10);
    for (let t = 10; t < 20; t += 0.1) log.add(t, moment(t < 15 ? 1 : null));
    const { stepSeconds, speedPercent, startSeconds } = log.snapshot;
    expect([startSeconds, stepSeconds]).toEqual([10, 0.5]);
    expect(speedPercent[0]).toBeCloseTo(1, 9);
    expect(speedPercent.at(-1)).toBeNull();
  });

  it("stays bounded however long it runs, and keeps its ends", () => {
    const log = new WatchLog(0);
    for (let t = 0; t < 4 * 3600; t += 0.25) log.add(t, moment(t / 3600));
    const { speedPercent, stepSeconds } = log.snapshot;
    expect(speedPercent.length).toBeLessThan(MOST_STEPS);
    expect(speedPercent.length * stepSeconds).toBeGreaterThan(4 * 3600 - 2 * stepSeconds);
    expect(speedPercent.at(-1)).toBeCloseTo(4, 2);
  });

  it("keeps spectra of the whole run, bounded, with every line in its place", () => {
    const log = new WatchLog(0);
    for (let n = 0; n < 5 * MOST_SPECTRA; n++)
      log.addSpectrum([
        { rateHz: 6.06, percent: n === 700 ? 0.9 : 0.1 },
        { rateHz: 0.05, percent: 3 },
      ]);
    const { spectra } = log.snapshot;
    expect(spectra.length).toBeLessThan(MOST_SPECTRA);
    expect(Math.max(...spectra.flat())).toBe(0.9);
    const place = Math.floor((60 * Math.log(6.06 / 0.2)) / Math.log(1000));
    for (const row of spectra) expect(row.findIndex((v) => v > 0)).toBe(place);
    const loud = spectra.findIndex((row) => row[place] === 0.9) / spectra.length;
    expect(loud).toBeCloseTo(700 / (5 * MOST_SPECTRA), 1);
  });

  it.each([0, 30])("is gone on with after %d s that nobody heard", (missedSeconds) => {
    const first = new WatchLog(100);
    for (let t = 100; t < 160; t += 0.1) first.add(t, moment(1));
    first.addEvents([{ kind: "slip", atSeconds: 130, seconds: 0.4, percent: -4 }]);
    const before = first.snapshot;
    const log = new WatchLog(5, { track: before, missedSeconds });
    for (let t = 5; t < 25; t += 0.1) log.add(t, moment(2));
    const { startSeconds, stepSeconds, speedPercent, events, missed } = log.snapshot;
    const length = stepSeconds * speedPercent.length;
    expect(Math.abs(length - (80 + missedSeconds))).toBeLessThan(1.1);
    expect(speedPercent[10]).toBeCloseTo(1, 9);
    expect(speedPercent.at(-1)).toBeCloseTo(2, 9);
    expect(speedPercent.filter((value) => value === null)).toHaveLength(missedSeconds / stepSeconds);
    // half a minute after the beginning, on whatever clock
    expect(events[0].atSeconds - startSeconds).toBeCloseTo(30, 9);
    expect(missed.reduce((sum, { fromSeconds, toSeconds }) => sum + toSeconds - fromSeconds, 0)).toBeCloseTo(
      missedSeconds,
      9,
    );
    // what was kept of it before is as it was
    expect(before.speedPercent).toHaveLength(first.snapshot.speedPercent.length);
  });

  it("lists an event once, and a tone that goes and comes back as a stall", () => {
    const log = new WatchLog(0);
    const slip = { kind: "slip" as const, atSeconds: 3, seconds: 0.4, percent: -4 };
    for (let t = 0; t < 10; t += 0.1) {
      log.add(t, moment(t > 5 && t < 6 ? null : 0));
      if (t > 4) log.addEvents([{ ...slip, atSeconds: 3 + 0.05 * Math.sin(t) }]);
    }
    expect(log.snapshot.events.map(({ kind }) => kind)).toEqual(["slip", "stall"]);
    expect(log.snapshot.events[1].seconds).toBeCloseTo(1, 0);
  });
});

describe("warm-up", () => {
  const curve = (minutes: number, tau: number) =>
    Array.from(
      { length: minutes * 120 },
      (_, i) => -1.5 * Math.exp(-i / 120 / tau) + 0.3 + 0.01 * Math.sin(i),
    );

  it("tells where the speed is heading and how long it takes", () => {
    const found = warmUpOf(curve(6, 4), 0.5, 0.05)!;
    expect(found.timeConstantMinutes).toBeCloseTo(4, 0);
    expect(found.endsAtPercent).toBeCloseTo(0.3, 1);
    // 1.5·e^(−6/4) is left; ln(0.335/0.05) time constants more
    expect(found.minutesToGo).toBeCloseTo(4 * Math.log((1.5 * Math.exp(-1.5)) / 0.05), 0);
  });

  it("is over when little is left, and not seen in a steady speed or in a short run", () => {
    expect(warmUpOf(curve(30, 4), 0.5, 0.05)!.minutesToGo).toBe(0);
    expect(
      warmUpOf(
        Array.from({ length: 600 }, (_, i) => 0.01 * Math.sin(i)),
        0.5,
        0.05,
      ),
    ).toBeNull();
    expect(warmUpOf(curve(0.5, 4), 0.5, 0.05)).toBeNull();
  });
});

describe("speed from what is on the tape", () => {
  const RATE = 8000;

  it.each([-4, 0.8, 3])(
    "mains hum of a recording that runs %f %% wrong, beside the player's own",
    (percent) => {
      const hum = fmTone(40, RATE, 50 * (1 + percent / 100), [], 0.02);
      const own = fmTone(40, RATE, 50, [], 0.03);
      const noise = whiteNoise(40 * RATE, 0.01);
      const heard = humSpeedOf(
        Float32Array.from(hum, (v, i) => v + own[i] + noise[i]),
        RATE,
        50,
      );
      expect(heard.speedErrorPercent).toBeCloseTo(percent, 1);
      expect(heard.uncertaintyPercent).toBeGreaterThanOrEqual(0.2);
    },
  );

  it("no hum but the player's own, and none at all: no answer", () => {
    const own = fmTone(40, RATE, 50, [], 0.03);
    expect(humSpeedOf(Float32Array.from(own), RATE, 50).speedErrorPercent).toBeNull();
    expect(humSpeedOf(Float32Array.from(whiteNoise(20 * RATE, 0.01)), RATE, 60).speedErrorPercent).toBeNull();
  });

  /** A slow chord sequence of plain tones on equal temperament. */
  function organ(percent: number): Float32Array {
    const chords = [
      [57, 61, 64],
      [62, 66, 69],
      [59, 62, 66],
      [64, 68, 71],
    ];
    const out = new Float32Array(24 * RATE);
    chords.forEach((chord, c) => {
      for (const note of chord) {
        const hz = 440 * 2 ** ((note - 69) / 12) * (1 + percent / 100);
        for (let i = 0; i < 6 * RATE; i++)
          out[c * 6 * RATE + i] += 0.1 * Math.sin((2 * Math.PI * hz * i) / RATE);
      }
    });
    return out;
  }

  it.each([-2.2, 0, 1.1])("sustained notes played %f %% wrong, as well as players tune", (percent) => {
    const tuning = tuningOf(organ(percent), RATE);
    expect(Math.abs(tuning.speedErrorPercent! - percent)).toBeLessThan(0.05);
    expect(tuning.uncertaintyPercent).toBeGreaterThan(0.5);
  });

  it("a semitone off sounds right: it is known within a semitone only", () => {
    expect(Math.abs(tuningOf(organ(100 * (2 ** (1 / 12) - 1)), RATE).speedErrorPercent!)).toBeLessThan(0.05);
  });

  it("noise has no tuning", () => {
    expect(tuningOf(Float32Array.from(whiteNoise(20 * RATE, 0.1)), RATE).speedErrorPercent).toBeNull();
  });
});
