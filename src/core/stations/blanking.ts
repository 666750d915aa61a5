import type { Blanked, BlankingChannel } from "@/core/measure/blanking";
import { fixed } from "@/core/text/number-text";
import { channelNames } from "./channels";
import type { OnTheBench } from "./on-the-bench";

/** What is heard of a blanking test: each channel, and why it cannot be logged. */
export interface BlankingNow {
  /** Null of a channel where no programme was heard yet. */
  channels: Array<{ channel: string; heard: BlankingChannel | null }>;
  lacks: string | null;
}

export const BLANKING_METHOD = "an old programme, recorded over with nothing going in";
const LEAST_SECONDS = 5;
const UNCERTAINTY_DB = 1.5;
const FALL_UNCERTAINTY_SECONDS = 0.1;
/** An oscillator that swings at once lets the old programme fall faster. */
const SLOW_SECONDS = 0.6;
/** What an input that is open lets in is not so far down. */
const LEAST_DOWN_DB = 25;

export function blankingNow({
  heard,
  here,
  records,
}: Pick<OnTheBench, "heard" | "here" | "records">): BlankingNow {
  const all = heard?.blanking ?? null;
  const channels = channelNames(here.machine.channels).map((channel, c) => ({
    channel,
    heard: all?.at(Math.min(c, all.length - 1)) ?? null,
  }));
  return { channels, lacks: lacking(all === null ? null : channels, records.machine.monitorsTape === true) };
}

function lacking(channels: BlankingNow["channels"] | null, monitorsTape: boolean): string | null {
  if (channels === null)
    return monitorsTape
      ? "Play an old recording, monitor the tape, and press Listen."
      : "Record over a part of an old recording with nothing going in, rewind to before it, press Listen, and play.";
  if (channels.some(({ heard }) => heard === null))
    return "No programme is heard yet on both channels: play the old recording for two seconds or more.";
  const quiet = channels.flatMap(({ heard }) => heard?.blanked ?? []);
  const [stays] = channels.filter(({ heard }) => heard?.blanked === null);
  if (quiet.length === 0)
    return monitorsTape
      ? "The old programme plays: now record, with nothing going in. If it already records, nothing is erased."
      : "The old programme plays, up to where it was recorded over. If that has passed, nothing is erased.";
  if (stays)
    return `The ${stays.channel} channel does not go quiet, the other does: look at the erase head on that track. How far it is erased, its tone tells.`;
  const seconds = Math.min(...quiet.map(({ quietSeconds }) => quietSeconds));
  if (seconds >= LEAST_SECONDS) return null;
  return quiet.some(({ cameBack }) => cameBack)
    ? `Quiet for ${fixed(seconds, 1)} s only: record five seconds or more of nothing over it.`
    : "It has gone quiet: a few seconds more.";
}

/** What is logged of a channel. */
export const blankingFigures = (channel: string, blanked: Blanked | null) =>
  blanked === null
    ? []
    : [
        {
          quantity: "erase.blanking" as const,
          channel,
          value: blanked.downDb,
          uncertainty: UNCERTAINTY_DB,
          method: `${BLANKING_METHOD}; ${leftOf(blanked)}`,
        },
        {
          quantity: "erase.blankingFall" as const,
          channel,
          value: blanked.fallSeconds,
          uncertainty: FALL_UNCERTAINTY_SECONDS,
        },
      ];

/** What is left after the old programme has gone quiet. */
export const leftOf = ({ moves, toneDownDb }: Blanked): string =>
  toneDownDb !== null
    ? `its tone went down by ${fixed(toneDownDb, 0)} dB, by narrow filter`
    : moves
      ? "what is left still moves"
      : "only steady noise is left, so at least that";

/**
 * What a blanking test usually means, the likeliest first; none where all is well.
 * @param leastDb by how much a tone has to go down
 */
export function blankingCauses(channels: BlankingNow["channels"], leastDb: number): string[] {
  const all = channels.flatMap(({ channel, heard }) =>
    heard?.blanked ? [{ channel, ...heard.blanked }] : [],
  );
  const where = (these: typeof all) => (these.length > 1 ? "" : ` on the ${these[0].channel} channel`);
  const left = all.filter(({ moves, toneDownDb }) => (toneDownDb === null ? moves : toneDownDb < leastDb));
  const slow = all.filter(({ fallSeconds }) => fallSeconds > SLOW_SECONDS);
  const loud = all.filter(({ downDb, moves }) => !moves && downDb < LEAST_DOWN_DB);
  return [
    ...(left.length > 0
      ? [
          `Under the noise the old programme, or what comes in at the input, is still heard${where(left)}: close the input and try again; then the erase head, dirty, weak or too low.`,
        ]
      : []),
    ...(slow.length > 0
      ? [
          `It goes quiet slowly${where(slow)}, within ${fixed(Math.max(...slow.map(({ fallSeconds }) => fallSeconds)), 1)} s: a pause in the programme, or an oscillator that takes its time to swing.`,
        ]
      : []),
    ...(loud.length > 0
      ? [
          `What is left is steady noise, but loud${where(loud)}: the programme was faint, or an open input hisses.`,
        ]
      : []),
  ];
}
