import { RecordingWatch, WATCHED_TONES } from "@/core/live/recording-watch";
import type { SoundFile } from "@/core/formats/sound-file";
import { BlankingWatch } from "@/core/measure/blanking";
import { oscillatorLine, type OscillatorLine } from "@/core/measure/oscillator-line";
import { nothingMeasured, type FileMeasurement } from "./file-measurement";

type OnProgress = (share: number) => void;

/** How long a recording holds, as if it had been heard just now. */
export async function watchFile(
  name: string,
  sound: SoundFile,
  onProgress: OnProgress,
): Promise<FileMeasurement> {
  const { sampleRateHz, channelCount } = sound;
  const watch = new RecordingWatch(sampleRateHz, channelCount, WATCHED_TONES);
  let oscillator: OscillatorLine | null = null;
  await hear(sound, onProgress, (block) => {
    watch.push(block);
    // a file was recorded to be looked at: it is what came off the tape
    watch.hears("tape");
    oscillator ??= oscillatorLine(block, sampleRateHz);
  });
  return { ...nothingMeasured(name, sound), recording: watch.result, oscillator };
}

/** How an old programme goes quiet in a recording. */
export async function blankedFile(
  name: string,
  sound: SoundFile,
  onProgress: OnProgress,
): Promise<FileMeasurement> {
  const watch = new BlankingWatch(sound.sampleRateHz, sound.channelCount);
  await hear(sound, onProgress, (block) => watch.push(block));
  return { ...nothingMeasured(name, sound), blanking: watch.result };
}

async function hear(
  sound: SoundFile,
  onProgress: OnProgress,
  push: (block: Float32Array[]) => void,
): Promise<void> {
  let frames = 0;
  for await (const block of sound.blocks()) {
    push(block);
    frames += block[0].length;
    onProgress(frames / sound.frameCount);
  }
}
