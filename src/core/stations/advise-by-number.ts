import { guidanceScale, shows, taught, type TurnedBy } from "@/core/guidance/taught";
import { adviseTurn, type LearnedTurn, type TurnAdvice } from "@/core/guidance/turn-guidance";
import { headline, reason } from "@/core/guidance/turn-words";
import type { Adjuster, Machine } from "@/core/records/machine";
import type { Reading } from "@/core/records/reading";
import { actingAdjusters } from "./acting-adjusters";
import type { Advised, ToSet } from "./advised";
import { asLogged, saidUnheard } from "./as-logged";
import type { Unit } from "@/core/text/units";
import type { OnTheBench } from "./on-the-bench";
import type { MeasuringStation } from "./station";

/** Within this share of the limit there is nothing more to gain by turning. */
const GOOD_ENOUGH_SHARE = 0.2;
const SMALLEST_GOOD_ENOUGH: Record<Unit, number> = {
  "°": 3,
  dB: 0.12,
  "%": 0.04,
  "′": 0.1,
  dBFS: 0.1,
  s: 1,
  kHz: 0.5,
  "/min": 0.1,
};

/** How a station whose adjusters each bring one number to nought is set. */
export interface ByNumber<Q extends string> {
  station: Pick<MeasuringStation<string, Q>, "id" | "apartBy" | "quantities">;
  /** What its adjusters are set by, as far as that is known now. */
  quantity: Q;
  /** What the adjusters of both channels move. */
  ofBothChannels?: boolean;
  /** The limit of what is set by; a usual one where the machine has none. */
  limit: number;
  /** The number of an adjuster as it stands now; null before it was heard. */
  live(adjuster: Adjuster): Omit<ToSet, "quantity"> | null;
  /** Within this there is nothing more to gain by turning; a share of the limit when left out. */
  goodEnough?: number;
  /** So restless a number is not chased any farther. */
  restless?(toSet: ToSet): number;
  /** What to play before there is a number. */
  hearFirst: string;
  /** Why an adjuster may not be turned by its number at present; null when it may. */
  held?(adjuster: Adjuster): { headline: string; reason: string } | null;
}

/** Which adjuster of such a station to turn and how far. */
export function adviseByNumber<Q extends string>(
  bench: OnTheBench,
  by: ByNumber<Q>,
  chosenId: string | null,
): Advised {
  const { station, quantity, limit } = by;
  const { unit, decimals, name } = station.quantities[quantity];
  const adjusters = actingAdjusters(station, bench);
  const numbers = adjusters.map((adjuster) => ({ adjuster, toSet: standing(bench, by, adjuster) }));
  // without a choice: what is being turned, then what is farthest off
  const farthest = numbers
    .toSorted((a, b) => Math.abs(b.toSet.value ?? 0) - Math.abs(a.toSet.value ?? 0))
    .at(0);
  const named = (id: string | null | undefined) => numbers.find(({ adjuster }) => adjuster.id === id);
  const at = named(chosenId) ?? named(bench.told?.adjusterId) ?? farthest;
  const toSet = at?.toSet ?? { quantity, value: null, uncertainty: 0, settled: true };
  const said = { adjusters, adjuster: at?.adjuster, toSet, target: 0, readElsewhere: null, peak: null };
  // what is in the way now counts more than what was logged before
  const held = at && by.held?.(at.adjuster);
  if (held) return { ...said, advice: { kind: "unclear" }, ...held };
  const asSaid = (advice: TurnAdvice, words: Pick<Advised, "headline" | "reason">): Advised => ({
    ...said,
    advice,
    ...saidUnheard(toSet.unheard, advice, words, by.hearFirst),
  });
  if (!at || toSet.value === null)
    return asSaid({ kind: "wait" }, { headline: "play the tape", reason: by.hearFirst });
  const turnedBy: TurnedBy = { quantity, unit, ofBothChannels: by.ofBothChannels ?? false };
  const scale = guidanceScale(unit);
  const goodEnough =
    by.goodEnough ??
    Math.max(SMALLEST_GOOD_ENOUGH[unit], GOOD_ENOUGH_SHARE * limit, by.restless?.(toSet) ?? 0);
  const { here } = bench;
  const advice = adviseTurn(
    taught({ ...here, readings: ofThisSetting(bench, station) }, at.adjuster, turnedBy),
    {
      value: toSet.value / scale,
      uncertainty: toSet.uncertainty / scale,
      limit: limit / scale,
      goodEnough: goodEnough / scale,
    },
    toSet.settled,
    taughtBefore(bench, at.adjuster, turnedBy),
  );
  const words = { name: name.toLowerCase(), unit, scale, decimals: unit === "°" ? 0 : decimals };
  return asSaid(advice, { headline: headline(advice), reason: reason(advice, words) });
}

/** The number of an adjuster as it stands now, or as it was logged last. */
function standing<Q extends string>(
  bench: OnTheBench,
  { quantity, live, station }: ByNumber<Q>,
  adjuster: Adjuster,
): ToSet {
  const now = live(adjuster);
  return now
    ? { quantity, ...now }
    : asLogged(bench, station.id, quantity, ofThisSetting(bench, station), shows(adjuster));
}

/** The readings that were taken on the blank tape that is recorded on, where a station is kept apart by it. */
function ofThisSetting(
  { here, circumstances }: OnTheBench,
  { apartBy }: Pick<MeasuringStation, "apartBy">,
): Reading[] {
  return apartBy.includes("recordingOn")
    ? here.readings.filter(({ context }) => context.recordingOn === circumstances.recordingOn)
    : here.readings;
}

/** What the latest earlier job that turned an adjuster has taught of it. */
function taughtBefore(
  { prior, here: { machine } }: { prior: OnTheBench["prior"]; here: { machine: Machine } },
  adjuster: Adjuster,
  by: TurnedBy,
): LearnedTurn[] {
  for (const records of prior) {
    const turns = taught({ ...records, machine }, adjuster, by);
    if (turns.length > 0) return turns;
  }
  return [];
}
