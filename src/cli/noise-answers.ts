import type { SoundFile } from "@/core/formats/sound-file";
import { measureDropOuts } from "@/core/recordings/measure-drop-outs";
import { measureNoise } from "@/core/recordings/measure-noise";

/** What `measure noise` prints: dBFS, or decibels re a reference level where one was given. */
export async function noise(sound: SoundFile, referenceDbfs: number | null) {
  const { channels, warnings } = await measureNoise(sound);
  const re = referenceDbfs ?? 0;
  return {
    referenceDbfs,
    warnings,
    channels: channels.map(({ channel, noise: heard, hum, floorLimited }) => ({
      channel,
      flatDb: heard && heard.flatDbfs - re,
      aDb: heard && heard.aDbfs - re,
      itu468Db: heard && heard.itu468Dbfs - re,
      hum: hum.map(({ frequencyHz, levelDb }) => ({ frequencyHz, levelDb: levelDb - re })),
      floorLimited,
    })),
  };
}

/** What `measure dropouts` prints. */
export async function dropOuts(sound: SoundFile, nominalHz: number, depthDb: number) {
  const { channels, together, warnings } = await measureDropOuts(sound, nominalHz, depthDb);
  const perMinute = (count: number, seconds: number) => (seconds > 0 ? (60 * count) / seconds : null);
  return {
    nominalHz,
    depthDb,
    warnings,
    channels: channels.map(({ channel, events, seconds }) => ({
      channel,
      seconds,
      perMinute: perMinute(events.length, seconds),
      events,
    })),
    both: perMinute(together, Math.min(...channels.map(({ seconds }) => seconds))),
  };
}
