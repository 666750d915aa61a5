import { describe, expect, it } from "vitest";
import { SeededRandom } from "@/core/dsp/seeded-random";
import { whiteNoise } from "@/testing/fm-tone";
import { matchRecordings, MatchSound } from "./match-recordings";

const RATE = 16000;

/** Plucked notes of a scale at uneven times, a closed form of time so that any speed of it can be written. */
function piece(seed: number, seconds: number): (t: number) => number {
  const random = new SeededRandom(seed);
  const notes: Array<{ at: number; hz: number; loud: number; overtones: number[] }> = [];
  for (let at = 0; at < seconds; at += 0.12 + 0.3 * random.uniform())
    notes.push({
      at,
      hz: 196 * 2 ** (Math.floor(24 * random.uniform()) / 12),
      loud: 0.3 + 0.7 * random.uniform(),
      overtones: [1, random.uniform(), 0.6 * random.uniform(), 0.4 * random.uniform()],
    });
  return (t) => {
    let sum = 0;
    for (const { at, hz, loud, overtones } of notes) {
      const since = t - at;
      if (since < 0 || since > 0.8) continue;
      const envelope = loud * Math.min(1, since / 0.008) * Math.exp(-since / 0.25);
      overtones.forEach((a, h) => (sum += envelope * a * Math.sin(2 * Math.PI * hz * (h + 1) * since)));
    }
    return 0.15 * sum;
  };
}

function heard(
  music: (t: number) => number,
  seconds: number,
  timeOf = (t: number) => t,
  rate = RATE,
): MatchSound {
  const sound = new MatchSound(rate);
  sound.push([Float64Array.from({ length: seconds * rate }, (_, i) => music(timeOf(i / rate)))]);
  return sound;
}

describe("a recording against another copy of it", () => {
  const music = piece(5, 40);
  const original = heard(music, 30);

  it.each([-8, -3.1, 0, 1.37, 8])("at %f % speed, started elsewhere, with wow and noise", (percent) => {
    const ratio = 1 + percent / 100;
    const noise = whiteNoise(22 * RATE, 0.002, 9);
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
    const match = matchRecordings(heard(music, 20, drift, 22050), original);
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
    expect(refused(heard(piece(77, 30), 25), original)).toMatch(/not two copies/);
    expect(
      refused(
        heard((t) => Math.sin(2000 * t), 20),
        original,
      ),
    ).toMatch(/not two copies/);
    expect(
      refused(
        heard(() => 0, 20),
        original,
      ),
    ).toMatch(/silent/);
    expect(refused(heard(music, 2), original)).toMatch(/shorter than 4 s/);
  });
});
