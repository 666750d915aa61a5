import { MARK_SECONDS } from "@/core/programme/sync-mark";
import type { Programme } from "@/core/programme/programme";
import type { RecognisedSection } from "@/core/programme/recognition";
import { segmentOfSection } from "@/core/signals/programme-of-sequence";
import type { SegmentKind, Sequence } from "@/core/signals/sequence";
import type { SectionPlace } from "./section-meter";

const TONE_SHARE = 0.2;
const BLUR_SECONDS = 0.15;

/** Which segment a section that was heard is of, and what its meter has to know of it. */
export interface PlacedSection {
  segment: number;
  kind: SegmentKind;
  sentDbfs: number;
  place: SectionPlace;
}

/**
 * @param heard a section of the sequence, @param all every section that was heard around it, in which hum cannot be learned
 * @param speedRatio of its pass, for sections without a pitch
 */
export function placedSection(
  sequence: Sequence,
  programme: Programme,
  heard: RecognisedSection,
  speedRatio: number,
  all: readonly RecognisedSection[],
): PlacedSection {
  const { segment, last } = segmentOfSection(programme, heard.index);
  const { kind } = sequence.segments[segment];
  const { frequencyHz: sentHz, levelDb: sentDbfs } = programme.sections[heard.index];
  return {
    segment,
    kind,
    sentDbfs,
    place: {
      ...heard,
      speedRatio: heard.frequencyHz > 0 ? heard.frequencyHz / sentHz : speedRatio,
      colour: kind === "pink" || kind === "white" ? kind : null,
      toneBeforeHz:
        programme.sections.slice(0, heard.index).findLast(({ kind: of }) => of === "tone")?.frequencyHz ??
        null,
      quietSeconds: last ? sequence.gapSeconds : 0,
      isTaken: (seconds, hertz) => all.some((one) => isNear(one, seconds, hertz)),
    },
  };
}

/** Whether a section or the mark before it sounds near a frequency at a time. */
const isNear = (
  { startSeconds, endSeconds, frequencyHz }: RecognisedSection,
  seconds: number,
  hertz: number,
): boolean =>
  seconds > startSeconds - MARK_SECONDS - BLUR_SECONDS &&
  seconds < endSeconds + BLUR_SECONDS &&
  (frequencyHz === 0 || seconds < startSeconds || Math.abs(frequencyHz / hertz - 1) < TONE_SHARE);
