import { describe, expect, it } from "vitest";
import { soundInMemory, type SoundFile } from "@/core/formats/sound-file";
import type { TransportMeter } from "@/core/measure/transport-meter";
import { whiteNoise } from "@/testing/fm-tone";
import { largestDifference } from "@/testing/largest-difference";
import { sineWave } from "@/testing/sine-wave";
import { measureStretches } from "./measure-stretches";
import { readingsOf, transportMeterOf, transportOfFile } from "./transport-of-file";

const RATE_HZ = 800;
const NOMINAL_HZ = 200;
const LONG_SECONDS = 1830;
/** A block of sound that never arrived, seconds. */
const LOST = { from: 700, to: 700.05 };

const LEVEL = 0.3;

const tone = (length: number, hz: number) => sineWave(length, hz / RATE_HZ).map((v) => LEVEL * v);

const NOISE = whiteNoise(20 * RATE_HZ, 1, 5);
const TONES = [1.005, 1.004].map((speed) => tone(LONG_SECONDS * RATE_HZ, NOMINAL_HZ * speed));

/** Tones too long for their channels to be followed together; the noise in one of them makes it the worse. */
function longTone(noisy: 0 | 1): SoundFile {
  const channels = TONES.map((steady, channel) => {
    const rms = channel === noisy ? 0.02 : 0.002;
    const heard = new Float32Array(steady.map((v, i) => v + rms * NOISE[i % NOISE.length]));
    return heard.fill(0, LOST.from * RATE_HZ, LOST.to * RATE_HZ);
  });
  return soundInMemory(channels, RATE_HZ);
}

const GOOD_LEFT = longTone(1);
const GOOD_RIGHT = longTone(0);

/** The same, and how often it was read. */
function counted(sound: SoundFile) {
  const reads = { begun: 0 };
  const blocks = () => {
    reads.begun++;
    return sound.blocks();
  };
  return { sound: { ...sound, blocks }, reads };
}

/** All that speed and flutter are told from, and the speed. */
function toldOf(meter: TransportMeter, channel: number) {
  const { stretch, ...tone } = meter.tone(channel);
  const { deviation, amplitude, ...rest } = stretch!;
  return {
    figures: { tone, rest, speed: meter.speed(channel) },
    deviation: deviation.slice(),
    amplitude: amplitude.slice(),
  };
}

describe("speed and flutter of a file", () => {
  it("of half an hour is read once for all channels, of more once for each", () => {
    expect(readingsOf(1800, 2)).toEqual([[0, 1]]);
    expect(readingsOf(1801, 3)).toEqual([[0], [1], [2]]);
    expect(readingsOf(7200, 1)).toEqual([[0]]);
  });

  it("are the same whether the channels are followed together or one by one", async () => {
    const { sound, reads } = counted(GOOD_LEFT);
    let alongside = 0;
    const shares: number[] = [];
    const one = await transportOfFile(sound, NOMINAL_HZ, toldOf, {
      alongside: (block) => (alongside += block[0].length),
      onProgress: (share) => shares.push(share),
    });
    expect(reads.begun).toBe(2);
    expect(alongside).toBe(sound.frameCount);
    expect(shares).toEqual(shares.toSorted((a, b) => a - b));
    expect(shares.at(-1)).toBe(1);

    const together = transportMeterOf(sound, NOMINAL_HZ, LONG_SECONDS, [0, 1]);
    for await (const block of sound.blocks()) together.push(block);
    together.finish();
    expect(one.map(({ figures }) => figures.speed.result?.channel)).toEqual(["left", "right"]);
    for (const [c, { figures, deviation, amplitude }] of one.entries()) {
      const other = toldOf(together, c);
      expect(figures).toEqual(other.figures);
      expect(deviation.length).toBe(other.deviation.length);
      expect(largestDifference(deviation, other.deviation)).toBe(0);
      expect(largestDifference(amplitude, other.amplitude)).toBe(0);
      expect(figures.speed.result?.errorPercent).toBeCloseTo([0.5, 0.4][c], 3);
    }
  });

  it("know a hole in all channels where only one of them is followed", () => {
    const [rate, hz] = [8000, 3000];
    const bridged = (silent: readonly number[]) => {
      const meter = transportMeterOf({ sampleRateHz: rate, channelCount: 2 }, hz, 20, [1]);
      const block = [0, 1].map((c) => {
        const steady = new Float32Array(sineWave(20 * rate, hz / rate));
        return silent.includes(c) ? steady.fill(0, 14 * rate, 14.008 * rate) : steady;
      });
      meter.push(block);
      meter.finish();
      return meter.tone(0).stretch?.bridged;
    };
    expect(bridged([0, 1])).toMatchObject([{ lost: true }]);
    expect(bridged([1])).toMatchObject([{ lost: false }]);
    expect(bridged([0])).toEqual([]);
  });
});

describe("a long stretch of a recording", () => {
  const stretch = {
    what: "tone",
    index: -1,
    startSeconds: 0,
    endSeconds: LONG_SECONDS,
    nominalHz: NOMINAL_HZ,
    levelDb: null,
  };

  it.each([
    ["left", 0.5, GOOD_LEFT],
    ["right", 0.4, GOOD_RIGHT],
  ] as const)("has the speed of its better channel, the %s", async (channel, percent, tones) => {
    const { sound, reads } = counted(tones);
    const reports = await measureStretches(sound, [stretch], null, { told: () => {} });
    expect(reads.begun).toBe(2);
    expect(reports).toHaveLength(1);
    expect(reports![0].speed?.channel).toBe(channel);
    expect(reports![0].speed?.errorPercent).toBeCloseTo(percent, 3);
    expect(reports![0].levelDb.left).toBeCloseTo(20 * Math.log10(LEVEL), 1);
  });

  it("is given up in any reading of it", async () => {
    for (const reading of [1, 2]) {
      const { sound, reads } = counted(GOOD_LEFT);
      const cancelled = () => reads.begun === reading;
      expect(await measureStretches(sound, [stretch], null, { told: () => {}, cancelled })).toBeNull();
      expect(reads.begun).toBe(reading);
    }
  });
});
