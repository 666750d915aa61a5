import type { Segment, SegmentKind } from "@/core/signals/sequence";

/** A segment while it is being typed: numbers are still text. */
export interface TypedSegment {
  kind: SegmentKind;
  channels: Segment["channels"];
  texts: Record<string, string>;
}

export const KIND_NAMES: Record<SegmentKind, string> = {
  sine: "sine",
  "two-tone": "two tones",
  steps: "stepped tones",
  staircase: "level staircase",
  sweep: "sweep",
  pink: "pink noise",
  white: "white noise",
  silence: "silence",
};

interface Field {
  key: string;
  label: string;
  wide?: boolean;
}

const FREQUENCY: Field = { key: "frequencyHz", label: "Frequency, Hz" };
const LEVEL: Field = { key: "levelDb", label: "Level, dBFS" };
const SECONDS: Field = { key: "seconds", label: "Length, s" };
const EACH: Field = { key: "seconds", label: "Each, s" };

const FIELDS: Record<SegmentKind, Field[]> = {
  sine: [FREQUENCY, LEVEL, SECONDS],
  "two-tone": [FREQUENCY, { key: "secondHz", label: "Second, Hz" }, LEVEL, SECONDS],
  steps: [{ key: "frequenciesHz", label: "Frequencies in Hz, with commas", wide: true }, LEVEL, EACH],
  staircase: [
    FREQUENCY,
    LEVEL,
    { key: "toLevelDb", label: "To, dBFS" },
    { key: "stepDb", label: "Step, dB" },
    EACH,
  ],
  sweep: [FREQUENCY, { key: "toFrequencyHz", label: "To, Hz" }, LEVEL, SECONDS],
  pink: [LEVEL, SECONDS],
  white: [LEVEL, SECONDS],
  silence: [SECONDS],
};

export const fieldsOf = (kind: SegmentKind): Field[] => FIELDS[kind];

/** What a segment of each kind begins as. */
export const NEW_SEGMENTS: Record<SegmentKind, Segment> = {
  sine: { kind: "sine", channels: "both", frequencyHz: 1000, levelDb: -12, seconds: 10 },
  "two-tone": {
    kind: "two-tone",
    channels: "both",
    frequencyHz: 315,
    secondHz: 3150,
    levelDb: -12,
    seconds: 10,
  },
  steps: {
    kind: "steps",
    channels: "both",
    frequenciesHz: [63, 250, 1000, 4000, 10000],
    levelDb: -32,
    seconds: 3,
  },
  staircase: {
    kind: "staircase",
    channels: "both",
    frequencyHz: 1000,
    levelDb: -40,
    toLevelDb: -10,
    stepDb: 5,
    seconds: 3,
  },
  sweep: {
    kind: "sweep",
    channels: "both",
    frequencyHz: 20,
    toFrequencyHz: 20000,
    levelDb: -32,
    seconds: 20,
  },
  pink: { kind: "pink", channels: "both", levelDb: -32, seconds: 20 },
  white: { kind: "white", channels: "both", levelDb: -32, seconds: 20 },
  silence: { kind: "silence", channels: "both", seconds: 10 },
};

export function textsOf(segment: Segment): TypedSegment {
  const { kind, channels, ...rest } = segment;
  const texts = Object.fromEntries(
    Object.entries(rest).map(([key, value]) => [
      key,
      Array.isArray(value) ? value.join(", ") : String(value),
    ]),
  );
  return { kind, channels, texts };
}

/** What was typed as the numbers it means; anything that is none becomes NaN and is refused by the schema. */
export function typed({ kind, channels, texts }: TypedSegment): Record<string, unknown> {
  const number = (text: string | undefined) =>
    text === undefined || text.trim() === "" ? NaN : Number(text.trim().replace("−", "-"));
  return {
    kind,
    channels,
    ...(texts.name && { name: texts.name }),
    ...Object.fromEntries(
      FIELDS[kind].map(({ key }) => [
        key,
        key === "frequenciesHz" ? (texts[key] ?? "").split(",").map(number) : number(texts[key]),
      ]),
    ),
  };
}
