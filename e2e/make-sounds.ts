import { mkdir, writeFile } from "node:fs/promises";
import { dirname } from "node:path";
import { joined } from "@/core/dsp/joined";
import { encodeSamples, wavFile, wavHeader } from "@/core/formats/wav-writer";
import { fmTone } from "@/testing/fm-tone";
import { flacFile } from "@/testing/flac-encoder";
import { pairTone } from "@/testing/pair-tone";
import { pluckedNotes } from "@/testing/plucked-notes";
import { sampled } from "@/core/dsp/sampled";
import {
  BANDS,
  BANDS_FLAC,
  CLIP,
  CUT,
  LONG,
  NOT_WAV,
  SLOW,
  STEADY,
  TONE,
  COPY,
  MUSIC,
  TILTED,
} from "./sounds";

const LONG_SECONDS = 120;

/** Two minutes of a tone on eight channels: the same second over and over, which holds whole cycles. */
function longFile(): Uint8Array {
  const tone = fmTone(1, 48000, 3150);
  const second = encodeSamples(
    Array.from({ length: 8 }, () => tone),
    "int16",
  );
  const header = wavHeader(48000, 8, LONG_SECONDS * 48000, "int16");
  const file = new Uint8Array(header.length + LONG_SECONDS * second.length);
  file.set(header);
  for (let s = 0; s < LONG_SECONDS; s++) file.set(second, header.length + s * second.length);
  return file;
}

/** Closed-form tones for the browser to hear; nothing of the practice machine is in them. */
export default async function makeSounds(): Promise<void> {
  await mkdir(dirname(TONE), { recursive: true });
  // whole numbers of cycles of carrier and modulation, so that the file can play in a loop without a click
  const steady = fmTone(8, 48000, 3150 * 1.0125);
  const fast = fmTone(32, 48000, 3150 * 1.0125, [{ rateHz: 4, peak: 0.002 }]);
  const slow = fmTone(12, 44100, 3150 * 0.992, [{ rateHz: 1, peak: 0.0005 }]);
  const gap = new Float64Array(48000);
  const band = (hz: number, seconds: number) =>
    fmTone(seconds, 48000, hz * 1.015, [{ rateHz: 4, peak: 0.001 }], 0.1);
  const ladder = joined(gap, band(1000, 4), gap, band(3150, 13), gap, band(6300, 4), gap);
  // the azimuth ladder of a deck whose right channel is 20 µs late and whose head is dirty
  const rungs = [1000, 3150, 6300, 8000, 10000].map((frequencyHz) => {
    const level = -20 - (54.6 * 1 * frequencyHz) / 47_600;
    return pairTone({ frequencyHz, seconds: 5, delaySeconds: 2e-5, leftDbfs: level, rightDbfs: level });
  });
  const tilted = ([0, 1] as const).map((c) =>
    joined(...rungs.flatMap((rung) => [gap.subarray(0, 24_000), rung[c]])),
  );
  const notes = pluckedNotes(12, 32);
  const music = (seconds: number, ratio: number, from: number) =>
    sampled(seconds * 16000, (i) => notes(from + (ratio * i) / 16000));
  const [original, copy] = [music(28, 1, 0), music(20, 1.025, 3)];
  await Promise.all([
    writeFile(MUSIC, wavFile([original], 16000, "int16")),
    writeFile(COPY, wavFile([copy], 16000, "int16")),
    writeFile(TILTED, wavFile(tilted, 48000, "int24")),
    writeFile(BANDS, wavFile([ladder, ladder], 48000, "int16")),
    writeFile(
      BANDS_FLAC,
      flacFile(
        [1, 2].map(() => Int32Array.from(ladder, (v) => Math.round(v * 32768))),
        48000,
        16,
      ),
    ),
    writeFile(TONE, wavFile([fast, fast.map((v) => 0.5 * v)], 48000, "int16")),
    writeFile(STEADY, wavFile([steady, steady.map((v) => 0.5 * v)], 48000, "int16")),
    writeFile(CLIP, wavFile([fmTone(8, 48000, 1000), fmTone(8, 48000, 1000)], 48000, "int16")),
    writeFile(SLOW, wavFile([slow, slow], 44100, "int24")),
    writeFile(LONG, longFile()),
    writeFile(NOT_WAV, "this was never a recording"),
    writeFile(CUT, wavFile([slow], 44100, "int16").slice(0, 30)),
  ]);
}
