import * as z from "@/core/text/zod";
import { SeededRandom } from "@/core/dsp/seeded-random";
import { encodeSamples, wavHeader, type WavEncoding } from "./wav-writer";
import { SequenceRenderer } from "@/core/signals/render-sequence";
import type { Sequence } from "@/core/signals/sequence";

export const EXPORT_RATES = [44100, 48000, 96000] as const;
export const EXPORT_BITS = [16, 24, 32] as const;

export const exportOptionsSchema = z.object({
  rate: z.coerce.number().refine((rate) => (EXPORT_RATES as readonly number[]).includes(rate), {
    message: `rate may be ${EXPORT_RATES.join(", ")}`,
  }),
  bits: z.coerce.number().refine((bits) => (EXPORT_BITS as readonly number[]).includes(bits), {
    message: `bits may be ${EXPORT_BITS.join(", ")}`,
  }),
});
export type ExportOptions = z.infer<typeof exportOptionsSchema>;

const ENCODINGS: Record<number, WavEncoding> = { 16: "int16", 24: "int24", 32: "float32" };

/**
 * A sequence as the bytes of a stereo WAV file, piece by piece: 16 or 24 bits with triangular dither, or 32-bit
 * float.
 * @throws RangeError when a frequency does not fit the rate, noise would clip, or the file would pass 4 GiB
 */
export function wavExport(sequence: Sequence, { rate, bits }: ExportOptions) {
  const renderer = new SequenceRenderer(sequence, rate);
  const encoding = ENCODINGS[bits];
  const header = wavHeader(rate, 2, renderer.frames, encoding);
  const random = new SeededRandom(1);
  return {
    byteLength: header.length + renderer.frames * 2 * (bits / 8),
    *pieces(): Generator<Uint8Array> {
      yield header;
      for (const block of renderer.blocks()) yield encodeSamples(block, encoding, () => random.uniform());
    },
  };
}
