import type { ByteSource } from "./byte-source";
import { openFlac } from "./flac-reader";
import { SoundFileError, type SoundFile } from "./sound-file";
import { openWav } from "./wav-reader";

/**
 * Opens a WAV or FLAC recording, told apart by its first bytes and not by its name.
 * @throws SoundFileError for anything else, or when it is damaged beyond reading
 */
export async function openSound(source: ByteSource): Promise<SoundFile> {
  if (source.size === 0) throw new SoundFileError("The file is empty. Record or copy it again.");
  const start = String.fromCharCode(...(await source.read(0, 4)));
  if (start === "fLaC" || start.startsWith("ID3")) return openFlac(source);
  if (["RIFF", "RF64", "BW64"].includes(start)) return openWav(source);
  throw new SoundFileError(
    "This is not a WAV file, nor a FLAC file: it begins with neither header. Save the recording as WAV or FLAC and try again.",
  );
}
