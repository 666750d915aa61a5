import type { Programme, Section } from "@/core/programme/programme";
import { MARK_SECONDS } from "@/core/programme/sync-mark";
import { segmentSeconds, type Sequence } from "./sequence";
import { sequenceDigit, timelineOf, type Part, type Sound } from "./timeline";

/** A sequence as what is played: a section for each of its sounds, so one for every step of a segment with steps. */
export function programmeOfSequence(sequence: Sequence): Programme {
  const { id, name, segments, gapSeconds, marked } = sequence;
  const parts = timelineOf(sequence).parts.filter(({ role }) => role === "segment");
  const starts = segments.map((_, mark) => parts.find(({ segment }) => segment === mark)!.startSeconds);
  return {
    kind: "sequence",
    id,
    name,
    sections: parts.map((part) => sectionOf(part, segments[part.segment].name)),
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

const sectionOf = ({ sound, seconds, channels }: Part, name: string | undefined): Section => ({
  ...soundOf(sound),
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
