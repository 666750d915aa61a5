export type WavEncoding = "int16" | "int24" | "int32" | "float32";

const BYTES: Record<WavEncoding, number> = { int16: 2, int24: 3, int32: 4, float32: 4 };

/** The 44-byte header of a plain WAV file. @throws RangeError beyond the 4 GiB a plain WAV can hold */
export function wavHeader(
  sampleRateHz: number,
  channelCount: number,
  frameCount: number,
  encoding: WavEncoding,
): Uint8Array {
  const width = BYTES[encoding];
  const dataBytes = frameCount * channelCount * width;
  if (dataBytes + 37 > 0xffffffff)
    throw new RangeError(`${dataBytes} bytes of sound do not fit a WAV file; make it shorter`);
  const bytes = new Uint8Array(44);
  const v = new DataView(bytes.buffer);
  const text = (at: number, s: string) =>
    bytes.set(
      [...s].map((c) => c.charCodeAt(0)),
      at,
    );
  text(0, "RIFF");
  v.setUint32(4, 36 + dataBytes + (dataBytes % 2), true);
  text(8, "WAVEfmt ");
  v.setUint32(16, 16, true);
  v.setUint16(20, encoding === "float32" ? 3 : 1, true);
  v.setUint16(22, channelCount, true);
  v.setUint32(24, sampleRateHz, true);
  v.setUint32(28, sampleRateHz * channelCount * width, true);
  v.setUint16(32, channelCount * width, true);
  v.setUint16(34, 8 * width, true);
  text(36, "data");
  v.setUint32(40, dataBytes, true);
  return bytes;
}

/**
 * Interleaved sample bytes of one block; integers are rounded and limited to full scale. With `random` (uniform,
 * 0 to 1) integers are dithered first by the triangular distribution of two steps' width; digital silence stays
 * silent.
 */
export function encodeSamples(
  block: ArrayLike<number>[],
  encoding: WavEncoding,
  random?: () => number,
): Uint8Array {
  const frames = block[0].length;
  const width = BYTES[encoding];
  const bytes = new Uint8Array(frames * block.length * width);
  const v = new DataView(bytes.buffer);
  const full = 2 ** (8 * width - 1);
  let at = 0;
  for (let i = 0; i < frames; i++)
    for (const channel of block) {
      if (encoding === "float32") v.setFloat32(at, channel[i], true);
      else {
        const dither = random && channel[i] !== 0 ? random() - random() : 0;
        const value = Math.max(-full, Math.min(full - 1, Math.round(channel[i] * full + dither)));
        if (encoding === "int16") v.setInt16(at, value, true);
        else if (encoding === "int32") v.setInt32(at, value, true);
        else {
          v.setUint16(at, value & 0xffff, true);
          v.setInt8(at + 2, value >> 16);
        }
      }
      at += width;
    }
  return bytes;
}

/** A whole WAV file in memory. */
export function wavFile(
  channels: ArrayLike<number>[],
  sampleRateHz: number,
  encoding: WavEncoding,
): Uint8Array {
  const header = wavHeader(sampleRateHz, channels.length, channels[0].length, encoding);
  const samples = encodeSamples(channels, encoding);
  const bytes = new Uint8Array(header.length + samples.length + (samples.length % 2));
  bytes.set(header);
  bytes.set(samples, header.length);
  return bytes;
}
