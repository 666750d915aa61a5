import type { TransportEvent } from "@/core/measure/transport-events";
import { median } from "@/core/dsp/quantile";
import { gainAt } from "@/core/dsp/filter-section";
import { flutterWeighting } from "@/core/standards/flutter-weighting";
import type { PartRole } from "@/core/workshop/machine-part";
import type { FoundPart, PartFinding } from "./find-parts";

/** What is known of a transport; null for what was not measured. */
export interface TransportEvidence {
  finding: PartFinding | null;
  /** Largest weighted peak flutter that passes, percent. */
  flutterLimitPercent: number;
  speedErrorPercent: number | null;
  speedUncertaintyPercent: number;
  speedLimitPercent: number;
  /** Speed of side B or the other direction less that of side A. */
  sideDifferencePercent: number | null;
  /** Speed at the end of the reel less that at its start. */
  reelDifferencePercent: number | null;
  /** Speed on battery less that on mains. */
  supplyDifferencePercent: number | null;
  /** Change of speed a minute, with what it is uncertain by. */
  driftPercentPerMinute: number | null;
  driftUncertainty: number;
  events: TransportEvent[];
  watchedSeconds: number;
}

export const NOTHING_KNOWN: TransportEvidence = {
  finding: null,
  flutterLimitPercent: 0.15,
  speedErrorPercent: null,
  speedUncertaintyPercent: 0,
  speedLimitPercent: 0.5,
  sideDifferencePercent: null,
  reelDifferencePercent: null,
  supplyDifferencePercent: null,
  driftPercentPerMinute: null,
  driftUncertainty: 0,
  events: [],
  watchedSeconds: 0,
};

/** A likely reason, in the order in which an experienced eye would look. */
export interface Explanation {
  /** What is probably at fault: a part of the machine by its name, or a kind of trouble. */
  fault: string;
  /** The reading that speaks for it. */
  because: string;
  cure: string;
  /** How far beyond what is harmless: 1 is just worth mentioning. */
  weight: number;
}

/** Parts whose own weighted flutter stays below this share of the limit are as they should be. */
const HARMLESS_SHARE = 0.4;
const NOISE_PEAKS = 2.5;
const SLIPS_A_MINUTE = 0.5;
const RHYTHM = 0.35;
/** Nothing else can be judged of a speed that still drifts. */
const WARM_UP_FIRST = 3.1;

const CURES: Record<PartRole, string> = {
  capstan:
    "Clean and polish the capstan; look for a bent shaft and a belt track worn into its flywheel, then for play in its bearing.",
  "pinch roller":
    "Clean the roller with a rubber cleaner and feel for a flat, cracks or a hard, shiny face; replace it if it is not round and soft.",
  idler: "Clean or replace the idler's tyre; check that it has the right width and swings freely.",
  guide: "Clean the guide roller and its bearing; a drop of light oil on the pin, none on the tape's side.",
  motor:
    "Check the motor's bearings, its mount and its supply; a motor that cogs under load wants new bearings or brushes.",
  belt: "Look for a seam, a lump or a set bend; turn the belt so that its seam does not bear on the motor pulley, or replace it.",
  reel: "Check the reel table and hub for a wobble, the pack for an uneven wind, and the take-up for a tug once a turn.",
  other: "Stop the machine and turn the part by hand: feel for a tight spot, a wobble or a flat.",
};

const percent = (value: number, decimals = 2): string =>
  `${value < 0 ? "−" : value > 0 ? "+" : ""}${Math.abs(value).toFixed(decimals)} %`;

/**
 * What readings of a transport usually mean, most telling first. Suggestions, each with its evidence; an empty list
 * when nothing stands out.
 */
export function explainTransport(evidence: TransportEvidence): Explanation[] {
  return [
    ...fromEvents(evidence),
    ...fromParts(evidence),
    ...fromNoise(evidence),
    ...fromSpeed(evidence),
  ].sort((a, b) => b.weight - a.weight);
}

const WEIGHTING_RATE_HZ = 1600;
const WEIGHTING = flutterWeighting(WEIGHTING_RATE_HZ);

/** What a part adds to the weighted meters, as a peak. */
export function weightedPeakOf(part: FoundPart): number {
  const squares = part.harmonics.reduce(
    (sum, h) => sum + (h.peakPercent * gainAt(WEIGHTING, h.rateHz, WEIGHTING_RATE_HZ)) ** 2,
    0,
  );
  // a pulse stands higher than the root of its harmonics' squares
  return Math.sqrt(squares) * (part.harmonics.length > 3 ? 1.6 : 1);
}

function fromParts({ finding, flutterLimitPercent }: TransportEvidence): Explanation[] {
  if (!finding) return [];
  return finding.parts.flatMap((part): Explanation[] => {
    const weight = weightedPeakOf(part) / (HARMLESS_SHARE * flutterLimitPercent);
    if (weight < 1) return [];
    const alike =
      part.indistinguishableFrom.length > 0 ? ` (or ${part.indistinguishableFrom.join(" or ")})` : "";
    const kind =
      part.shape === "wave"
        ? `a line at ${part.rateHz.toFixed(2)} Hz`
        : `a short ${part.shape} each turn, ${part.rateHz.toFixed(2)} a second`;
    return [
      {
        fault: `${part.part}${alike}`,
        because: `${kind} of ±${part.peakPercent.toFixed(3)} %, ${part.sharePercent.toFixed(0)} % of the flutter`,
        cure: CURES[part.role],
        weight,
      },
    ];
  });
}

function fromNoise({ finding, flutterLimitPercent, events }: TransportEvidence): Explanation[] {
  if (!finding) return [];
  const { wander, rough, scrape } = finding.restRmsPercent;
  const harmless = HARMLESS_SHARE * flutterLimitPercent;
  const found: Explanation[] = [];
  const add = (fault: string, because: string, cure: string, weight: number) => {
    if (weight >= 1) found.push({ fault, because, cure, weight });
  };
  add(
    "dry bearing",
    `rough running without a rhythm, ${rough.toFixed(3)} % RMS from 2 to 20 Hz`,
    "Clean and oil the capstan and motor bearings; see whether the flywheel spins on freely with the belt off.",
    (NOISE_PEAKS * rough) / harmless / 1.5,
  );
  if (events.length === 0)
    add(
      "slow wander",
      `the speed wanders without a rhythm, ${wander.toFixed(3)} % RMS below 2 Hz`,
      "Let it warm up; then look for a tired belt, a greasy roller, a weak take-up, stiff grease in the mechanism.",
      (NOISE_PEAKS * 0.5 * wander) / harmless / 1.5,
    );
  add(
    "scrape",
    `fast, rough flutter, ${scrape.toFixed(3)} % RMS from 20 to 200 Hz`,
    "Clean guides, heads and pads; a dry or sticky tape does the same, so try another tape first.",
    (NOISE_PEAKS * 0.25 * scrape) / harmless / 1.5,
  );
  return found;
}

function fromEvents({ events, watchedSeconds }: TransportEvidence): Explanation[] {
  const slips = events.filter(({ kind }) => kind === "slip" || kind === "stall");
  const aMinute = (60 * slips.length) / Math.max(30, watchedSeconds);
  if (aMinute < SLIPS_A_MINUTE || inRhythm(slips)) return [];
  const deepest = Math.min(...slips.map(({ percent: p }) => p ?? -100));
  return [
    {
      fault: "slipping belt or pinch roller",
      because: `the speed fell ${slips.length} ${slips.length === 1 ? "time" : "times"} in ${Math.round(watchedSeconds)} s, by up to ${Math.abs(deepest).toFixed(1)} %, at no steady rhythm`,
      cure: "Clean belt, pulleys, capstan and roller of oil and polish; then check belt tension and roller pressure.",
      weight: 4 * Math.max(1, aMinute),
    },
  ];
}

/** Falls that come evenly are a part's, whose line tells it by name. */
function inRhythm(events: TransportEvent[]): boolean {
  if (events.length < 5) return false;
  const pauses = events.slice(1).map(({ atSeconds }, i) => atSeconds - events[i].atSeconds);
  const usual = median(pauses);
  return pauses.filter((p) => Math.abs(p - usual) < RHYTHM * usual).length > 0.7 * pauses.length;
}

function fromSpeed(e: TransportEvidence): Explanation[] {
  const found: Explanation[] = [];
  const limit = e.speedLimitPercent;
  const differs = (value: number | null, fault: string, where: (shown: string) => string, cure: string) => {
    if (value !== null && Math.abs(value) > HARMLESS_SHARE * limit)
      found.push({ fault, because: where(percent(value)), cure, weight: (2 * Math.abs(value)) / limit });
  };
  differs(
    e.sideDifferencePercent,
    "sides differ",
    (shown) => `side B runs ${shown} against side A`,
    "Shell friction or take-up torque: try another shell, clean that direction's roller; then share the error between the sides.",
  );
  differs(
    e.reelDifferencePercent,
    "speed changes along the reel",
    (shown) => `${shown} from the start of the reel to its end`,
    "Hold-back tension too high or the pinch roller slips: check tension, roller pressure and a greasy capstan.",
  );
  differs(
    e.supplyDifferencePercent,
    "battery and mains differ",
    (shown) => `${shown} on battery against mains`,
    "Fresh or charged cells, clean contacts and battery springs first; then the motor's regulator.",
  );
  if (
    e.driftPercentPerMinute !== null &&
    Math.abs(e.driftPercentPerMinute) > 2 * e.driftUncertainty &&
    Math.abs(e.driftPercentPerMinute) > 0.2 * limit
  )
    found.push({
      fault: "still warming up",
      because: `the speed drifts by ${percent(e.driftPercentPerMinute)} a minute`,
      cure: "Let it run for ten minutes and measure again before anything is set.",
      weight: WARM_UP_FIRST + (2 * Math.abs(e.driftPercentPerMinute)) / limit,
    });
  if (e.speedErrorPercent !== null && Math.abs(e.speedErrorPercent) > limit + e.speedUncertaintyPercent)
    found.push({
      fault: e.speedErrorPercent < 0 ? "runs slow" : "runs fast",
      because: `${percent(e.speedErrorPercent)} where ±${limit.toFixed(1)} % is allowed`,
      cure:
        e.speedErrorPercent < 0
          ? "Belt tension, slip and drag first; then the speed adjuster. Without one: the slotted motor mount."
          : "The speed adjuster; without one: belt thickness, pulley diameter, supply voltage.",
      weight: Math.min(3, Math.abs(e.speedErrorPercent) / limit),
    });
  return found;
}
