import { peakToHear, roughPlace, type HeardSchool } from "@/core/guidance/bias-answers";
import { placesHeard } from "@/core/guidance/bias-law";
import { turnsTo, type BiasKnown } from "@/core/guidance/bias-screw";
import { directionInWords, turnInWords, type TurnAdvice } from "@/core/guidance/turn-guidance";
import { inForce } from "@/core/records/job-records";
import type { Adjuster } from "@/core/records/machine";
import { fixed } from "@/core/text/number-text";
import { nothingAdvised, type Advised } from "./advised";
import { adviseByNumber } from "./advise-by-number";
import { tapeDoubt } from "./bias-doubt";
import { BIAS_QUANTITIES } from "./bias-figures";
import { typedLast } from "./bias-meter";
import { biasLimitOf, schoolOf } from "./bias-school";
import { BIAS_SCREWS, biasNow, biasSides, errorOf } from "./bias-sides";
import type { OnTheBench } from "./on-the-bench";

const TRIAL_TURNS = 0.125;
/** Nearer than this share of the limit there is nothing to gain by turning. */
const GOOD_ENOUGH_SHARE = 0.3;
const LEAST_SHARE = 0.1;
/** Known to this share of the limit, it passes where it is left near enough. */
const SURE_SHARE = 0.6;

const isContent = (error: ReturnType<typeof errorOf>, limit: number): boolean =>
  error !== null &&
  error.uncertaintyDb < limit &&
  Math.abs(error.errorDb) <= goodEnoughDb(error.uncertaintyDb, limit);

/** So near that it passes with its ± counted in, where it can; never nearer than makes sense to turn. */
const goodEnoughDb = (uncertaintyDb: number, limit: number): number =>
  Math.min(GOOD_ENOUGH_SHARE * limit, Math.max(LEAST_SHARE * limit, 0.95 * limit - uncertaintyDb));

const isSure = (error: ReturnType<typeof errorOf>, limit: number): boolean =>
  error !== null && error.uncertaintyDb <= SURE_SHARE * limit;

/** What a card says of a screw. */
type Said = Pick<Advised, "advice" | "headline" | "reason">;

function turnAdvice(turns: number, { law, slackTurns }: BiasKnown): Omit<Said, "reason"> {
  const advice: TurnAdvice = {
    kind: "turn",
    turns,
    effect: {
      perTurn: law.dbPerTurn,
      slackTurns,
      slackKnown: false,
      models: [],
      lastTurn: { turns, change: 0 },
    },
  };
  return { advice, headline: `${directionInWords(turns)}, ${turnInWords(turns)}` };
}

const NO_TRAVEL =
  "Its school would leave it farther on. Look whether it is this type's screw, then at the oscillator: its supply, its coupling capacitor, a worn head.";

/** While the screw turns and its tones are heard: how far yet, and when to stop. */
function whileTurning(
  known: BiasKnown,
  movesAt: number,
  school: HeardSchool,
  error: ReturnType<typeof errorOf>,
  limit: number,
): Pick<Advised, "advice" | "headline" | "reason" | "turnedSoFar"> {
  const answer = known.answers.find((one) => one.school === school)!;
  const place = answer.turns ?? roughPlace(school, known);
  const yet = place === null ? null : place - movesAt;
  const there = error !== null && Math.abs(error.errorDb) <= GOOD_ENOUGH_SHARE * limit;
  const headline =
    yet === null
      ? "inconclusive"
      : there
        ? "stop there"
        : `${directionInWords(yet)}, ${turnInWords(yet)} more`;
  return {
    advice: { kind: "wait" },
    headline,
    reason: "Told by both tones while it turns. Let it stand two seconds, and say that you turned it.",
    turnedSoFar: movesAt - known.nowTurns,
  };
}

const NOT_READ = { value: null, uncertainty: 0, settled: false };

/** By the maker's figure a screw is turned as by any number; what the meter shows is typed. */
function adviseByMeter(bench: OnTheBench, chosenId: string | null): Advised {
  const last = (channel: string | undefined) => typedLast(bench, channel);
  const advised = adviseByNumber(
    bench,
    {
      station: { ...BIAS_SCREWS, quantities: BIAS_QUANTITIES },
      quantity: "bias.error",
      limit: biasLimitOf(bench.here.machine),
      live: ({ channel }) => {
        const typed = last(channel);
        return typed
          ? { value: typed.reading.value, uncertainty: typed.reading.uncertainty, settled: typed.fresh }
          : NOT_READ;
      },
      hearFirst: "Type what the meter shows, on the left of each channel.",
    },
    chosenId,
  );
  return advised.advice.kind === "wait"
    ? { ...advised, headline: "read the meter", reason: "Type what it shows now, and log it." }
    : advised;
}

/** What the law of a screw says of where to take it. */
function byItsLaw(
  bench: OnTheBench,
  school: HeardSchool,
  adjuster: Adjuster,
  known: BiasKnown,
  error: ReturnType<typeof errorOf>,
  limit: number,
): Said {
  const places = placesHeard(known.points);
  const toPeak =
    school === "over-bias" && places > 1 && !isSure(error, limit)
      ? peakToHear(known.placed, known.points)
      : null;
  const last = inForce(bench.here.adjustments).findLast(
    ({ adjusterId, turns }) => adjusterId === adjuster.id && turns !== 0,
  );
  const isAtEnd = (turns: number) => last?.atStop === true && turns * (last.turns ?? 0) > 0;
  const turnsToPeak = toPeak === null ? null : turnsTo(toPeak, known);
  if (turnsToPeak !== null && !isAtEnd(turnsToPeak))
    return {
      ...turnAdvice(turnsToPeak, known),
      reason:
        "To where the high tone is loudest: over-bias is a drop from there, and it was not heard there yet. From there back.",
    };
  if (isContent(error, limit))
    return {
      advice: { kind: "leave", effect: null },
      headline: "leave it there",
      reason: "Within reach of what can be known. Log it as left.",
    };
  if (places < 2)
    return {
      advice: { kind: "trial", turns: TRIAL_TURNS },
      headline: `try ${turnInWords(TRIAL_TURNS)}, clockwise`,
      reason: "A small trial turn shows what this screw does. Turn, say so, and let it be heard again.",
    };
  const answer = known.answers.find((one) => one.school === school)!;
  if (answer.turns === null && known.doubt === "direction" && last?.atStop !== true) {
    const turns = TRIAL_TURNS * Math.sign(last?.turns ?? 1);
    return {
      advice: { kind: "trial", turns },
      headline: `${directionInWords(turns)}, ${turnInWords(turns)} more`,
      reason: answer.says,
    };
  }
  const place = answer.turns ?? roughPlace(school, known);
  if (place === null) return { advice: { kind: "unclear" }, headline: "inconclusive", reason: answer.says };
  const turns = turnsTo(place, known);
  const dbPerTurn = known.law.dbPerTurn;
  if (isAtEnd(turns))
    return {
      advice: { kind: "unclear" },
      headline: "no more travel this way",
      reason: NO_TRAVEL,
    };
  if (answer.turns === null)
    return {
      ...turnAdvice(turns, known),
      reason: `A rough estimate, to measure there next. ${answer.says}`,
    };
  return {
    ...turnAdvice(turns, known),
    reason: `${Math.round(360 * Math.abs(turns))}°, known to ±${Math.round(360 * answer.uncertaintyTurns)}°: ${answer.says} This screw gives ${fixed(dbPerTurn, 1, true)} dB of bias a turn.`,
  };
}

/** Which screw to turn, and how far, by the school of the job. */
export function adviseBias(bench: OnTheBench, chosenId: string | null): Advised {
  const { machine, job } = bench.here;
  const { lacks, tones } = biasNow(bench);
  const chosen = schoolOf(job);
  if (chosen === "makers-figure") return adviseByMeter(bench, chosenId);
  const limit = biasLimitOf(machine);
  const all = biasSides(bench);
  const sides = all.flatMap((side) =>
    side.adjuster ? [{ side, adjuster: side.adjuster, error: errorOf(chosen, side) }] : [],
  );
  const adjusters = [...new Set(sides.map(({ adjuster }) => adjuster))];
  const farthest = sides
    .toSorted((a, b) => Math.abs(b.error?.errorDb ?? 0) - Math.abs(a.error?.errorDb ?? 0))
    .at(0);
  // without a choice: what moves, then what is in hand until it is content, then what is farthest off
  const inHand = inForce(bench.here.adjustments).at(-1)?.adjusterId;
  const begun = sides.find(({ adjuster, error }) => adjuster.id === inHand && !isContent(error, limit));
  const moving = sides.find(({ side }) => side.moves);
  const at = sides.find(({ adjuster }) => adjuster.id === chosenId) ?? moving ?? begun ?? farthest;
  const toSet = {
    quantity: "bias.error",
    value: at?.error?.errorDb ?? null,
    uncertainty: at?.error?.uncertaintyDb ?? 0,
    settled: lacks === null,
  };
  if (!at) return nothingAdvised(toSet);
  const said = { adjusters, adjuster: at.adjuster, toSet, target: 0, readElsewhere: null, peak: null };
  const doubt = tapeDoubt(bench, all);
  if (doubt) return { ...said, advice: { kind: "unclear" }, headline: "look at the tape", reason: doubt };
  const { known, movesAt } = at.side;
  if (known && movesAt !== null) return { ...said, ...whileTurning(known, movesAt, chosen, at.error, limit) };
  if (tones !== null && lacks !== null)
    return {
      ...said,
      advice: { kind: "wait" },
      headline: at.side.moves ? "say that you turned it" : "let it settle",
      reason: lacks,
    };
  if (at.side.thinking)
    return {
      ...said,
      advice: { kind: "wait" },
      headline: "a moment",
      reason: "What was heard is held against what is known of this screw.",
    };
  if (lacks !== null || !known)
    return { ...said, advice: { kind: "wait" }, headline: "record the sequence", reason: lacks ?? "" };
  return { ...said, ...byItsLaw(bench, chosen, at.adjuster, known, at.error, limit) };
}
