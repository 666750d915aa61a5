import type { SoundFile } from "@/core/formats/sound-file";
import { measureDistortion } from "@/core/recordings/measure-distortion";
import { measureReturned } from "@/core/recordings/measure-returned";
import type { Sequence } from "@/core/signals/sequence";
import { withSound } from "./sound-argument";

/** What `measure distortion` prints: the harmonics of a tone, beside those of what went in. */
export async function distortion(sound: SoundFile, nominalHz: number, source: string | undefined) {
  const { channels, warnings } = await measureDistortion(sound, nominalHz);
  const went =
    source === undefined ? null : await withSound(source, (file) => measureDistortion(file, nominalHz));
  return {
    nominalHz,
    source: source ?? null,
    warnings: [...warnings, ...(went?.warnings ?? []).map((warning) => `Of the source: ${warning}`)],
    channels: channels.map(({ channel, found }, c) => {
      const own = went?.channels[Math.min(c, went.channels.length - 1)]?.found?.harmonics ?? [];
      const sourceDb = (order: number) =>
        own.find((line) => line.order === order && line.measurable)?.levelDb ?? null;
      return {
        channel,
        frequencyHz: found?.frequencyHz ?? null,
        levelDbfs: found?.levelDbfs ?? null,
        harmonics: found?.harmonics.map((line) => ({ ...line, sourceDb: sourceDb(line.order) })) ?? [],
        thirdPercent: found?.third?.percent ?? null,
        thdPercent: found?.thdPercent ?? null,
        thdMeasurable: found?.thdMeasurable ?? false,
      };
    }),
  };
}

/** What `measure returned` prints. */
export async function returned(sound: SoundFile, sequence: Sequence) {
  return { sequence: sequence.id, ...(await measureReturned(sound, sequence)) };
}
