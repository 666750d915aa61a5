import {
  segmentName,
  segmentSeconds,
  staircaseLevels,
  type Segment,
  type Sequence,
} from "@/core/signals/sequence";
import { MARK_SECONDS, markSlots } from "@/core/programme/sync-mark";
import type { StripPiece } from "@/ui/band-strip";

/** A sequence as pieces of the drawn strip. */
export function sequencePieces(sequence: Sequence): StripPiece[] {
  const silence = (seconds: number, name: string): StripPiece[] =>
    seconds > 0 ? [{ name, kind: "silence", frequenciesHz: [], levelDb: -120, seconds }] : [];
  const { passes = 1, passGapSeconds, segments } = sequence;
  const pass = segments.flatMap((segment, i) => [
    ...(sequence.marked
      ? [
          {
            name: "synchronisation mark",
            kind: "mark" as const,
            frequenciesHz: markSlots({ sequence: 0, segment: i, pass: null }).map((slot) => slot.frequencyHz),
            levelDb: sequence.markLevelDb,
            seconds: MARK_SECONDS,
          },
        ]
      : []),
    ...piecesOf(segment),
    ...silence(sequence.gapSeconds, "gap"),
  ]);
  return [
    ...silence(sequence.leaderSeconds, "leader"),
    ...Array.from({ length: passes }, (_, i) => [
      ...(i > 0 ? silence(passGapSeconds, "time to turn something") : []),
      ...pass,
    ]).flat(),
  ];
}

function piecesOf(segment: Segment): StripPiece[] {
  const name = segmentName(segment);
  const seconds = segmentSeconds(segment);
  switch (segment.kind) {
    case "sine":
      return [
        { name, kind: "tone", frequenciesHz: [segment.frequencyHz], levelDb: segment.levelDb, seconds },
      ];
    case "two-tone":
      return [
        {
          name,
          kind: "tone",
          frequenciesHz: [segment.frequencyHz, segment.secondHz],
          levelDb: segment.levelDb,
          seconds,
        },
      ];
    case "steps":
      return [
        { name, kind: "tone", frequenciesHz: segment.frequenciesHz, levelDb: segment.levelDb, seconds },
      ];
    case "staircase":
      return staircaseLevels(segment).map((levelDb) => ({
        name,
        kind: "tone",
        frequenciesHz: [segment.frequencyHz],
        levelDb,
        seconds: segment.seconds,
      }));
    case "sweep":
      return [
        {
          name,
          kind: "sweep",
          frequenciesHz: [segment.frequencyHz, segment.toFrequencyHz],
          levelDb: segment.levelDb,
          seconds,
        },
      ];
    case "pink":
    case "white":
      return [{ name, kind: "noise", frequenciesHz: [], levelDb: segment.levelDb, seconds }];
    case "silence":
      return [{ name, kind: "silence", frequenciesHz: [], levelDb: -120, seconds }];
  }
}
