import type { SoundFile } from "@/core/formats/sound-file";
import { channelName } from "@/core/measure/channel-name";
import type { ChannelDropOuts } from "@/core/measure/drop-out-rates";
import { DropOutMeter, together } from "@/core/measure/drop-outs";

/** Drop-outs of a tone in a recording of any length. @throws RangeError for a tone that the sample rate does not hold */
export async function measureDropOuts(
  sound: SoundFile,
  nominalHz: number,
  depthDb: number,
): Promise<{ channels: ChannelDropOuts[]; together: number; warnings: string[] }> {
  const { sampleRateHz, channelCount } = sound;
  const names = Array.from({ length: Math.min(2, channelCount) }, (_, c) => channelName(c, channelCount));
  const meters = names.map(() => new DropOutMeter(sampleRateHz, nominalHz, depthDb));
  for await (const block of sound.blocks()) meters.forEach((meter, c) => meter.push(block[c]));
  const channels = names.map((channel, c) => ({ channel, ...meters[c].result() }));
  const [left, right] = channels;
  return {
    channels,
    together: right ? together(left.events, right.events) : 0,
    warnings: channels.flatMap(({ channel, seconds }) =>
      seconds === 0 ? [`No tone near ${nominalHz} Hz was heard on the ${channel} channel.`] : [],
    ),
  };
}
