import type { Samples } from "@/core/dsp/signal";
import { OffsetRemoval } from "@/core/dsp/offset-removal";
import type { HeardSegment } from "./heard-segment";
import { heardSegments } from "./heard-segments";
import { MarkDetector } from "./mark-detector";
import { sweepShape, type Programme, type Section } from "./programme";
import type { Recognition, RecognisedSection } from "./recognition";
import {
  goesByMarks,
  passesByMarks,
  recogniseByMarks,
  type HeardGo,
  type HeardPass,
} from "./recognise-by-marks";
import { recogniseByTones } from "./recognise-by-tones";
import { ToneFrames } from "./tone-frames";

const SAME_TONE = 0.015;
/** What was heard until just now still plays. */
export const STILL_PLAYING_SECONDS = 0.8;
/** Silence for so long where a section should sound: it was broken off. */
const BROKEN_OFF_SECONDS = 1.5;

interface Options {
  /** Bounds what is remembered of the tones of a source without an end. */
  keepSeconds?: number;
  /** Whether programmes are asked for that carry marks. */
  marks: boolean;
}

/** What plays now of a marked programme. */
export interface PlayingSection {
  programme: Programme;
  /** Which of its sections, and where that was heard. */
  heard: RecognisedSection;
}

/**
 * Hears what is played: which band of a reference tape, or which part of a sequence. Push blocks of one or more channels
 * (the first two are used), ask at any time, or once after `finish` for a whole recording.
 */
export class ProgrammeRecogniser {
  private readonly frames: ToneFrames;
  private readonly detector: MarkDetector | null;
  private readonly offsets: OffsetRemoval[];
  private pushedSeconds = 0;
  /** What was heard up to a moment, for the questions that are asked of it. */
  private cut: { atSeconds: number; heard: HeardSegment[] } | null = null;

  constructor(
    private readonly sampleRateHz: number,
    channelCount: number,
    { keepSeconds, marks }: Options,
  ) {
    this.frames = new ToneFrames(sampleRateHz, channelCount, keepSeconds);
    this.detector = marks ? new MarkDetector(sampleRateHz) : null;
    this.offsets = Array.from({ length: Math.min(2, channelCount) }, () => new OffsetRemoval(sampleRateHz));
  }

  /** How much was pushed. */
  get heardSeconds(): number {
    return this.pushedSeconds;
  }

  /** Up to when tones are known. */
  get seconds(): number {
    return this.frames.length === 0 ? 0 : this.frames.secondsOf(this.frames.length - 1);
  }

  /** When the last mark was heard that one of these programmes carries; null before any. */
  lastMarkSeconds(programmes: readonly Programme[]): number | null {
    const last = this.detector?.marks.findLast(({ sequenceDigit }) =>
      programmes.some(({ marks }) => marks?.digit === sequenceDigit),
    );
    return last?.atSeconds ?? null;
  }

  push(sound: Samples[]): void {
    const block = sound.map((x, c) => this.offsets[c]?.push(x) ?? x);
    this.frames.push(block);
    this.detector?.push(block);
    this.pushedSeconds += block[0].length / this.sampleRateHz;
  }

  /** The recording has ended. */
  finish(): void {
    this.frames.finish();
    this.cut = null;
  }

  /** Tones, noises and silences, cut once for all that is asked before the next block. */
  private get heard(): HeardSegment[] {
    if (this.cut?.atSeconds !== this.pushedSeconds)
      this.cut = { atSeconds: this.pushedSeconds, heard: heardSegments(this.frames) };
    return this.cut.heard;
  }

  /** What was heard of a programme: by its marks where it carries any, else by its tones. */
  recognise(programme: Programme): Recognition {
    if (programme.marks) {
      if (!this.detector) throw new Error(`Marks are not listened for; ${programme.name} carries some.`);
      return recogniseByMarks(this.detector.marks, programme, this.heardSeconds);
    }
    const sweeps = programme.sections.filter(({ kind }) => kind === "sweep").map(sweepShape);
    const heard = sweeps.length > 0 ? heardSegments(this.frames, sweeps) : this.heard;
    return recogniseByTones(heard, programme);
  }

  /** Each time through a marked programme, as its marks say and its tones do not deny. */
  passes(programme: Programme): HeardPass[] {
    const passes = passesByMarks(this.detector?.marks ?? [], programme, this.heardSeconds);
    return passes.filter(({ sections }) => fitOf(programme, sections, this.heard) > 0);
  }

  /** Every go at a marked programme so far, as its marks say and its tones do not deny. */
  goes(programme: Programme): HeardGo[] {
    const goes = goesByMarks(this.detector?.marks ?? [], programme, this.heardSeconds);
    return goes.filter(({ sections }) => fitOf(programme, sections, this.heard) >= 0);
  }

  /** The steady tones alone, whatever they belong to. */
  tones(): HeardSegment[] {
    return this.heard.filter(({ kind }) => kind === "tone");
  }

  /**
   * The marked programme that a recording holds most of, as its marks say and its tones do not deny; null for none. Two that
   * cannot be told apart are a doubt.
   */
  best(programmes: readonly Programme[]): { programme: Programme; recognition: Recognition } | null {
    if (!this.detector || this.detector.marks.length === 0) return null;
    const found = programmes
      .filter(({ marks }) => marks !== null)
      .map((programme) => ({ programme, recognition: this.recognise(programme) }))
      .filter(({ recognition }) => recognition.sections.length > 0)
      .map((one) => ({ ...one, fits: fitOf(one.programme, one.recognition.sections, this.heard) }))
      .toSorted((a, b) => b.fits - a.fits);
    if (found.length === 0 || found[0].fits <= 0) return null;
    const [{ programme, recognition, fits }] = found;
    const others = found.filter((other) => other.fits === fits).slice(1);
    const doubt =
      others.length > 0
        ? `It may as well be ${others.map(({ programme: { name } }) => name).join(" or ")}: what was heard is the same in both.`
        : null;
    return { programme, recognition: { ...recognition, doubt } };
  }

  /**
   * What plays now of marked programmes, by the last marks and by what was heard since; null where nothing does, or where
   * several differ in what it would be.
   */
  playing(programmes: readonly Programme[]): PlayingSection | null {
    const marks = this.detector?.marks ?? [];
    const last = marks.at(-1);
    if (!last) return null;
    const now = this.heardSeconds;
    const run = marks.slice(marks.findLastIndex((mark) => mark.sequenceDigit !== last.sequenceDigit) + 1);
    const candidates = programmes.flatMap((programme) => {
      const { sections, repeats } = recogniseByMarks(run, programme, now);
      const plays = [...sections, ...repeats];
      const at = plays.find(({ endSeconds }) => endSeconds > now - STILL_PLAYING_SECONDS);
      if (!at || !sounds(programme.sections[at.index], at, this.heard, now)) return [];
      return [{ programme, at, fits: fitOf(programme, plays, this.heard) }];
    });
    const most = Math.max(...candidates.map(({ fits }) => fits));
    const best = candidates.filter(({ fits }) => fits === most);
    if (best.length === 0) return null;
    const [{ programme, at }] = best;
    const section = programme.sections[at.index];
    const same = best.every((other) => alike(other.programme.sections[other.at.index], section));
    if (!same) return null;
    const name = best.map((other) => other.programme.name).join(" or ");
    return { programme: { ...programme, name }, heard: at };
  }
}

const alike = (a: Section, b: Section): boolean =>
  a.kind === b.kind &&
  a.frequencyHz === b.frequencyHz &&
  a.levelDb === b.levelDb &&
  a.secondHz === b.secondHz &&
  a.toFrequencyHz === b.toFrequencyHz;

/** How many sections are where the marks say, those less whose tone is another than the one that was heard there. */
const fitOf = (
  { sections }: Programme,
  plays: readonly RecognisedSection[],
  heard: readonly HeardSegment[],
): number =>
  plays.reduce((sum, play) => {
    if (sections[play.index].kind !== "tone") return sum + 1;
    const middle = (play.startSeconds + play.endSeconds) / 2;
    const there = heard.find(
      ({ kind, startSeconds, endSeconds }) => kind === "tone" && startSeconds < middle && endSeconds > middle,
    );
    return sum + (there && !sameTone(there, play) ? -1 : 1);
  }, 0);

const sameTone = (a: { frequencyHz: number }, b: { frequencyHz: number }): boolean =>
  Math.abs(Math.log(a.frequencyHz / b.frequencyHz)) < SAME_TONE;

/** Whether what the marks promise is heard now: its own tone, or at least no long silence where it should sound. */
function sounds(
  { kind }: Section,
  play: RecognisedSection,
  heard: readonly HeardSegment[],
  now: number,
): boolean {
  const since = heard.filter(({ endSeconds }) => endSeconds > play.startSeconds);
  switch (kind) {
    case "tone":
      return since.some(
        (tone) =>
          tone.kind === "tone" && tone.endSeconds > now - STILL_PLAYING_SECONDS && sameTone(tone, play),
      );
    case "two-tone":
    case "sweep":
    case "noise":
      return !since.some(
        ({ kind: what, startSeconds, endSeconds }) =>
          what === "silence" && endSeconds - Math.max(startSeconds, play.startSeconds) > BROKEN_OFF_SECONDS,
      );
    case "silence":
      return true;
  }
}
