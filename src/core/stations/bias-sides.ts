import { channelName } from "@/core/measure/channel-name";
import {
  biasErrorAt,
  hasMoved,
  placeHeard,
  type BiasKnown,
  type BiasReading,
  type BiasScrew,
} from "@/core/guidance/bias-screw";
import type { HeardSchool } from "@/core/guidance/bias-answers";
import { overBiasAt } from "@/core/records/blank-tape";
import { inForce } from "@/core/records/job-records";
import type { Adjuster } from "@/core/records/machine";
import type { Reading } from "@/core/records/reading";
import { biasHeard, followsLevel, FOLLOWS_LEVEL, type BiasHeard } from "@/core/returned/bias-points";
import { PRESETS } from "@/core/signals/presets";
import { actingAdjusters } from "./acting-adjusters";
import { channelNames, heardOn } from "./channels";
import type { OnTheBench } from "./on-the-bench";
import { notReady, recordedHere, type Recorded } from "./recorded";
import { STILL_SETTLING } from "./station-readings";

export const BIAS_SEQUENCE = PRESETS.find(({ id }) => id === "bias")!;
/** Both tones at once, which a machine with three heads is watched by while its screw turns. */
export const BIAS_TONES = PRESETS.find(({ id }) => id === "bias-tones")!;

/** What the screws that set bias belong to. */
export const BIAS_SCREWS = { id: "bias", apartBy: ["speed", "channel", "recordingOn"] } as const;

const sentDb = (segment: number): number | null => {
  const sent = BIAS_SEQUENCE.segments.at(segment);
  return sent?.kind === "sine" ? sent.levelDb : null;
};

/** What a pass tells of each channel, what went in taken away where that was heard. */
export function biasOf({ pass, source }: Recorded, channelCount: number): BiasHeard[] {
  const wentIn = source && biasHeard(source, sentDb, channelCount);
  return biasHeard(pass, sentDb, channelCount).flatMap((one, c) => {
    if (one === null) return [];
    const before = wentIn?.[c];
    return [
      before
        ? {
            ...one,
            middleDb: one.middleDb - before.middleDb,
            highDb: one.highDb - before.highDb,
            gainChangeDb: one.gainChangeDb === null ? null : one.gainChangeDb - (before.gainChangeDb ?? 0),
          }
        : one,
    ];
  });
}

/** Both tones as they come off the tape at this moment, less what went in. */
export interface TonesNow {
  heard: BiasHeard[];
  uncertaintyDb: number;
  /** They stand, and nothing has moved them since the last turn that was told. */
  standing: boolean;
  /** As they stood before they were moved. */
  before: BiasHeard[] | null;
}

/** Null while they are not heard off the tape, or what went in was not heard. */
export function tonesNow({ heard, here }: Pick<OnTheBench, "heard" | "here">): TonesNow | null {
  const { hears, frequenciesHz = [], source, tape, before } = heard?.comparison ?? {};
  const [middleHz, highHz] = frequenciesHz;
  // what a machine with two heads plays was recorded before
  if (!here.machine.monitorsTape) return null;
  if (hears !== "tape" || highHz === undefined || !source || !tape) return null;
  const { channels } = here.machine;
  const less = (levels: number[][]) =>
    channelNames(channels).map((_, c) => ({
      channel: channelName(c, channels),
      middleHz,
      highHz,
      middleDb: levels[0][c] - source.levelsDbfs[0][c],
      highDb: levels[1][c] - source.levelsDbfs[1][c],
      thirdDb: null,
      thirdPercent: null,
      gainChangeDb: null,
    }));
  return {
    heard: less(tape.levelsDbfs),
    uncertaintyDb: Math.hypot(tape.uncertaintyDb, source.uncertaintyDb),
    standing: tape.settled && !before,
    before: before ? less(before.levelsDbfs) : null,
  };
}

/** What was heard of bias, and why nothing can be said of how it stands now; null when it can. */
export interface BiasNow {
  recorded: Recorded[];
  tones: TonesNow | null;
  lacks: string | null;
}

const UNTOLD = "It was turned: say so first, with T, so that what the turn did is known.";

/** Passes of the sequence, and the tones that are watched; while those play they tell how it stands. */
export function biasNow(bench: OnTheBench): BiasNow {
  const { recorded: all, lacks: untilRecorded } = recordedHere(bench);
  const isSteady = (one: Recorded) => !biasOf(one, bench.here.machine.channels).some(followsLevel);
  const recorded = all.filter(isSteady);
  const lacks = untilRecorded ?? (all.length > 0 && !isSteady(all.at(-1)!) ? FOLLOWS_LEVEL : null);
  const tones = tonesNow(bench);
  const unsaid = notReady(bench);
  if (unsaid || !bench.here.machine.monitorsTape || !bench.heard?.comparison?.hears)
    return { recorded, tones: null, lacks };
  const { hears, source } = bench.heard.comparison;
  if (tones)
    return { recorded, tones, lacks: tones.standing ? null : tones.before ? UNTOLD : STILL_SETTLING };
  if (hears === "source")
    return { recorded, tones, lacks: "What goes in is heard: now switch the monitor to tape." };
  if (!source)
    return {
      recorded,
      tones,
      lacks: "What goes in was not heard yet: switch the monitor to source for a moment.",
    };
  return { recorded, tones, lacks: STILL_SETTLING };
}

/** A bias screw of a channel with everything that is known of it on the blank tape that is recorded on. */
export interface BiasSide {
  channel: string;
  adjuster: Adjuster | undefined;
  /** What was heard last; null before anything was. */
  last: { heard: BiasHeard; fresh: boolean } | null;
  /** Null before anything was heard, and while it is thought out. */
  known: BiasKnown | null;
  /** Something was heard, and what it tells is being thought out. */
  thinking: boolean;
  /** Its tones have moved since the last turn that was told. */
  moves: boolean;
  /** Where the screw stands then, by what they do; null where it stands as it was counted, and where that cannot be told. */
  movesAt: number | null;
  overBiasDb: number | null;
}

/** How far bias is off now by a school, also while the screw turns; null where it cannot be told. */
export const errorOf = (school: HeardSchool, { known: of, movesAt }: BiasSide) =>
  of && biasErrorAt(school, of, movesAt ?? of.nowTurns);

/** Both channels, from what was logged and what was heard since, to be shown. */
export const biasSides = (bench: OnTheBench): BiasSide[] =>
  heardSides(bench).map((side) => sideOf(side, bench.screws.shown));

/** Both channels, to be kept: nothing of them is still to be thought out. */
export const keptSides = (bench: OnTheBench): BiasSide[] =>
  heardSides(bench).map((side) => sideOf(side, bench.screws.kept));

/** The bias screws of which something was heard. */
export const biasScrews = (bench: OnTheBench): BiasScrew[] =>
  heardSides(bench).flatMap(({ screw }) => screw ?? []);

/** A bias screw of a channel with what was heard of it. */
interface HeardSide extends Pick<BiasSide, "channel" | "adjuster" | "last" | "moves" | "overBiasDb"> {
  /** Null before anything was heard. */
  screw: BiasScrew | null;
  moving: BiasHeard | null;
}

function sideOf(
  { screw, moving, ...side }: HeardSide,
  knownOf: (screw: BiasScrew) => BiasKnown | null,
): BiasSide {
  const known = screw && knownOf(screw);
  return {
    ...side,
    known,
    thinking: screw !== null && known === null,
    movesAt: known && moving && side.moves ? placeHeard(known, moving) : null,
  };
}

function heardSides(bench: OnTheBench): HeardSide[] {
  const { here, circumstances } = bench;
  const { machine, job, blanks = [] } = here;
  const { recorded, tones } = biasNow(bench);
  const adjusters = actingAdjusters(BIAS_SCREWS, bench);
  const blank = blanks.find(({ id }) => id === circumstances.recordingOn);
  const overBiasDb = overBiasAt(blank, job.speedCmPerS)?.db ?? null;
  const adjustments = inForce(here.adjustments);
  const sides = channelNames(machine.channels).map((channel, c): HeardSide => {
    const adjuster =
      adjusters.find((one) => one.channel === channel) ?? adjusters.find((one) => !one.channel);
    const turned = adjustments.filter(({ adjusterId, turns }) => adjusterId === adjuster?.id && turns !== 0);
    // turns that nobody counted end the chain
    const from = turned.findLastIndex(({ turns }) => turns === null);
    const counted = turned.slice(from + 1);
    const since = turned.at(from)?.at ?? "";
    const logged = loggedPoints(here.readings, channel, circumstances.recordingOn).filter(
      ({ at }) => from < 0 || at > since,
    );
    const passes = recorded.flatMap((one) => {
      const heard = heardOn(biasOf(one, machine.channels), c);
      // of the turns that were told those that were made by then
      const by = adjustments.at(-1 - one.turnsSince)?.at ?? "";
      const afterTurns = counted.filter(({ at }) => at <= by).length;
      return !heard || (from >= 0 && by <= since) ? [] : [liveAt(heard, afterTurns)];
    });
    const moving = tones && heardOn(tones.heard, c);
    const standing = tones?.standing && moving ? liveAt(rounded(moving), counted.length) : null;
    const heardBefore = logged.map(({ at: when, ...point }) => ({
      ...point,
      afterTurns: counted.filter(({ at }) => at < when).length,
    }));
    const heard: BiasReading[] = [...heardBefore, ...passes];
    const last = recorded.at(-1);
    const lastPass = last && heardOn(biasOf(last, machine.channels), c);
    const { middleHz, highHz } = moving ?? lastPass ?? { middleHz: 315, highHz: 10_000 };
    const turns = counted.map((one) => one.turns!);
    const screw: BiasScrew = {
      about: JSON.stringify([
        job.id,
        circumstances.recordingOn,
        adjuster?.id,
        channel,
        from < 0 ? "" : since,
      ]),
      turns,
      heard,
      beside: [],
      standing,
      tones: { middleHz, highHz, speedCmPerS: job.speedCmPerS },
      overBiasDb,
    };
    const stood = tones?.before && heardOn(tones.before, c);
    return {
      channel,
      adjuster,
      last: moving
        ? { heard: moving, fresh: standing !== null }
        : last && lastPass
          ? { heard: lastPass, fresh: last.fresh }
          : null,
      screw: heard.length > 0 || standing ? screw : null,
      moving: moving ?? null,
      moves: moving && stood ? hasMoved(moving, stood) : false,
      overBiasDb,
    };
  });
  return sides.map((side) => ({ ...side, screw: side.screw && withBeside(side, side.screw, sides) }));
}

/** A screw that sets both channels, with what was measured of the other. */
function withBeside({ adjuster, channel }: HeardSide, screw: BiasScrew, sides: HeardSide[]): BiasScrew {
  const others = sides.filter((one) => one.channel !== channel && one.adjuster?.id === adjuster?.id);
  return { ...screw, beside: others.flatMap((one) => one.screw?.heard ?? []) };
}

const liveAt = ({ middleDb, highDb, thirdDb }: BiasHeard, afterTurns: number): BiasReading => ({
  middleDb,
  highDb,
  thirdDb,
  afterTurns,
});

/** A level that trembles by less is the same, or its law would be sought anew with each result. */
const ROUNDED_DB = 0.05;
const rounded = (heard: BiasHeard): BiasHeard => ({
  ...heard,
  middleDb: ROUNDED_DB * Math.round(heard.middleDb / ROUNDED_DB),
  highDb: ROUNDED_DB * Math.round(heard.highDb / ROUNDED_DB),
});

/** Middle, high and third of each moment that was logged on a blank tape. */
function loggedPoints(readings: Reading[], channel: string, recordingOn: string | undefined) {
  const moments = new Map<string, Map<string, number>>();
  for (const { quantity, context, at, value, station } of inForce(readings)) {
    if (station !== "bias" || context.channel !== channel || context.recordingOn !== recordingOn) continue;
    moments.set(at, (moments.get(at) ?? new Map<string, number>()).set(quantity, value));
  }
  return [...moments].flatMap(([at, values]) => {
    const [middleDb, highDb] = [values.get("bias.middle"), values.get("bias.high")];
    if (middleDb === undefined || highDb === undefined) return [];
    return [{ at, middleDb, highDb, thirdDb: values.get("bias.third") ?? null }];
  });
}
