export interface DecodedSound {
  sampleRateHz: number;
  channels: Float32Array[];
}

const LARGEST_BYTES = 400 * 2 ** 20;

/**
 * Decodes whatever else the browser can, the whole file at once.
 * @throws Error with a sentence for the user
 */
export async function decodeSound(file: Blob): Promise<DecodedSound> {
  if (file.size > LARGEST_BYTES)
    throw new Error(
      "This kind of file has to be decoded as a whole and is too large for that. Convert it to WAV or FLAC, which are read piece by piece.",
    );
  const context = new OfflineAudioContext(2, 1, 48000);
  try {
    const buffer = await context.decodeAudioData(await file.arrayBuffer());
    return {
      sampleRateHz: buffer.sampleRate,
      channels: Array.from({ length: buffer.numberOfChannels }, (_, c) => buffer.getChannelData(c).slice()),
    };
  } catch {
    throw new Error(
      "This is not a sound file that can be read. Save the recording as WAV or FLAC and try again.",
    );
  }
}
