import { describe, expect, it } from "vitest";
import { SeededRandom } from "@/core/dsp/seeded-random";
import { BlankingWatch, type BlankingChannel } from "./blanking";

const RATE = 16_000;

/** Levels in dBFS of a programme and of noise, by seconds from the beginning. */
interface Sound {
  seconds: number;
  programmeDbfs: (t: number) => number;
  noiseDbfs?: number;
  hz?: number | null;
}

function heard({ seconds, programmeDbfs, noiseDbfs = -62, hz = null }: Sound): BlankingChannel | null {
  const random = new SeededRandom(7);
  const watch = new BlankingWatch(RATE, 1);
  const x = Float32Array.from({ length: seconds * RATE }, (_, i) => {
    const t = i / RATE;
    // syllables of noise, or a tone
    const wave =
      hz === null
        ? ((0.6 + 0.4 * Math.sin(2 * Math.PI * 3 * t)) / Math.sqrt(0.44)) * random.normal()
        : Math.SQRT2 * Math.sin(2 * Math.PI * hz * t);
    return 10 ** (programmeDbfs(t) / 20) * wave + 10 ** (noiseDbfs / 20) * random.normal();
  });
  for (let i = 0; i < x.length; i += 1600) watch.push([x.subarray(i, i + 1600)]);
  return watch.result[0];
}
const falls =
  (at: number, to: number, within = 0.02) =>
  (t: number) =>
    t < at ? -20 : Math.max(to, -20 - ((t - at) / within) * 20);

describe("a blanking test", () => {
  it("tells how far the old programme goes down, and how fast", () => {
    const { blanked } = heard({ seconds: 12, programmeDbfs: falls(5, -120) })!;
    expect(Math.abs(blanked!.downDb - 42)).toBeLessThan(1.5);
    expect(blanked!.fallSeconds).toBeLessThan(0.25);
    expect(Math.abs(blanked!.quietSeconds - 7)).toBeLessThan(0.2);
    expect(blanked).toMatchObject({ moves: false, toneDownDb: null, cameBack: false });
  });

  it("an oscillator that takes a second to swing is heard as a slow fall", () => {
    const { blanked } = heard({ seconds: 12, programmeDbfs: falls(5, -120, 0.6) })!;
    expect(blanked!.fallSeconds).toBeGreaterThan(0.6);
    expect(blanked!.fallSeconds).toBeLessThan(1.8);
  });

  it("programme that is left moves; noise does not", () => {
    expect(heard({ seconds: 12, programmeDbfs: falls(5, -50) })!.blanked!.moves).toBe(true);
    expect(heard({ seconds: 12, programmeDbfs: falls(5, -120) })!.blanked!.moves).toBe(false);
  });

  it.each([
    [-72, 52],
    [-75, 55],
    [-120, null],
  ])("a tone of which %f dBFS is left is read under the noise", (left, downDb) => {
    const { toneDownDb } = heard({ seconds: 14, programmeDbfs: falls(5, left), hz: 1000 })!.blanked!;
    if (downDb === null) expect(toneDownDb).toBeNull();
    else expect(Math.abs(toneDownDb! - downDb)).toBeLessThan(1.5);
  });

  it("a pause of a second and a half is no end of it, nor is a programme that goes on 10 dB down", () => {
    expect(heard({ seconds: 12, programmeDbfs: (t) => (t > 5 && t < 6.5 ? -120 : -20) })!.blanked).toBeNull();
    expect(heard({ seconds: 12, programmeDbfs: (t) => (t > 5 ? -30 : -20) })!.blanked).toBeNull();
  });

  it("the end of the recorded silence is not counted into it", () => {
    const { blanked } = heard({ seconds: 16, programmeDbfs: (t) => (t > 5 && t < 12 ? -120 : -20) })!;
    expect(blanked).toMatchObject({ cameBack: true, moves: false });
    expect(Math.abs(blanked!.quietSeconds - 7)).toBeLessThan(0.5);
  });

  it("silence from the beginning is no test, and hum is no programme", () => {
    expect(heard({ seconds: 8, programmeDbfs: () => -120 })).toBeNull();
    expect(heard({ seconds: 8, programmeDbfs: () => -20, hz: 50 })).toBeNull();
  });
});
