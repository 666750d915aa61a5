import type { Programme, Section } from "@/core/programme/programme";
import { MARK_SECONDS } from "@/core/programme/sync-mark";
import { segmentSeconds, type Segment, type Sequence } from "./sequence";
import { sequenceDigit, timelineOf, type Part, type Sound } from "./timeline";

/** A sequence as what is played: a section for each of its sounds, so one for every step of a segment with steps. */
export function programmeOfSequence(sequence: Sequence): Programme {
  const { id, name, segments, gapSeconds, marked } = sequence;
  const parts = timelineOf(sequence).parts.filter(({ role, pass }) => role === "segment" && pass === 1);
  const starts = segments.map((_, mark) => parts.find(({ segment }) => segment === mark)!.startSeconds);
  return {
    kind: "sequence",
    id,
    name,
    sections: parts.map((part) => sectionOf(part, segments[part.segment])),
    marks: marked
      ? {
          digit: sequenceDigit(sequence),
          apartSeconds: segments.map((segment) => MARK_SECONDS + segmentSeconds(segment) + gapSeconds),
          places: parts.map(({ segment, startSeconds }) => ({
            mark: segment,
            afterSeconds: MARK_SECONDS + startSeconds - starts[segment],
          })),
        }
      : null,
  };
}

/** Which segment of its sequence a section is of, and whether it is the last of that. */
export function segmentOfSection({ marks }: Programme, index: number): { segment: number; last: boolean } {
  const places = marks?.places ?? [];
  const segment = places[index].mark;
  return { segment, last: places.at(index + 1)?.mark !== segment };
}

const sectionOf = ({ sound, seconds, channels }: Part, { name, kind }: Segment): Section => ({
  ...soundOf(sound),
  role: kind,
  seconds,
  channels,
  ...(name && { name }),
});

function soundOf(
  sound: Sound,
): Pick<Section, "kind" | "frequencyHz" | "secondHz" | "toFrequencyHz" | "levelDb"> {
  switch (sound.kind) {
    case "tones": {
      const [frequencyHz, secondHz] = sound.frequenciesHz;
      const { levelDb } = sound;
      return secondHz === undefined
        ? { kind: "tone", frequencyHz, levelDb }
        : { kind: "two-tone", frequencyHz, secondHz, levelDb };
    }
    case "sweep":
      return sound;
    case "pink":
    case "white":
      return { kind: "noise", frequencyHz: 0, levelDb: sound.levelDb };
    case "silence":
      return { kind: "silence", frequencyHz: 0, levelDb: SILENT_DB };
  }
}
const SILENT_DB = -120;
