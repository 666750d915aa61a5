import type { SoundFile } from "@/core/formats/sound-file";
import { channelName } from "@/core/measure/channel-name";
import { HumMeter, type HumLine } from "@/core/measure/hum";
import { steadyNoise } from "@/core/measure/steady-noise";
import { weightedNoise, type WeightedNoise } from "@/core/measure/weighted-noise";

export interface ChannelNoise {
  channel: string;
  /** Null where there is too little sound. */
  noise: WeightedNoise | null;
  /** So much of it was steady noise, and was measured. */
  usedSeconds: number;
  hum: HumLine[];
  /** The file's own steps make about as much noise: what is heard is at most this. */
  floorLimited: boolean;
}

/** So much of a recording is heard; noise does not become another after that. */
const LONGEST_SECONDS = 120;
/** Steps with triangular dither: three times the power of the steps alone. */
const DITHER_POWER = 3;
const NEAR_FLOOR_DB = 3;

/** Noise and hum of the steady stretch of a recording of silence, two channels or one, and how long that is. */
export async function measureNoise(
  sound: SoundFile,
): Promise<{ channels: ChannelNoise[]; warnings: string[] }> {
  const { sampleRateHz, channelCount, frameCount } = sound;
  const frames = Math.min(frameCount, LONGEST_SECONDS * sampleRateHz);
  const kept = Array.from({ length: Math.min(2, channelCount) }, () => new Float32Array(frames));
  const meters = kept.map(() => new HumMeter(sampleRateHz));
  let at = 0;
  for await (const block of sound.blocks()) {
    const count = Math.min(block[0].length, frames - at);
    if (count > 0)
      kept.forEach((x, c) => {
        x.set(block[c].subarray(0, count), at);
        meters[c].push(block[c].subarray(0, count));
      });
    at += block[0].length;
  }
  const measured = kept.map((x) => {
    const steady = steadyNoise(x, sampleRateHz);
    const noise =
      steady.doubt === null ? weightedNoise([x.subarray(steady.from, steady.to)], sampleRateHz) : null;
    return { ...steady, noise: noise?.[0] ?? null };
  });
  const floorDbfs = stepsDbfs(sound);
  return {
    channels: measured.map(({ noise, usedSeconds }, c) => ({
      channel: channelName(c, channelCount),
      noise,
      usedSeconds,
      hum: meters[c].hum.lines,
      floorLimited:
        noise === null ? kept[c].every((value) => value === 0) : noise.flatDbfs < floorDbfs + NEAR_FLOOR_DB,
    })),
    warnings: [
      ...measured.flatMap(({ notes }, c) => notes.map((note) => `${channelName(c, channelCount)}: ${note}`)),
      ...(measured.some(({ noise, doubt }) => noise === null && doubt === null)
        ? ["Too short: noise takes at least a third of a second."]
        : []),
      ...(frameCount > frames ? [`Only the first ${LONGEST_SECONDS} s were measured.`] : []),
    ],
  };
}

/** Noise of the steps of the file's numbers, dBFS of a sine as strong; none in floating point. */
function stepsDbfs({ kind, bitsPerSample }: SoundFile): number {
  if (kind === "float") return -Infinity;
  const step = 2 ** (1 - bitsPerSample);
  return 10 * Math.log10((2 * DITHER_POWER * step * step) / 12);
}
