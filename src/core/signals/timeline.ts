import { MARK_SECONDS, markSlots, RADIX } from "@/core/programme/sync-mark";
import { segmentSeconds, staircaseLevels, type Segment, type Sequence } from "./sequence";

/** One sound of a sequence with its place in time. */
export interface Part {
  startSeconds: number;
  seconds: number;
  /** Which segment it belongs to, and which step of it. */
  segment: number;
  step: number;
  /** Which time through the segments, from 1. */
  pass: number;
  role: "mark" | "segment";
  sound: Sound;
  channels: Segment["channels"];
}

export type Sound =
  | { kind: "tones"; frequenciesHz: number[]; levelDb: number }
  | { kind: "sweep"; frequencyHz: number; toFrequencyHz: number; levelDb: number }
  | { kind: "pink" | "white"; levelDb: number }
  | { kind: "silence" };

/** Everything that sounds in a sequence, in order, and how long it is in all. */
export function timelineOf(sequence: Sequence): { parts: Part[]; seconds: number } {
  const parts: Part[] = [];
  const { segments, marked, markLevelDb, gapSeconds, passes = 1, passGapSeconds } = sequence;
  const digit = sequenceDigit(sequence);
  let at = sequence.leaderSeconds;
  for (let pass = 1; pass <= passes; pass++) {
    if (pass > 1) at += passGapSeconds;
    segments.forEach((segment, index) => {
      const of = { segment: index, pass };
      if (marked) {
        const words = { sequence: digit, segment: index, pass: passes > 1 ? pass : null };
        for (const { startSeconds, seconds, frequencyHz } of markSlots(words))
          parts.push({
            ...of,
            startSeconds: at + startSeconds,
            seconds,
            step: 0,
            role: "mark",
            channels: "both",
            sound: { kind: "tones", frequenciesHz: [frequencyHz], levelDb: markLevelDb },
          });
        at += MARK_SECONDS;
      }
      soundsOf(segment).forEach((sound, step) =>
        parts.push({
          ...of,
          startSeconds: at + step * segment.seconds,
          seconds: segment.seconds,
          step,
          role: "segment",
          channels: segment.channels,
          sound,
        }),
      );
      at += segmentSeconds(segment) + gapSeconds;
    });
  }
  return { parts, seconds: at };
}

function soundsOf(segment: Segment): Sound[] {
  switch (segment.kind) {
    case "sine":
      return [{ kind: "tones", frequenciesHz: [segment.frequencyHz], levelDb: segment.levelDb }];
    case "two-tone":
      return [
        { kind: "tones", frequenciesHz: [segment.frequencyHz, segment.secondHz], levelDb: segment.levelDb },
      ];
    case "steps":
      return segment.frequenciesHz.map((hz) => ({
        kind: "tones",
        frequenciesHz: [hz],
        levelDb: segment.levelDb,
      }));
    case "staircase":
      return staircaseLevels(segment).map((levelDb) => ({
        kind: "tones",
        frequenciesHz: [segment.frequencyHz],
        levelDb,
      }));
    case "sweep":
    case "pink":
    case "white":
    case "silence":
      return [segment];
  }
}

/** A digit that tells a sequence from most others: a sum over what its segments say (FNV-1a). */
export function sequenceDigit(sequence: Sequence): number {
  let hash = 0x811c9dc5;
  for (const character of JSON.stringify(sequence.segments)) {
    hash ^= character.charCodeAt(0);
    hash = Math.imul(hash, 0x01000193) >>> 0;
  }
  return ((hash ^ (hash >>> 16)) >>> 0) % RADIX;
}
