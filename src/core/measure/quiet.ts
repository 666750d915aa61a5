import { amplitudeSpectrum } from "@/core/dsp/amplitude-spectrum";
import { powerDb } from "@/core/dsp/decibels";
import { HumMeter, type HumLine } from "./hum";
import { toneInNoise, type ToneInNoise } from "./tone-in-noise";
import { weightedNoise, type WeightedNoise } from "./weighted-noise";

/** Noise of a machine that plays nothing, as it stands. */
export interface Quiet {
  seconds: number;
  /** With what is there of each of the faint tones. */
  channels: Array<{ noise: WeightedNoise; hum: HumLine[]; faint: ToneInNoise[] }>;
  /** It holds still: no programme, no clicks, nothing that comes and goes. */
  steady: boolean;
}

/** Tones that may come across from tracks that nobody plays. */
export const FAINT_TONES_HZ = [1000, 10_000] as const;
/** One spectrum of them holds so much sound: flutter spreads a tone over less than its lines. */
const STRETCH_SECONDS = 0.5;

const SHORTEST_SECONDS = 4;
const PIECES = 8;
const STEADY_DB = 2;

/**
 * Noise and hum of the last seconds, two channels or one.
 * @param channels full scale = ±1
 * @returns null for less than four seconds
 */
export function quietOf(channels: readonly Float32Array[], sampleRateHz: number): Quiet | null {
  const frames = channels.at(0)?.length ?? 0;
  if (frames < SHORTEST_SECONDS * sampleRateHz) return null;
  const noise = weightedNoise(channels, sampleRateHz);
  if (noise === null) return null;
  return {
    seconds: frames / sampleRateHz,
    channels: channels.map((x, c) => {
      const hum = new HumMeter(sampleRateHz);
      hum.push(x);
      const stretch = Math.round(STRETCH_SECONDS * sampleRateHz);
      const spectrum = amplitudeSpectrum(x, sampleRateHz, 2 ** Math.ceil(Math.log2(stretch)), stretch);
      const faint = FAINT_TONES_HZ.map((hz) => toneInNoise(spectrum, hz));
      return { noise: noise[c], hum: hum.hum.lines, faint };
    }),
    steady: channels.every(holdsStill),
  };
}

function holdsStill(x: Float32Array): boolean {
  const size = Math.floor(x.length / PIECES);
  const levels = Array.from({ length: PIECES }, (_, p) =>
    powerDb(x.subarray(p * size, (p + 1) * size).reduce((sum, v) => sum + v * v, 0) / size),
  );
  return Math.max(...levels) - Math.min(...levels) < STEADY_DB;
}
