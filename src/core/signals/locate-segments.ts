import type { HeardMark } from "./mark-detector";
import { segmentSeconds, type Sequence } from "./sequence";
import { MARK_SECONDS } from "./sync-mark";
import { sequenceDigit } from "./timeline";

export interface LocatedSegment {
  /** Place in the sequence, from 0. */
  index: number;
  startSeconds: number;
  endSeconds: number;
  speedRatio: number;
}

/**
 * Where each segment of a sequence stands in a recording, by the marks that were heard in it. A segment that was
 * played more than once is taken from its last play that is whole; one that the recording ends in is left out.
 */
export function locateSegments(
  marks: HeardMark[],
  sequence: Sequence,
  recordingSeconds: number,
): LocatedSegment[] {
  const digit = sequenceDigit(sequence);
  const own = marks.filter((mark) => mark.sequenceDigit === digit && mark.segment < sequence.segments.length);
  // between two marks the tape itself says how fast it ran; one mark alone is too short to tell well
  const measured = own.map((mark, i) => {
    const next = own[i + 1];
    if (next?.segment !== mark.segment + 1) return null;
    const nominal = MARK_SECONDS + segmentSeconds(sequence.segments[mark.segment]) + sequence.gapSeconds;
    const ratio = nominal / (next.atSeconds - mark.atSeconds);
    return Math.abs(ratio / mark.speedRatio - 1) < 0.02 ? ratio : null;
  });
  const found = new Map<number, LocatedSegment>();
  own.forEach((mark, i) => {
    const nearest = measured
      .flatMap((ratio, j) => (ratio === null ? [] : [{ ratio, away: Math.abs(j - i) }]))
      .reduce((a, b) => (b.away < a.away ? b : a), { ratio: mark.speedRatio, away: Infinity });
    const speedRatio = nearest.ratio;
    const startSeconds = mark.atSeconds + MARK_SECONDS / speedRatio;
    const endSeconds = startSeconds + segmentSeconds(sequence.segments[mark.segment]) / speedRatio;
    const next = own[i + 1];
    const interrupted = endSeconds > recordingSeconds + 0.05 || (next && next.atSeconds < endSeconds - 0.05);
    if (!interrupted) found.set(mark.segment, { index: mark.segment, startSeconds, endSeconds, speedRatio });
  });
  return [...found.values()].sort((a, b) => a.index - b.index);
}
