import { fixed, hertzText } from "@/core/text/number-text";

/** What comes across at a frequency, re the tone that it comes from: negative dB. */
export interface Across {
  frequencyHz: number;
  db: number;
  uncertaintyDb: number;
}

/** House figures of what a sound machine parts at 1 kHz, dB: its channels, and the tracks of both directions. */
const CHANNELS_DB = 30;
const DIRECTIONS_DB = 40;
/** So much more in the treble than at 1 kHz comes through the air between two leads, not through what both share. */
const RISES_DB = 8;
/** By so much more one channel hears the other direction than the other channel does. */
const MORE_DB = 6;
const TONE_HZ = 1000;

const at1kHz = (across: readonly Across[]): Across | undefined =>
  across.find(({ frequencyHz }) => frequencyHz === TONE_HZ);
const isHeard = (one: Across, partedDb: number): boolean => one.db - one.uncertaintyDb > -partedDb;
const loudest = <T extends { low: Across }>(all: readonly T[]): T =>
  all.reduce((most, one) => (one.low.db > most.low.db ? one : most));
const down = (db: number): string => `${fixed(-db, 0)} dB down at ${hertzText(TONE_HZ)}`;

/**
 * What it usually means when the channels leak into each other; none where they are parted as is usual, or where that
 * cannot be told.
 * @param channels what each channel hears of the other, where more than chance is heard
 */
export function channelLeakCauses(
  channels: ReadonlyArray<{ channel: string; across: readonly Across[] }>,
): string[] {
  const heard = channels.flatMap(({ channel, across }) => {
    const low = at1kHz(across);
    return low && isHeard(low, CHANNELS_DB) ? [{ channel, low, across }] : [];
  });
  if (heard.length === 0) return [];
  const { channel, low, across } = loudest(heard);
  const high = across.find(({ frequencyHz }) => frequencyHz > TONE_HZ);
  const means = !high
    ? "How it goes on in the treble was not heard, so leads and what both share cannot be told apart: look at both."
    : high.db - low.db > RISES_DB
      ? `At ${hertzText(high.frequencyHz)} it is ${fixed(high.db - low.db, 0)} dB more: leads that lie side by side, a screen without its earth, or a switch's contacts.`
      : `At ${hertzText(high.frequencyHz)} it is no more than that: an earth or a supply that both share, or a head whose tracks leak.`;
  return [
    `The channels leak into each other: in the ${channel} the other is only ${down(low.db)}; ${CHANNELS_DB} dB and more is usual. ${means}`,
  ];
}

/**
 * What it usually means when the tracks of the other direction are heard.
 * @param channels what each channel hears of them; what noise hides left out
 */
export function otherDirectionCauses(
  channels: ReadonlyArray<{ channel: string; across: readonly Across[] }>,
): string[] {
  const all = channels.flatMap(({ channel, across }) => {
    const low = at1kHz(across);
    return low ? [{ channel, low }] : [];
  });
  const heard = all.filter(({ low }) => isHeard(low, DIRECTIONS_DB));
  if (heard.length === 0) return [];
  const { channel, low } = loudest(heard);
  const others = all.filter((one) => one.channel !== channel);
  const isMore = channels.length > 1 && others.every((one) => low.db - one.low.db > MORE_DB);
  return [
    `The other direction is heard, ${down(low.db)}${isMore ? `, most in the ${channel}` : ""}; ${DIRECTIONS_DB} dB and more is usual. The head stands too near to its tracks: set its height, and look at the tape guides first.`,
  ];
}
