import type { HeardSegment } from "./heard-segment";
import { certifiedFrequencyHz, type Programme, type Section } from "./programme";
import type { Recognition, RecognisedSection } from "./recognition";

const SLOWEST = 0.925;
const FASTEST = 1.075;
const FREQUENCY_TOLERANCE = 0.012;
const CANDIDATE_RATIOS = 6;
const CANDIDATE_GAINS = 12;
/** A section that is shared in frequency with another is told by its level. */
const SAME_FREQUENCY = 0.03;
const LEVEL_TOLERANCE_DB = 4;
const SKIPPED_BAND = 0.12;
const REWIND = 1.2;
const RESUMED = 0.3;
const LONGER_THAN_BAND = 1.25;
/** A tone that has played so long is as likely a section of ten minutes as one of half a minute. */
const LONG_ENOUGH_SECONDS = 30;
/** What goes on with so little between is the same play: its level was turned, or it dropped out. */
const CONTINUED = 0.02;
const CONTINUED_SECONDS = 1;
/** Its level says less then. */
const CONTINUED_LEVEL_SHARE = 0.25;

/**
 * Finds which section of a programme each heard segment is: frequencies must fit with one tape speed within ±7 %, levels
 * must fit where two sections share a frequency, and the order must be that of the tape, with skips, late starts and
 * rewinds allowed at a price.
 */
export function recogniseByTones(segments: HeardSegment[], programme: Programme): Recognition {
  const { sections } = programme;
  const tones = segments.filter(({ kind }) => kind === "tone");
  let best: { score: number; path: Array<[HeardSegment, number]> } | null = null;
  for (const ratio of candidateRatios(segments, sections))
    for (const gainDb of candidateGains(tones, sections, ratio)) {
      const { score, path } = bestPath(segments, sections, ratio, gainDb);
      if (best === null || score > best.score + 1e-9) best = { score, path };
    }
  const path = best?.path ?? [];
  const speedRatio = speedOf(path, sections);
  const plays = joined(path).map(([segment, index]): RecognisedSection => {
    const { kind, startSeconds, beginsSeconds = startSeconds, frequencyHz, leftDb, rightDb } = segment;
    const longest = kind === "silence" ? sections[index].seconds / (speedRatio ?? 1) : Infinity;
    const endSeconds = Math.min(segment.endSeconds, startSeconds + longest);
    const levelDb = { left: leftDb, right: rightDb };
    return { index, startSeconds, endSeconds, beginsSeconds, frequencyHz, levelDb };
  });
  const chosen = new Map<number, RecognisedSection>();
  const length = ({ startSeconds, endSeconds }: RecognisedSection) => endSeconds - startSeconds;
  for (const play of plays) {
    const other = chosen.get(play.index);
    if (!other || length(play) > length(other) - 0.05) chosen.set(play.index, play);
  }
  const once = [...chosen.values()].sort((a, b) => a.startSeconds - b.startSeconds);
  const used = new Set(path.map(([segment]) => segment));
  const strangers = tones.filter((tone) => !used.has(tone) && tone.endSeconds - tone.startSeconds > 1);
  return {
    sections: once,
    repeats: plays.filter((play) => !once.includes(play)),
    speedRatio,
    strangers,
    doubt: doubtOf(
      path.map(([segment]) => segment),
      strangers,
      programme,
    ),
  };
}

/** Pieces of a tone whose level was turned, or that jumps, are one play. */
function joined(path: Array<[HeardSegment, number]>): Array<[HeardSegment, number]> {
  const plays: Array<[HeardSegment, number]> = [];
  for (const [segment, index] of path) {
    const [before, beforeIndex] = plays.at(-1) ?? [null, -1];
    const goesOn =
      before !== null &&
      beforeIndex === index &&
      segment.kind === "tone" &&
      segment.startSeconds - before.endSeconds < CONTINUED_SECONDS;
    if (goesOn) plays[plays.length - 1] = [together(before, segment), index];
    else plays.push([segment, index]);
  }
  return plays;
}

/** Two pieces as one, each counted by its length. */
function together(a: HeardSegment, b: HeardSegment): HeardSegment {
  const [m, n] = [a.endSeconds - a.startSeconds, b.endSeconds - b.startSeconds];
  const mean = (of: (one: HeardSegment) => number) => (m * of(a) + n * of(b)) / (m + n);
  return {
    ...a,
    endSeconds: b.endSeconds,
    frequencyHz: mean(({ frequencyHz }) => frequencyHz),
    leftDb: mean(({ leftDb }) => leftDb),
    rightDb: mean(({ rightDb }) => rightDb),
  };
}

/** Mean of what the recognised tones say, by their length. */
function speedOf(path: Array<[HeardSegment, number]>, sections: readonly Section[]): number | null {
  let [sum, weight] = [0, 0];
  for (const [{ kind, frequencyHz, startSeconds, endSeconds }, index] of path) {
    if (kind !== "tone") continue;
    const seconds = endSeconds - startSeconds;
    sum += seconds * Math.log(frequencyHz / certifiedFrequencyHz(sections[index]));
    weight += seconds;
  }
  return weight > 0 ? Math.exp(sum / weight) : null;
}

/** Speeds at which something heard could be one of the sections, those that explain most first. */
function candidateRatios(segments: HeardSegment[], sections: readonly Section[]): number[] {
  const votes: Array<{ log: number; weight: number }> = [];
  for (const { kind, frequencyHz, startSeconds, endSeconds } of segments)
    for (const section of sections) {
      if (kind !== section.kind || frequencyHz === 0) continue;
      const ratio = frequencyHz / certifiedFrequencyHz(section);
      if (ratio > SLOWEST && ratio < FASTEST)
        votes.push({
          log: Math.log(ratio),
          weight: Math.min(section.seconds, endSeconds - startSeconds) / section.seconds,
        });
    }
  if (votes.length === 0) return [1];
  const support = votes.map(({ log }) => {
    const near = votes.filter((vote) => Math.abs(vote.log - log) < FREQUENCY_TOLERANCE / 2);
    const weight = near.reduce((total, vote) => total + vote.weight, 0);
    return { weight, log: near.reduce((total, vote) => total + vote.log * vote.weight, 0) / weight };
  });
  const kept: number[] = [];
  for (const { log } of support.sort((a, b) => b.weight - a.weight))
    if (kept.length < CANDIDATE_RATIOS && kept.every((other) => Math.abs(other - log) > 0.004))
      kept.push(log);
  return kept.map(Math.exp);
}

const fitsFrequency = (segment: HeardSegment, section: Section, ratio: number) =>
  Math.abs(Math.log(segment.frequencyHz / (certifiedFrequencyHz(section) * ratio)));

const louder = ({ leftDb, rightDb }: HeardSegment) => Math.max(leftDb, rightDb);

/** Levels that the tape's reference level may come out at, in dBFS, those that fit most first. */
function candidateGains(tones: HeardSegment[], sections: readonly Section[], ratio: number): number[] {
  const votes = tones.flatMap((tone) =>
    sections
      .filter(
        (section) => section.kind === "tone" && fitsFrequency(tone, section, ratio) < FREQUENCY_TOLERANCE,
      )
      .map((section) => louder(tone) - section.levelDb),
  );
  if (votes.length === 0) return [0];
  const support = votes.map((gain) => ({
    gain,
    near: votes.filter((other) => Math.abs(other - gain) < 2).length,
  }));
  const kept: number[] = [];
  for (const { gain } of support.sort((a, b) => b.near - a.near))
    if (kept.length < CANDIDATE_GAINS && kept.every((other) => Math.abs(other - gain) > 1)) kept.push(gain);
  return kept;
}

interface Worth {
  /** Of the right pitch and length. */
  worth: number;
  /** What is taken off for a level that is not the band's. */
  levelPrice: number;
}

/** What it is worth to take a segment for a band; null when it cannot be. */
function worthOf(
  segment: HeardSegment,
  section: Section,
  ratio: number,
  gainDb: number,
  shared: boolean,
): Worth | null {
  if (segment.kind !== section.kind) return null;
  const seconds = segment.endSeconds - segment.startSeconds;
  // silence runs on into whatever else is silent
  if (section.kind !== "silence" && seconds * ratio > LONGER_THAN_BAND * section.seconds + 1) return null;
  const share = Math.min(1, (seconds * ratio) / Math.min(section.seconds, LONG_ENOUGH_SECONDS));
  if (section.kind === "tone" || section.kind === "sweep") {
    const off = fitsFrequency(segment, section, ratio);
    const tolerance = section.kind === "sweep" ? 0.2 : FREQUENCY_TOLERANCE;
    if (off > tolerance) return null;
    const offDb = Math.abs(louder(segment) - section.levelDb - gainDb);
    const levelPrice = Math.min(1, (offDb / LEVEL_TOLERANCE_DB) ** 2) * (shared ? 0.9 : 0.1);
    return { worth: 0.2 + 1.8 * share * (1 - 0.3 * (off / tolerance) ** 2), levelPrice };
  }
  // without a pitch only order, length and level can tell
  if (share < 0.6) return null;
  const offDb = louder(segment) - section.levelDb - gainDb;
  if (section.kind === "noise" && Math.abs(offDb) > 15) return null;
  return { worth: 0.7 * share, levelPrice: 0 };
}

function bestPath(segments: HeardSegment[], sections: readonly Section[], ratio: number, gainDb: number) {
  const sharing = sections.map((section, j) =>
    sections.some(
      (other, k) =>
        k !== j &&
        other.kind === "tone" &&
        section.kind === "tone" &&
        Math.abs(Math.log(certifiedFrequencyHz(other) / certifiedFrequencyHz(section))) < SAME_FREQUENCY,
    ),
  );
  const states: Array<{ segment: number; section: number; score: number; from: number }> = [];
  segments.forEach((segment, i) => {
    const here: typeof states = [];
    sections.forEach((section, j) => {
      const found = worthOf(segment, section, ratio, gainDb, sharing[j]);
      if (found === null) return;
      const { worth, levelPrice } = found;
      let [score, from] = [worth - levelPrice, -1];
      states.forEach((state, s) => {
        const pause = segment.startSeconds - segments[state.segment].endSeconds;
        const goesOn = state.section === j && pause < CONTINUED_SECONDS;
        const price = goesOn
          ? CONTINUED + CONTINUED_LEVEL_SHARE * levelPrice
          : stepPrice(state.section, j) + levelPrice;
        const reached = state.score + worth - price;
        if (reached > score) [score, from] = [reached, s];
      });
      here.push({ segment: i, section: j, score, from });
    });
    states.push(...here);
  });
  let at = -1;
  states.forEach(({ score }, s) => {
    if (at < 0 || score > states[at].score) at = s;
  });
  const score = at < 0 ? 0 : states[at].score;
  const path: Array<[HeardSegment, number]> = [];
  for (; at >= 0; at = states[at].from) path.unshift([segments[states[at].segment], states[at].section]);
  return { score, path };
}

function stepPrice(before: number, after: number): number {
  if (after > before) return SKIPPED_BAND * (after - before - 1);
  return after === before ? RESUMED : REWIND;
}

function doubtOf(
  matched: HeardSegment[],
  others: HeardSegment[],
  { name, sections }: Programme,
): string | null {
  const strangers = others.filter((tone) =>
    sections.every(
      (section) => section.kind !== "tone" || fitsFrequency(tone, section, 1) > Math.log(FASTEST),
    ),
  );
  const seconds = (list: HeardSegment[]) =>
    list.reduce((total, { startSeconds, endSeconds }) => total + endSeconds - startSeconds, 0);
  if (seconds(strangers) < 2.5 || seconds(strangers) < seconds(matched)) return null;
  const longest = strangers.reduce((a, b) =>
    b.endSeconds - b.startSeconds > a.endSeconds - a.startSeconds ? b : a,
  );
  return `This can hardly be ${name}: it has no band like the ${longest.frequencyHz.toFixed(0)} Hz that plays. Check tape and tape speed.`;
}
