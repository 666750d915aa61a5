import type { SoundFile } from "@/core/formats/sound-file";
import type { Samples } from "@/core/dsp/signal";
import { TrackRoom } from "@/core/measure/deviation-track";
import { TransportMeter } from "@/core/measure/transport-meter";

/** Of a longer piece of tone the last so many seconds are measured, so that what is kept of it does not grow for ever. */
const LONGEST_SECONDS = 3600;
/** Of a longer one the channels are followed one by one: an hour of two takes no more room than half an hour. */
const LONGEST_TOGETHER_SECONDS = 1800;
/** What a container says of its length may be a little short of what comes. */
const MARGIN_SECONDS = 1;

/** Which channels of a piece of tone are followed in each reading of it: all of a short one, of a longer one each by itself. */
export function readingsOf(seconds: number, channelCount: number): number[][] {
  const all = Array.from({ length: channelCount }, (_, i) => i);
  return seconds > LONGEST_TOGETHER_SECONDS ? all.map((channel) => [channel]) : [all];
}

/**
 * Speed and flutter of a piece of a file, of a length that is known.
 * @param followed of which channels, as one of `readingsOf`
 * @param rooms of the meter of another reading, which is not read any more
 * @throws RangeError when the sample rate cannot hold the tone
 */
export const transportMeterOf = (
  { sampleRateHz, channelCount }: { sampleRateHz: number; channelCount: number },
  nominalHz: number,
  seconds: number,
  followed: readonly number[],
  rooms?: readonly TrackRoom[],
): TransportMeter =>
  new TransportMeter(
    sampleRateHz,
    channelCount,
    nominalHz,
    { keepSeconds: LONGEST_SECONDS, expectSeconds: seconds + MARGIN_SECONDS },
    followed,
    rooms,
  );

/** What happens while a file is read, once or once for each channel. */
interface Reading {
  /** With the first reading, every block of it. */
  alongside?: (block: Samples[]) => void;
  /** With the share of all readings. */
  onProgress?: (share: number) => void;
}

/**
 * Speed and flutter of a whole file, channel by channel.
 * @param take asked once for each channel, with the meter that has heard the whole of it and the channel's place in that;
 *   nothing of the meter may be kept: the next reading is written over it
 * @returns what it gave, in the order of the file's channels
 * @throws RangeError when the sample rate cannot hold the tone, SoundFileError for a file that cannot be read
 */
export async function transportOfFile<T>(
  sound: SoundFile,
  nominalHz: number,
  take: (meter: TransportMeter, channel: number) => T,
  { alongside, onProgress }: Reading = {},
): Promise<T[]> {
  const readings = readingsOf(sound.durationSeconds, sound.channelCount);
  const rooms = readings[0].map(() => new TrackRoom());
  const taken: T[] = [];
  let frames = 0;
  for (const [r, followed] of readings.entries()) {
    const meter = transportMeterOf(sound, nominalHz, sound.durationSeconds, followed, rooms);
    for await (const block of sound.blocks()) {
      meter.push(block);
      if (r === 0) alongside?.(block);
      frames += block[0].length;
      onProgress?.(frames / (sound.frameCount * readings.length));
    }
    meter.finish();
    taken.push(...meter.channels.map((_, channel) => take(meter, channel)));
  }
  return taken;
}

/** What is to be said of a piece that is longer than what is measured; none of any other. */
export const notAllMeasured = (seconds: number): string[] =>
  seconds > LONGEST_SECONDS
    ? ["It is longer than an hour: speed and flutter are those of its last hour. Cut it for what was before."]
    : [];
