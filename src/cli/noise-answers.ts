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
    channels: channels.map(({ channel, noise: heard, usedSeconds, hum, floorLimited }) => ({
      channel,
      usedSeconds,
      // the mean power of so much noise, and the meter's own tolerance
      uncertaintyDb: heard && noiseUncertaintyDb(usedSeconds),
      flatDb: heard && heard.flatDbfs - re,
      aDb: heard && heard.aDbfs - re,
      itu468Db: heard && heard.itu468Dbfs - re,
      hum: hum.map(({ frequencyHz, levelDb }) => ({ frequencyHz, levelDb: levelDb - re })),
      floorLimited,
    })),
  };
}

/** ± at 95 % of the level of noise by chance, by its weighted bandwidth, and of what the input and the filters may differ by, dB. */
const noiseUncertaintyDb = (seconds: number): number =>
  Math.hypot(METER_DB, (2 * 4.343) / Math.sqrt(Math.max(1, BANDWIDTH_HZ * seconds)));
const METER_DB = 0.2;
/** Of a weighted noise that is mostly in the middle; hum and rumble count as less. */
const BANDWIDTH_HZ = 1000;

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
