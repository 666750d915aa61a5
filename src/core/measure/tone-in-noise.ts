import { rmsBetween, type AmplitudeSpectrum } from "@/core/dsp/amplitude-spectrum";
import { amplitudeDb, powerDb } from "@/core/dsp/decibels";

/** A tone is looked for so near to where it should be, in shares of it and in lines of the spectrum. */
const NEAR = 0.015;
const LEAST_LINES = 5;
/** What stands on both sides of a tone, from so far to so far. */
const BESIDE_FROM = 0.04;
const BESIDE_TO = 0.1;
const STANDS_OUT_DB = 10;

export interface ToneInNoise {
  /** Of a sine as strong as all that lies there, dBFS. */
  levelDbfs: number;
  /** The same of the noise that lies there, going by what is beside it. */
  noiseDbfs: number;
  /** Of the tone with the noise taken away; nothing tells where it does not stand out. */
  toneDbfs: number | null;
  /** The tone is 10 dB stronger than that. */
  standsOut: boolean;
}

/** A tone near where it should be, within 1.5 %, and whether it stands out of what is beside it. */
export function toneInNoise(spectrum: AmplitudeSpectrum, hz: number): ToneInNoise {
  const half = Math.max(NEAR * hz, LEAST_LINES * spectrum.binHz * spectrum.binsPerLine);
  const level = rmsBetween(spectrum, hz - half, hz + half);
  const [low, high] = [
    rmsBetween(spectrum, hz * (1 - BESIDE_TO) - half, hz * (1 - BESIDE_FROM) - half),
    rmsBetween(spectrum, hz * (1 + BESIDE_FROM) + half, hz * (1 + BESIDE_TO) + half),
  ];
  // noise beside it, as much as its own band holds
  const noise = Math.min(low, high) * Math.sqrt((2 * half) / (hz * (BESIDE_TO - BESIDE_FROM)));
  const levelDbfs = amplitudeDb(Math.SQRT2 * level);
  const noiseDbfs = amplitudeDb(Math.SQRT2 * noise);
  const standsOut = levelDbfs - noiseDbfs > STANDS_OUT_DB;
  const toneDbfs = standsOut ? powerDb(2 * (level * level - noise * noise)) : null;
  return { levelDbfs, noiseDbfs, toneDbfs, standsOut };
}
