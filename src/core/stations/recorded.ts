import { clips } from "@/core/returned/clips";
import type { PassNow } from "@/core/returned/heard-pass";
import { ZERO_DBFS, type ReturnedChannel, type ReturnedPass } from "@/core/returned/returned";
import { inForce } from "@/core/records/job-records";
import { SWITCH_NAMES, type Machine } from "@/core/records/machine";
import type { Zero } from "@/core/records/job";
import { fixed } from "@/core/text/number-text";
import { heardOn } from "./channels";
import type { OnTheBench } from "./on-the-bench";

/** A pass of a sequence that came back from the tape. */
export interface Recorded {
  pass: PassNow;
  /** What went in, where the source was monitored too. */
  source: PassNow | null;
  /** How long ago it was recorded, seconds. */
  agoSeconds: number;
  /** How many turns have been told since it was recorded. */
  turnsSince: number;
  /** None was. */
  fresh: boolean;
}

/** What was recorded and heard, oldest first, and what is lacking before anything can be said of it. */
export interface RecordedHere {
  recorded: Recorded[];
  /** Null when the last of it can be read. */
  lacks: string | null;
}

/** What to do next while nothing has come off the tape. */
function beforeTape(sources: readonly PassNow[], { monitorsTape }: Machine): string {
  const last = sources.at(-1);
  if (!last) return "Whether the source or the tape is heard cannot be told yet: let the sequence go on.";
  if (monitorsTape) return "Only what goes in was heard yet: switch the monitor to tape.";
  return last.whole
    ? "What goes in was heard to its end. Rewind and play it."
    : "What goes in is heard. Let the sequence be recorded to its end, then rewind and play it.";
}

/**
 * The passes that came off the tape, each with what went in and the setting that it was recorded at. A machine with three
 * heads is heard while it records; one with two gives its source meanwhile, by which is known when each pass was
 * recorded, and with that how the screws stood.
 * @param anySwitch the station is about what is switched on
 */
export function recordedHere(bench: OnTheBench, anySwitch = false): RecordedHere {
  const { heard, here } = bench;
  const { machine } = here;
  const nothing = (lacks: string): RecordedHere => ({ recorded: [], lacks });
  const unsaid = anySwitch ? blankLacks(bench) : notReady(bench);
  if (unsaid) return nothing(unsaid);
  const returned = heard?.returned ?? null;
  if (!returned || returned.passes.length === 0)
    return nothing("None of the sequence was heard yet: send it to the machine and record it.");
  const { passes, nowSeconds, told } = returned;
  const ago = (endSeconds: number) => (nowSeconds - endSeconds) / heard!.pace;
  const sources = passes.filter(({ hears }) => hears === "source");
  const tapes = passes.filter(({ hears }) => hears === "tape");
  if (tapes.length === 0) return nothing(beforeTape(sources, machine));
  const whole = tapes.filter((pass) => pass.whole);
  if (whole.length === 0)
    return nothing("The sequence is still being heard, or was broken off: let it play to its end.");
  const recorded = whole.flatMap((pass): Recorded[] => {
    const wentIn = sources.filter((source) => source.whole);
    if (machine.monitorsTape || heard?.source.kind === "file")
      return pass.told === null
        ? []
        : [
            {
              pass,
              source: wentIn.at(-1) ?? null,
              agoSeconds: ago(pass.endSeconds),
              turnsSince: told - pass.told,
              fresh: pass.told === told,
            },
          ];
    const source = sources.findLast((one) => one.pass === pass.pass && one.endSeconds < pass.startSeconds);
    // what was recorded before anybody listened is of the present setting only where nothing was turned in this job
    const setting = source
      ? source.told
      : told === 0 && !inForce(here.adjustments).some(({ turns }) => turns !== 0)
        ? 0
        : null;
    if (setting === null) return [];
    const from = source ?? pass;
    return [
      {
        pass,
        source: source?.whole ? source : null,
        agoSeconds: ago(from.endSeconds),
        turnsSince: told - setting,
        fresh: setting === told,
      },
    ];
  });
  const last = recorded.at(-1);
  if (!last)
    return nothing(
      machine.monitorsTape
        ? "Something was turned while the sequence played: let it play once more from its start."
        : "How the screws stood when this was recorded nobody knows: record it again with Unzel listening to what goes in.",
    );
  return {
    recorded,
    lacks: last.fresh
      ? (troubleOf(last, machine.channels) ?? zeroMoved(last, here.job.zero))
      : passes.at(-1)?.hears === "unclear"
        ? UNCLEAR
        : TURNED_SINCE,
  };
}

/** Readings are kept apart by the tape that is recorded on, so that has to be said where a job is set for any. */
export const blankLacks = ({
  here: { job },
  circumstances,
}: Pick<OnTheBench, "here" | "circumstances">): string | null =>
  (job.blankTapes?.length ?? 0) > 0 && circumstances.recordingOn === undefined
    ? "Say which blank tape it records on: on the left, or key B."
    : null;

/** Why nothing of the record side can be told as the front of the machine stands; null when it can. */
export const notReady = (bench: Pick<OnTheBench, "here" | "circumstances">): string | null =>
  blankLacks(bench) ?? switchesInTheWay(bench);

/** What is switched on changes what comes back, in a sentence; null for nothing. */
export function switchesInTheWay({
  here: { machine },
  circumstances: { switchedOn = [] },
}: Pick<OnTheBench, "here" | "circumstances">): string | null {
  const words = switchedOn.map((one) => machine.switches?.[one] ?? SWITCH_NAMES[one]);
  return words.length === 0
    ? null
    : `${words.join(" and ")} is on: switch it off, and say so on the left. What it does is told at Noise reduction.`;
}

const UNCLEAR =
  "Whether the last of it was the source or the tape cannot be told: let the sequence play to its end, or once more.";
export const TURNED_SINCE = "Something was turned since: record the sequence once more.";

const DEAD_DB = -30;
/** A middle tone of a sound tape holds still within a tenth of this, standard deviation. */
const SWINGS_DB = 1;
const MIDDLE_BELOW_HZ = 3000;

/** What makes figures of a pass false, in a sentence; null for nothing. */
export function troubleOf({ pass, source }: Recorded, channelCount: number): string | null {
  const tones = (from: ReturnedPass, channel: string) =>
    channelsOf(from, channel).flatMap((one) =>
      one.kind === "sine" && one.levelDb !== null ? one.levelDb : [],
    );
  const clipped = [pass, ...(source ? [source] : [])].some(({ segments }) =>
    segments.some(({ channels }) => channels.some(clips)),
  );
  if (clipped) return "The input clips: turn its level down, and record once more.";
  const unsteady = pass.segments
    .flatMap(({ channels }) => channels)
    .find((one) => one.kind === "silence" && one.doubt !== null);
  if (unsteady?.kind === "silence" && unsteady.doubt) return unsteady.doubt;
  const swings = pass.segments.some(({ channels }) =>
    channels.some(
      (one) =>
        one.kind === "sine" &&
        one.levelDb !== null &&
        one.frequencyHz < MIDDLE_BELOW_HZ &&
        one.spreadDb > SWINGS_DB,
    ),
  );
  if (swings)
    return "A middle tone will not hold still: old programme is left under it, or the tape does not lie against the head. Record on an erased tape, or look at erase first.";
  if (channelCount === 1) return null;
  const [left, right] = ["left", "right"].map((channel) => Math.max(-200, ...tones(pass, channel)));
  const dead = left - right > -DEAD_DB ? "right" : right - left > -DEAD_DB ? "left" : null;
  return dead === null
    ? null
    : `Next to nothing comes back on the ${dead} channel: its record level is at nought, or the channel is dead.`;
}

/** What goes in moves by less of itself. */
const ZERO_MOVED_DB = 1;

/** What goes in is another level than when the machine's 0 was set, in a sentence; null where it is not, or cannot be told. */
export function zeroMoved({ source }: Pick<Recorded, "source">, zero: Zero | undefined): string | null {
  if (!source || !zero?.inputDbfs) return null;
  const { inputDbfs } = zero;
  const moved = inputDbfs.flatMap((then, c) => {
    const [wentIn] = source.segments.flatMap(({ channels }) => {
      const own = heardOn(channels, c);
      return own?.kind === "sine" && own.levelDb !== null ? [own.levelDb] : [];
    });
    return wentIn === undefined ? [] : wentIn - (then - ZERO_DBFS);
  });
  const most = moved.toSorted((a, b) => Math.abs(b) - Math.abs(a)).at(0);
  return most === undefined || Math.abs(most) < ZERO_MOVED_DB
    ? null
    : `What goes in is ${fixed(Math.abs(most), 1)} dB ${most < 0 ? "lower" : "higher"} than when 0 was set: put the record level back where it was, or set 0 again.`;
}

const channelsOf = ({ segments }: ReturnedPass, channel: string): ReturnedChannel[] =>
  segments.flatMap(({ channels }) => channels.filter((one) => one.channel === channel));

/** ISO time of what was recorded so long before a moment. */
export const recordedAt = (at: string, agoSeconds: number): string =>
  new Date(Date.parse(at) - Math.round(1000 * agoSeconds)).toISOString();
