import type { HeardMark } from "./mark-detector";
import type { Programme, ProgrammeMarks, Section } from "./programme";
import type { Recognition, RecognisedSection } from "./recognition";

const RATIOS_AGREE = 0.02;
const EDGE_SECONDS = 0.05;
/** Less of a section says nothing. */
const SHORTEST_SECONDS = 0.2;

/**
 * Where each section of a marked programme stands, by the marks that were heard. One that was played more than once is
 * taken from its last play that is whole; one that was broken off, or is still playing, is among the repeats.
 * @param marks in the order that they were heard
 * @param untilSeconds how far was heard
 */
export function recogniseByMarks(
  marks: readonly HeardMark[],
  { sections, marks: carried }: Programme,
  untilSeconds: number,
): Recognition {
  const plays = carried ? playsOf(marks, sections, carried, untilSeconds) : [];
  const chosen = new Map<number, Play>();
  for (const play of plays) if (play.whole) chosen.set(play.index, play);
  const best = [...chosen.values()].sort((a, b) => a.startSeconds - b.startSeconds);
  return {
    sections: best.map(asHeard(sections)),
    repeats: plays.filter((play) => chosen.get(play.index) !== play).map(asHeard(sections)),
    speedRatio: plays.length > 0 ? meanRatio(plays) : null,
    strangers: [],
    doubt: null,
  };
}

/** One time through a marked programme. */
export interface HeardPass {
  /** As its marks say; 1 where they do not. */
  pass: number;
  /** What was heard of it, in playing order, each section once and to its end. */
  sections: RecognisedSection[];
  /** Other goes at the same pass: before a rewind, broken off, or recorded again. */
  retries: number;
  speedRatio: number;
}

/** One go at a pass, as it is heard from its first mark on. */
export interface HeardGo {
  pass: number;
  /** Where its first mark began, by which it is known. */
  atSeconds: number;
  /** What was heard of it to its end so far. */
  sections: RecognisedSection[];
  speedRatio: number;
}

/** Every go at a marked programme, in the order that they were heard. */
export function goesByMarks(
  marks: readonly HeardMark[],
  { sections, marks: carried }: Programme,
  untilSeconds: number,
): HeardGo[] {
  if (!carried) return [];
  const goes: Play[][] = [];
  for (const play of playsOf(marks, sections, carried, untilSeconds)) {
    const go = goes.at(-1);
    const before = go?.at(-1);
    if (go && before && before.pass === play.pass && before.index < play.index) go.push(play);
    else goes.push([play]);
  }
  return goes.map((go) => ({
    pass: go[0].pass,
    atSeconds: go[0].markSeconds,
    sections: go.filter(({ whole }) => whole).map(asHeard(sections)),
    speedRatio: meanRatio(go),
  }));
}

/**
 * The passes of a marked programme, by number. Nothing of one go at a pass is mixed with another: what was turned in
 * between nobody knows. Of several goes the last whole one counts, or else the one with most in it.
 */
export function passesByMarks(
  marks: readonly HeardMark[],
  programme: Programme,
  untilSeconds: number,
): HeardPass[] {
  const passes = new Map<number, HeardGo[]>();
  for (const go of goesByMarks(marks, programme, untilSeconds))
    if (go.sections.length > 0) passes.set(go.pass, [...(passes.get(go.pass) ?? []), go]);
  return [...passes]
    .toSorted(([a], [b]) => a - b)
    .map(([pass, goes]) => {
      const { sections, speedRatio } = goes.reduce((one, other) =>
        other.sections.length >= one.sections.length ? other : one,
      );
      return { pass, sections, retries: goes.length - 1, speedRatio };
    });
}

/** The mean of ratios is that of their logarithms. */
const meanRatio = (plays: readonly Play[]): number =>
  Math.exp(plays.reduce((sum, { ratio }) => sum + Math.log(ratio), 0) / plays.length);

interface Play {
  index: number;
  /** Which time through, 1 where the marks do not say. */
  pass: number;
  startSeconds: number;
  endSeconds: number;
  ratio: number;
  /** Where the mark before it began. */
  markSeconds: number;
  /** Nothing broke it off. */
  whole: boolean;
}

function playsOf(
  marks: readonly HeardMark[],
  sections: readonly Section[],
  { digit, apartSeconds, places }: ProgrammeMarks,
  untilSeconds: number,
): Play[] {
  const isOwn = (mark: HeardMark) => mark.sequenceDigit === digit && mark.segment < apartSeconds.length;
  const own = marks.filter(isOwn);
  // between two marks the tape itself says how fast it ran; one mark alone is too short to tell well
  const measured = own.map((mark, i) => {
    const next = own[i + 1];
    if (next?.segment !== mark.segment + 1 || next.pass !== mark.pass) return null;
    const ratio = apartSeconds[mark.segment] / (next.atSeconds - mark.atSeconds);
    return Math.abs(ratio / mark.speedRatio - 1) < RATIOS_AGREE ? ratio : null;
  });
  return own.flatMap((mark, i) => {
    const { ratio } = measured
      .flatMap((ratio, j) => (ratio === null ? [] : [{ ratio, away: Math.abs(j - i) }]))
      .reduce((a, b) => (b.away < a.away ? b : a), { ratio: mark.speedRatio, away: Infinity });
    const next = marks[marks.indexOf(mark) + 1];
    const brokenOff = Math.min(untilSeconds, next?.atSeconds ?? Infinity);
    return places.flatMap(({ mark: before, afterSeconds }, index): Play[] => {
      if (before !== mark.segment) return [];
      const startSeconds = mark.atSeconds + afterSeconds / ratio;
      const endSeconds = startSeconds + sections[index].seconds / ratio;
      const whole = endSeconds <= brokenOff + EDGE_SECONDS;
      const pass = mark.pass ?? 1;
      const markSeconds = mark.atSeconds;
      const play = {
        index,
        pass,
        markSeconds,
        startSeconds,
        endSeconds: Math.min(endSeconds, brokenOff),
        ratio,
        whole,
      };
      return whole || play.endSeconds - startSeconds > SHORTEST_SECONDS ? [play] : [];
    });
  });
}

const asHeard =
  (sections: readonly Section[]) =>
  ({ index, startSeconds, endSeconds, ratio }: Play): RecognisedSection => ({
    index,
    startSeconds,
    endSeconds,
    beginsSeconds: startSeconds,
    frequencyHz: ratio * sections[index].frequencyHz,
    levelDb: null,
  });
