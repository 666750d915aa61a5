import { hertzText } from "@/core/text/number-text";
import type { SoundFile } from "@/core/formats/sound-file";
import { blockWithin } from "@/core/measure/block-within";
import { channelName } from "@/core/measure/channel-name";
import { distortionOf, type Distortion } from "@/core/measure/distortion";
import { ProgrammeRecogniser } from "@/core/programme/programme-recogniser";

export interface ChannelDistortion {
  channel: string;
  /** Null where the channel holds no such tone. */
  found: Distortion | null;
}

/** More of a tone is not needed. */
const LONGEST_SECONDS = 40;
const EDGE_SECONDS = 0.15;
const NEAR = 0.1;

/**
 * Distortion of the longest steady stretch of a tone in a recording, two channels or one. Reads the recording twice, a
 * block at a time.
 */
export async function measureDistortion(
  sound: SoundFile,
  nominalHz: number,
): Promise<{ channels: ChannelDistortion[]; warnings: string[] }> {
  const { sampleRateHz, channelCount } = sound;
  const recogniser = new ProgrammeRecogniser(sampleRateHz, channelCount, { marks: false });
  for await (const block of sound.blocks()) recogniser.push(block);
  recogniser.finish();
  const tones = recogniser.tones();
  const near = tones
    .filter(({ frequencyHz }) => Math.abs(frequencyHz / nominalHz - 1) < NEAR)
    .toSorted((a, b) => b.endSeconds - b.startSeconds - (a.endSeconds - a.startSeconds));
  const names = Array.from({ length: Math.min(2, channelCount) }, (_, c) => channelName(c, channelCount));
  if (near.length === 0) {
    const others = [...new Set(tones.map(({ frequencyHz }) => hertzText(frequencyHz, 3)))];
    const heard = others.length > 0 ? `; heard was ${others.slice(0, 5).join(", ")}` : "";
    return {
      channels: names.map((channel) => ({ channel, found: null })),
      warnings: [`No steady tone near ${hertzText(nominalHz, 4)} was heard${heard}.`],
    };
  }
  const [{ startSeconds, endSeconds, frequencyHz }] = near;
  const from = Math.round((startSeconds + EDGE_SECONDS) * sampleRateHz);
  const last = Math.min(endSeconds - EDGE_SECONDS, startSeconds + LONGEST_SECONDS);
  const to = Math.max(from, Math.round(last * sampleRateHz));
  const kept = names.map(() => new Float64Array(to - from));
  let at = 0;
  for await (const block of sound.blocks()) {
    const part = blockWithin(block, at, { from, to });
    if (part) kept.forEach((x, c) => x.set(part.channels[c], part.first - from));
    at += block[0].length;
  }
  const measured = names.map((channel, c) => ({
    channel,
    found: distortionOf(kept[c], sampleRateHz, frequencyHz),
  }));
  // harmonics beside another tone are not of this one alone
  const channels = measured.map(({ channel, found }) => ({ channel, found: found?.foreign ? null : found }));
  const levels = near.map(({ leftDb, rightDb }) => Math.max(leftDb, rightDb));
  return {
    channels,
    warnings: [
      ...(Math.max(...levels) - Math.min(...levels) > SEVERAL_DB
        ? [
            `The tone stands at several levels; measured is its longest stretch, from ${startSeconds.toFixed(1)} s on.`,
          ]
        : []),
      ...measured.flatMap(({ channel, found }) =>
        found === null ? [`The ${channel} channel holds no such tone.`] : [],
      ),
      ...measured.flatMap(({ channel, found }) =>
        found?.foreign
          ? [
              `The ${channel} channel holds another tone or a buzz at ${hertzText(found.foreign.frequencyHz, 3)}, ${(-found.foreign.levelDb).toFixed(0)} dB below this one: no distortion is measured. Remove it, and record again.`,
            ]
          : [],
      ),
      ...channels.flatMap(({ channel, found }) =>
        found?.clipped ? [`The ${channel} channel clips: this is the distortion of the input.`] : [],
      ),
    ],
  };
}
const SEVERAL_DB = 1;
