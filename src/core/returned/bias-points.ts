import { channelName } from "@/core/measure/channel-name";
import type { BiasPoint } from "@/core/guidance/bias-law";
import type { ReturnedPass, ReturnedSegment, ReturnedTone } from "./returned";

/** What one pass of a bias sequence tells of a channel. */
export interface BiasHeard extends Omit<BiasPoint, "turns"> {
  channel: string;
  middleHz: number;
  highHz: number;
  /** Third harmonic of the tone at 0 level; at most that where noise hides it. */
  thirdPercent: number | null;
  /** Gain of the tone at 0 level relative to that of the same tone 20 dB down, dB; null where only one of them was sent. */
  gainChangeDb: number | null;
}

/** What tape does to the gain of a tone at 0 level, dB: it compresses, more so at low bias. Noise on a quiet tone adds little. */
const TAPE_GAIN_CHANGE_DB = { least: -4, most: 1.2 };

/** Whether the gain of the path follows the signal: a limiter, automatic level control, noise reduction, or clipping. */
export const followsLevel = ({ gainChangeDb }: Pick<BiasHeard, "gainChangeDb">): boolean =>
  gainChangeDb !== null &&
  (gainChangeDb < TAPE_GAIN_CHANGE_DB.least || gainChangeDb > TAPE_GAIN_CHANGE_DB.most);

/** What to do about it. */
export const FOLLOWS_LEVEL =
  "Gain changes with level: switch off noise reduction, limiter and automatic level, reduce the level if it clips, and record the passes again.";

/**
 * The tones of a pass by which bias is judged: of those sent quietly the lowest and the highest, and the third harmonic of
 * the loudest. Null for a channel on which one of the two quiet tones was not heard, or clips.
 * @param sentDb level that each segment was sent at, dBFS
 */
export function biasHeard(
  { segments }: ReturnedPass,
  sentDb: (segment: number) => number | null,
  channelCount: number,
): Array<BiasHeard | null> {
  return Array.from({ length: Math.min(2, channelCount) }, (_, c) => {
    const channel = channelName(c, channelCount);
    const tones = segments.flatMap((segment) => {
      const tone = toneOf(segment, channel);
      const sent = sentDb(segment.index);
      return tone && sent !== null && !tone.clipped ? [{ ...tone, sent }] : [];
    });
    const quietest = Math.min(...tones.map(({ sent }) => sent));
    const quiet = tones
      .filter(({ sent }) => sent < quietest + SAME_DB)
      .toSorted((a, b) => a.frequencyHz - b.frequencyHz);
    const [middle, high] = [quiet.at(0), quiet.at(-1)];
    if (!middle || !high || middle.frequencyHz === high.frequencyHz) return null;
    const loud = tones
      .filter(({ sent }) => sent > quietest + SAME_DB)
      .toSorted((a, b) => b.sent - a.sent)
      .at(0);
    const thirdDb =
      loud?.thirdMeasurable && loud.thirdPercent !== null ? 20 * Math.log10(loud.thirdPercent / 100) : null;
    return {
      channel,
      middleHz: middle.frequencyHz,
      highHz: high.frequencyHz,
      middleDb: middle.levelDb,
      highDb: high.levelDb,
      thirdDb,
      thirdPercent: loud?.thirdPercent ?? null,
      gainChangeDb:
        loud && Math.abs(loud.frequencyHz / middle.frequencyHz - 1) < SAME_FREQUENCY
          ? loud.levelDb - middle.levelDb
          : null,
    };
  });
}
const SAME_DB = 3;
const SAME_FREQUENCY = 0.05;

function toneOf({ channels }: ReturnedSegment, channel: string): (ReturnedTone & { levelDb: number }) | null {
  const own = channels.find((one) => one.channel === channel);
  return own?.kind === "sine" && own.levelDb !== null ? { ...own, levelDb: own.levelDb } : null;
}
