import { meanOf } from "@/core/dsp/mean";
import { rmsBetween } from "@/core/dsp/amplitude-spectrum";
import {
  movingLine,
  RateFrames,
  REEL_HARMONICS,
  type MovingLine,
  type PackLimits,
} from "@/core/measure/moving-lines";
import { onceAround, shapeOf, type OnceAround, type TurnShape } from "@/core/measure/once-around";
import { ratePoints, type RatePoint } from "@/core/measure/rate-points";
import { rateLines, type RateLine } from "@/core/measure/rate-lines";
import type { SteadyStretch } from "@/core/measure/steady-stretch";
import {
  partRates,
  roleOf,
  type MachinePart,
  type PartRate,
  type PartRole,
} from "@/core/workshop/machine-part";
import { matchLines, type FixedRate } from "./match-lines";

export interface PartHarmonic {
  order: number;
  rateHz: number;
  peakPercent: number;
}

/** A part that is heard in the flutter. */
export interface FoundPart {
  part: string;
  role: PartRole;
  /** Turns per second; of a reel in the middle of the recording. */
  rateHz: number;
  /** From where to where the rate of a reel moved; null for what stands still. */
  movedHz: [number, number] | null;
  harmonics: PartHarmonic[];
  /** Largest deviation that the part makes by itself. */
  peakPercent: number;
  /** Share of the mean square of the unweighted deviation from 0.1 to 200 Hz. */
  sharePercent: number;
  /** Probability that it is this part and no other that is known of. */
  certainty: number;
  /** Parts that cannot be told from it in this recording. */
  indistinguishableFrom: string[];
  shape: TurnShape;
  /** Deviation over one turn; null for a reel. */
  turn: OnceAround | null;
}

export interface UnexplainedLine {
  rateHz: number;
  peakPercent: number;
  sharePercent: number;
  /** What it may be although no part of the machine turns so. */
  hint: string | null;
}

export interface PartFinding {
  /** Largest share first. */
  parts: FoundPart[];
  unexplained: UnexplainedLine[];
  /** Root mean square of the unweighted deviation, 0.1 to 200 Hz. */
  totalRmsPercent: number;
  /** What no line accounts for, RMS: slow wander (0.1 to 2 Hz), rough running (2 to 20), scrape (20 to 200). */
  restRmsPercent: { wander: number; rough: number; scrape: number };
  /** Peak deviation against rate, for drawing. */
  spectrum: RatePoint[];
  seconds: number;
  resolutionHz: number;
  warnings: string[];
}

/** With less tone no part is named. */
export const SHORTEST_SECONDS = 8;
const REEL_TOLERANCE = 0.03;
const SMALLEST_UNEXPLAINED_SHARE = 0.002;
const MOST_UNEXPLAINED = 8;
const MAINS_HZ = [50, 100, 60, 120];

/**
 * Names the parts of a machine that its flutter comes from.
 *
 * The rate spectrum is read in turns of tape, its lines are matched to what the geometry says that each part turns
 * at while the tape moves as fast as measured; the power of a part is that of all its lines. A reel is told by the
 * way its line moves while the pack changes (long recordings only).
 * @param stretch deviation from the nominal tone, as a fraction
 * @param speedCmPerS nominal tape speed of the recording; parts were counted at `firstSpeedCmPerS`
 */
export function findParts(
  stretch: Pick<SteadyStretch, "deviation" | "rateHz">,
  parts: MachinePart[],
  speedCmPerS: number,
  firstSpeedCmPerS = speedCmPerS,
): PartFinding {
  const { deviation, rateHz } = stretch;
  const seconds = deviation.length / rateHz;
  const warnings: string[] = [];
  if (seconds < SHORTEST_SECONDS)
    return {
      parts: [],
      unexplained: [],
      totalRmsPercent: 0,
      restRmsPercent: { wander: 0, rough: 0, scrape: 0 },
      spectrum: [],
      seconds,
      resolutionHz: seconds > 0 ? 1.5 / seconds : 0,
      warnings: [
        `Only ${seconds.toFixed(1)} s of tone: naming parts takes at least ${SHORTEST_SECONDS} s, and a minute tells close ones apart.`,
      ],
    };
  const mean = meanOf(deviation);
  const { lines, totalPower, resolutionHz, spectrum, even } = rateLines(stretch);
  const speed = speedCmPerS * (1 + mean);
  const rates = partRates(parts, speed, firstSpeedCmPerS);
  const share = (power: number) => (100 * power) / Math.max(totalPower, 1e-30);

  const fixed = rates
    .filter(({ part }) => !("reel" in part))
    .map(({ part, fromHz }): FixedRate => {
      const poles = "poles" in part ? part.poles : undefined;
      return { name: part.name, rateHz: fromHz, sigma: part.tolerancePercent / 200, ...(poles && { poles }) };
    });
  const reels = rates.filter(({ part }) => "reel" in part);
  const highestReelHz = Math.max(0, ...reels.map(({ toHz }) => toHz));
  const moving = reels.length > 0 ? movingReels(deviation, rateHz, reels, 10 * speed, fixed, lines) : [];
  const alongReel = (line: RateLine) =>
    moving.some(({ line: m }) =>
      m.harmonicPower.some((power, h) => {
        const [low, high] = [m.fromHz, m.toHz].map((f) => (h + 1) * f).sort((a, b) => a - b);
        return power > 0 && line.rateHz > low - resolutionHz && line.rateHz < high + resolutionHz;
      }),
    );
  const standing = lines.filter((line) => !alongReel(line));
  const combs = matchLines(standing, fixed, resolutionHz);

  const found: FoundPart[] = [];
  for (const [name, comb] of combs) {
    const part = parts.find((p) => p.name === name) as MachinePart;
    const power = comb.members.reduce((sum, m) => sum + m.power, 0);
    const turn = onceAround(even, rateHz, comb.rateHz);
    found.push({
      part: name,
      role: roleOf(part),
      rateHz: comb.rateHz,
      movedHz: null,
      harmonics: comb.members.map((m) => ({
        order: m.order,
        rateHz: standing[m.line].rateHz,
        peakPercent: peakOf(m.power),
      })),
      peakPercent: comb.members.length === 1 ? peakOf(power) : peakOfTurn(turn, comb.members),
      sharePercent: share(power),
      certainty: comb.certainty,
      indistinguishableFrom: comb.alternatives,
      shape: comb.members.length === 1 ? "wave" : shapeOf(turn),
      turn,
    });
  }
  for (const { part, line } of moving) {
    const power = line.harmonicPower.reduce((a, b) => a + b, 0);
    found.push({
      part: part.name,
      role: roleOf(part),
      rateHz: (line.fromHz + line.toHz) / 2,
      movedHz: [line.fromHz, line.toHz],
      harmonics: line.harmonicPower.flatMap((p, h) =>
        p > 0
          ? [{ order: h + 1, rateHz: ((h + 1) * (line.fromHz + line.toHz)) / 2, peakPercent: peakOf(p) }]
          : [],
      ),
      peakPercent: peakOf(power),
      sharePercent: share(power),
      certainty: line.aboveFloor / (line.aboveFloor + 1),
      indistinguishableFrom: [],
      shape: "wave",
      turn: null,
    });
  }
  const used = new Set([...combs.values()].flatMap((comb) => comb.members.map((m) => m.line)));
  const still = stillReels(standing, used, reels, moving, share);
  found.push(...still);
  found.sort((a, b) => b.sharePercent - a.sharePercent);

  for (const { part, indistinguishableFrom } of found)
    if (indistinguishableFrom.length > 0)
      warnings.push(
        `${part} cannot be told from ${indistinguishableFrom.join(" or ")} in this recording${
          still.some((s) => s.part === part)
            ? ": record for some minutes, so that the packs change"
            : ": their rates are too close; measure the diameters, or turn one by hand and listen"
        }.`,
      );
  const rest = (fromHz: number, toHz: number) => {
    const reels = moving.flatMap(({ line }) =>
      line.harmonicPower.map((power, h) => ({ rateHz: ((h + 1) * (line.fromHz + line.toHz)) / 2, power })),
    );
    const inLines = [...standing, ...reels]
      .filter(({ rateHz: hz }) => hz >= fromHz && hz < toHz)
      .reduce((sum, { power }) => sum + power, 0);
    return 100 * Math.sqrt(Math.max(0, rmsBetween(spectrum, fromHz, toHz) ** 2 - inLines));
  };
  const unexplained = standing
    .filter((line, k) => !used.has(k) && share(line.power) / 100 > SMALLEST_UNEXPLAINED_SHARE)
    .map((line) => ({
      rateHz: line.rateHz,
      peakPercent: peakOf(line.power),
      sharePercent: share(line.power),
      hint: hintFor(line.rateHz, resolutionHz, highestReelHz),
    }))
    .sort((a, b) => b.sharePercent - a.sharePercent)
    .slice(0, MOST_UNEXPLAINED);
  return {
    parts: found,
    unexplained,
    totalRmsPercent: 100 * Math.sqrt(totalPower),
    restRmsPercent: { wander: rest(0.1, 2), rough: rest(2, 20), scrape: rest(20, 200) },
    spectrum: ratePoints(spectrum),
    seconds,
    resolutionHz,
    warnings,
  };
}

const peakOf = (power: number): number => 100 * Math.sqrt(2 * power);

/** Peak of the turn's shape, rebuilt from the orders that were found so that no noise is in it. */
function peakOfTurn({ percent }: OnceAround, members: Array<{ order: number; power: number }>): number {
  const n = percent.length;
  const waves = members
    .filter(({ order }) => order < n / 2)
    .map(({ order, power }) => {
      let re = 0;
      let im = 0;
      for (let i = 0; i < n; i++) {
        re += percent[i] * Math.cos((2 * Math.PI * order * (i + 0.5)) / n);
        im += percent[i] * Math.sin((2 * Math.PI * order * (i + 0.5)) / n);
      }
      return { order, peak: peakOf(power), phase: Math.atan2(im, re) };
    });
  let largest = 0;
  for (let i = 0; i < 360; i++) {
    const at = (2 * Math.PI * i) / 360;
    const sum = waves.reduce((s, { order, peak, phase }) => s + peak * Math.cos(order * at - phase), 0);
    largest = Math.max(largest, Math.abs(sum));
  }
  return largest;
}

interface MovingReel {
  part: MachinePart;
  line: MovingLine;
}

/** Reels whose lines move, strongest first: each is taken out before the next is looked for. */
function movingReels(
  deviation: SteadyStretch["deviation"],
  rateHz: number,
  reels: PartRate[],
  mmPerS: number,
  fixed: FixedRate[],
  lines: RateLine[],
): MovingReel[] {
  const highest = (REEL_HARMONICS + 0.5) * Math.max(...reels.map(({ toHz }) => toHz));
  const frames = new RateFrames(deviation, rateHz, highest);
  // lines that stand still and that a fixed part explains are none of a reel's
  for (const line of lines) if (fixed.some((part) => isOrderOf(line.rateHz, part))) frames.mask(line.rateHz);
  const found: MovingReel[] = [];
  const waiting = reels.map(({ part }) => part);
  while (waiting.length > 0) {
    const line = movingLine(frames, mmPerS, packLimits(waiting));
    if (line === null) break;
    frames.maskPath(
      (t) => mmPerS / (2 * Math.PI * Math.sqrt(line.startRadiusMm ** 2 + line.squareMmPerSecond * t)),
    );
    const which = line.squareMmPerSecond > 0 ? "take-up" : "supply";
    const at = waiting.findIndex((part) => "reel" in part && part.reel === which);
    if (at < 0) break;
    found.push({ part: waiting.splice(at, 1)[0], line });
  }
  return found;
}

/** The widest range of radii that any of the reels can have. */
function packLimits(reels: MachinePart[]): PackLimits {
  const packs = reels.flatMap((part) => ("reel" in part ? [part] : []));
  const thickness = packs[0].tapeThicknessMicrometres;
  return {
    hubRadiusMm: Math.min(...packs.map(({ hubRadiusMm }) => hubRadiusMm)),
    fullRadiusMm: Math.max(...packs.map(({ fullRadiusMm }) => fullRadiusMm)),
    ...(thickness && { tapeThicknessMicrometres: thickness }),
  };
}

const isOrderOf = (rateHz: number, { rateHz: fundamental, sigma }: FixedRate): boolean => {
  const order = Math.round(rateHz / fundamental);
  return order >= 1 && order <= 6 && Math.abs(rateHz / (order * fundamental) - 1) < 2 * sigma;
};

/** In a short recording a reel's line stands still: it is a reel's, but of which one cannot be said. */
function stillReels(
  lines: RateLine[],
  used: Set<number>,
  reels: PartRate[],
  moving: MovingReel[],
  share: (power: number) => number,
): FoundPart[] {
  const waiting = reels.filter(({ part }) => !moving.some((m) => m.part === part));
  if (waiting.length === 0 || moving.length > 0) return [];
  const inRange = (line: RateLine) =>
    waiting.filter(
      ({ fromHz, toHz }) =>
        line.rateHz > fromHz * (1 - REEL_TOLERANCE) && line.rateHz < toHz * (1 + REEL_TOLERANCE),
    );
  return lines
    .map((line, k) => ({ line, k, could: inRange(line) }))
    .filter(({ k, could }) => !used.has(k) && could.length > 0)
    .sort((a, b) => b.line.power - a.line.power)
    .slice(0, waiting.length)
    .map(({ line, k, could }, i): FoundPart => {
      used.add(k);
      const chosen = could[Math.min(i, could.length - 1)].part;
      return {
        part: chosen.name,
        role: roleOf(chosen),
        rateHz: line.rateHz,
        movedHz: null,
        harmonics: [{ order: 1, rateHz: line.rateHz, peakPercent: peakOf(line.power) }],
        peakPercent: peakOf(line.power),
        sharePercent: share(line.power),
        certainty: 1 / could.length,
        indistinguishableFrom: could.filter(({ part }) => part !== chosen).map(({ part }) => part.name),
        shape: "wave",
        turn: null,
      };
    });
}

function hintFor(rateHz: number, resolutionHz: number, highestReelHz: number): string | null {
  const mains = MAINS_HZ.find((f) => Math.abs(rateHz - f) < Math.max(resolutionHz, 0.002 * f));
  if (mains) return `mains ripple at ${mains} Hz in the motor supply, or hum in the signal`;
  if (rateHz < 0.7 * highestReelHz) return "slower than any reel: tension, or a tape that was wound badly";
  return null;
}
