import { openSound } from "@/core/formats/open-sound";
import { SoundFileError, type SoundFile } from "@/core/formats/sound-file";
import { fileTrouble, isMissing } from "./file-trouble";
import { bytesOfFile } from "./node-bytes";

/** Opens a recording, lets `hear` read it, and closes it. @throws SoundFileError with a sentence for the user */
export async function withSound<T>(file: string, hear: (sound: SoundFile) => Promise<T>): Promise<T> {
  const bytes = await bytesOfFile(file).catch((error: unknown) => {
    throw new SoundFileError(
      isMissing(error) ? `There is no file ${file}.` : `${file} cannot be read: ${fileTrouble(error)}`,
    );
  });
  try {
    if (bytes.size === 0) throw new SoundFileError(`${file} is empty.`);
    return await hear(await openSound(bytes));
  } finally {
    await bytes.close();
  }
}
