import { amplitudeDb } from "@/core/dsp/decibels";
import { orderLines } from "@/core/measure/order-lines";

/** Harmonics and noise of a device whose output is cabled to its input. */
export interface LoopBack {
  toneDbfs: number;
  noiseDbfs: number;
  secondDb: number;
  thirdDb: number;
}

const PIECE_SECONDS = 1;
const SILENT_BELOW_TONE_DB = 40;

/**
 * What a sound card adds by itself, from a recording of a tone followed by silence that went out of it and straight
 * back in: level and harmonics of the loudest second, RMS of the quietest.
 * @throws Error with a sentence for the user when there is no tone or no silence in it
 */
export function loopBackOf(samples: Float32Array, sampleRateHz: number, toneHz: number): LoopBack {
  const piece = Math.round(PIECE_SECONDS * sampleRateHz);
  const hop = piece >> 2;
  let [loudest, quietest] = [
    { at: 0, rms: 0 },
    { at: 0, rms: Infinity },
  ];
  for (let at = 0; at + piece <= samples.length; at += hop) {
    let squares = 0;
    for (let i = at; i < at + piece; i++) squares += samples[i] * samples[i];
    const rms = Math.sqrt(squares / piece);
    // of equally loud pieces the later one, which is past the edge of the tone
    if (rms >= 0.9999 * loudest.rms) loudest = { at, rms };
    if (rms < quietest.rms) quietest = { at, rms };
  }
  if (amplitudeDb(loudest.rms) < -60)
    throw new Error(
      "The tone did not come back. Cable the output to the input, raise the level, then try again.",
    );
  if (amplitudeDb(quietest.rms) > amplitudeDb(loudest.rms) - SILENT_BELOW_TONE_DB)
    throw new Error("There was no silence to measure noise in. Disconnect everything else and try again.");
  const tone = orderLines(samples.subarray(loudest.at, loudest.at + piece), sampleRateHz, toneHz, [2, 3]);
  if (tone === null || tone.lines.length < 2)
    throw new Error(
      "What came back is not the tone that was sent. Disconnect everything else and try again.",
    );
  const [second, third] = tone.lines;
  return {
    toneDbfs: tone.levelDbfs,
    noiseDbfs: amplitudeDb(quietest.rms),
    secondDb: second.levelDb,
    thirdDb: third.levelDb,
  };
}
