import { PRESETS } from "@/core/signals/presets";
import type { Segment, Sequence } from "@/core/signals/sequence";

/** The marked presets of the record side with shorter sounds, for a practice machine that nobody waits for. */
export const shortSequences = (seconds: number): Sequence[] =>
  PRESETS.filter(({ id, marked }) => marked && RECORD_SIDE.includes(id)).map((preset) => ({
    ...preset,
    leaderSeconds: 1,
    gapSeconds: 0.3,
    segments: preset.segments.filter(isKept).map((segment) => shortened(segment, seconds)),
  }));

const RECORD_SIDE = [
  "bias",
  "record-level",
  "record-response",
  "distortion",
  "erase-and-noise",
  "noise-reduction",
  "passport",
];
/** A tone that is there for its drop-outs has to last. */
const DROP_OUT_SECONDS = 16;
const MOST_STEP_SECONDS = 1.5;
/** What is left of a tone takes longer to be told than a tone. */
const SILENCE_TIMES = 3;
const TREBLE_HZ = 3000;

const isKept = (segment: Segment): boolean =>
  segment.kind !== "sweep" &&
  segment.kind !== "pink" &&
  !(segment.kind === "staircase" && segment.frequencyHz > TREBLE_HZ);

function shortened(segment: Segment, seconds: number): Segment {
  switch (segment.kind) {
    case "steps":
      return {
        ...segment,
        frequenciesHz: segment.frequenciesHz.filter((hz) => hz > 60),
        seconds: segment.seconds > MOST_STEP_SECONDS * 1.5 ? seconds : Math.min(seconds, MOST_STEP_SECONDS),
      };
    case "staircase":
      return { ...segment, levelDb: -24, toLevelDb: -4, stepDb: 4, seconds: 2 };
    case "sine":
      return { ...segment, seconds: segment.seconds > DROP_OUT_SECONDS ? DROP_OUT_SECONDS : seconds };
    case "two-tone":
    case "sweep":
    case "pink":
    case "white":
      return { ...segment, seconds };
    case "silence":
      return { ...segment, seconds: SILENCE_TIMES * seconds };
  }
}
