import { describe, expect, it } from "vitest";
import { whiteNoise } from "@/testing/fm-tone";
import { pluckedNotes } from "@/testing/plucked-notes";
import { matchRecordings, MatchSound } from "./match-recordings";
import { sampled } from "@/core/dsp/sampled";

const RATE = 8000;

function heard(
  music: (t: number) => number,
  seconds: number,
  timeOf = (t: number) => t,
  rate = RATE,
): MatchSound {
  const sound = new MatchSound(rate);
  sound.push([sampled(seconds * rate, (i) => music(timeOf(i / rate)))]);
  return sound;
}

describe("a recording against another copy of it", () => {
  const music = pluckedNotes(5, 40);
  const original = heard(music, 20);

  it.each([-8, -3.1, 0, 1.37, 8])("at %f % speed, started elsewhere, with wow and noise", (percent) => {
    const ratio = 1 + percent / 100;
    const noise = whiteNoise(14 * RATE, 0.002, 9);
    const wow = (t: number) => (0.002 / (2 * Math.PI)) * Math.sin(2 * Math.PI * t);
    const copy = new MatchSound(RATE);
    copy.push([noise.map((n, i) => n + 0.4 * music(2 + ratio * (i / RATE + wow(i / RATE))))]);
    const match = matchRecordings(copy, original);
    expect(match.confidence).toBeGreaterThan(0.8);
    expect(Math.abs(match.speedErrorPercent! - percent)).toBeLessThan(0.02);
    expect(Math.abs(match.speedErrorPercent! - percent)).toBeLessThan(2 * match.uncertaintyPercent! + 0.003);
    expect(match.offsetSeconds).toBeCloseTo(2, 2);
  });

  it("at another sample rate and fading in speed: the mean, and the wander", () => {
    const drift = (t: number) => 1 + t + 0.5e-3 * ((t * t) / 20 - t);
    const match = matchRecordings(heard(music, 14, drift, 22050), original);
    expect(Math.abs(match.speedErrorPercent!)).toBeLessThan(0.02);
    expect(match.wander.at(-1)!.percent - match.wander[0].percent).toBeGreaterThan(0.03);
  });

  it("refuses strangers, silence and scraps with the reason", () => {
    const refused = (a: MatchSound, b: MatchSound) => {
      const match = matchRecordings(a, b);
      expect(match.speedErrorPercent).toBeNull();
      expect(match.confidence).toBeLessThan(0.5);
      return match.warnings.join();
    };
    expect(refused(heard(pluckedNotes(77, 30), 14), original)).toMatch(/not two copies/);
    expect(
      refused(
        heard((t) => Math.sin(2000 * t), 14),
        original,
      ),
    ).toMatch(/not two copies/);
    expect(
      refused(
        heard(() => 0, 14),
        original,
      ),
    ).toMatch(/silent/);
    expect(refused(heard(music, 2), original)).toMatch(/shorter than 4 s/);
  });
});
