import { amplitudeSpectrum } from "@/core/dsp/amplitude-spectrum";
import { HumMeter, type HumLine } from "./hum";
import { toneInNoise, type ToneInNoise } from "./tone-in-noise";
import { steadyNoise } from "./steady-noise";
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
const STEADY_SHARE = 0.8;

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
    steady: channels.every((x) => holdsStill(x, sampleRateHz)),
  };
}

/** All of it is one floor. */
function holdsStill(x: Float32Array, sampleRateHz: number): boolean {
  const { doubt, usedSeconds } = steadyNoise(x, sampleRateHz);
  return doubt === null && usedSeconds > STEADY_SHARE * (x.length / sampleRateHz);
}
