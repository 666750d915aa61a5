import { sequenceSchema, type Segment, type Sequence } from "./sequence";

/** Third-octave frequencies from 31.5 Hz to 16 kHz, enough of them to draw a response curve. */
const RESPONSE_HZ = [31.5, 40, 63, 125, 250, 500, 1000, 2000, 4000, 6300, 8000, 10000, 12500, 14000, 16000];
const both = "both" as const;

const sine = (frequencyHz: number, levelDb: number, seconds: number): Segment => ({
  kind: "sine",
  channels: both,
  frequencyHz,
  levelDb,
  seconds,
});

const make = (sequence: Partial<Sequence> & Pick<Sequence, "id" | "name" | "segments">): Sequence =>
  sequenceSchema.parse({ format: "unzel-sequence", version: 1, ...sequence });

const marked = { marked: true, leaderSeconds: 5, gapSeconds: 0.5 };

/**
 * Sequences for the stations at which a deck records. 0 dB of the machine is set to −12 dBFS by the first tone; a
 * response is taken 20 dB below that, where tape does not saturate.
 */
export const PRESETS: readonly Sequence[] = [
  make({
    id: "speed-and-flutter",
    name: "Speed and flutter tone",
    description: "3150 Hz for a tape of one's own; it is only as right as the deck that records it.",
    segments: [sine(3150, -12, 300)],
  }),
  make({
    id: "left-right",
    name: "Which side is which",
    description:
      "A tone on the left only, then on the right only; it also tells whether a channel is inverted.",
    gapSeconds: 1,
    segments: [
      { kind: "two-tone", channels: "left", frequencyHz: 400, secondHz: 800, levelDb: -12, seconds: 5 },
      { kind: "two-tone", channels: "right", frequencyHz: 400, secondHz: 800, levelDb: -12, seconds: 5 },
    ],
  }),
  make({
    id: "record-azimuth",
    name: "Record-head azimuth",
    description: "Low, middle and high tones 10 dB down, to be watched off tape.",
    ...marked,
    segments: [1000, 3150, 8000, 12500].map((hz) => sine(hz, -22, 20)),
  }),
  make({
    id: "bias",
    name: "Bias",
    description:
      "A middle and a high tone 20 dB down and the middle one at 0 level: once for each setting of bias, in several passes.",
    ...marked,
    segments: [sine(315, -32, 4), sine(10000, -32, 5), sine(315, -12, 5)],
  }),
  make({
    id: "bias-tones",
    name: "Bias tones, steady",
    description:
      "The middle and the high tone of bias together, 20 dB down, for three minutes: to watch bias off the tape while it is turned.",
    segments: [
      { kind: "two-tone", channels: both, frequencyHz: 315, secondHz: 10000, levelDb: -32, seconds: 170 },
    ],
  }),
  make({
    id: "level-tone",
    name: "Level tone",
    description: "315 Hz at 0 level for three minutes: to set record level while it is recorded.",
    segments: [sine(315, -12, 170)],
  }),
  make({
    id: "record-level",
    name: "Record level",
    description: "315 Hz and 1 kHz at 0 level.",
    ...marked,
    segments: [sine(315, -12, 15), sine(1000, -12, 15)],
  }),
  make({
    id: "record-response",
    name: "Record response",
    description: "Reference tone, stepped tones, a sweep and pink noise, all 20 dB down.",
    ...marked,
    segments: [
      sine(1000, -32, 8),
      { kind: "steps", channels: both, frequenciesHz: RESPONSE_HZ, levelDb: -32, seconds: 3 },
      { kind: "sweep", channels: both, frequencyHz: 20, toFrequencyHz: 20000, levelDb: -32, seconds: 20 },
      { kind: "pink", channels: both, levelDb: -32, seconds: 20 },
    ],
  }),
  make({
    id: "distortion",
    name: "Distortion",
    description:
      "315 Hz rising from −20 to +6 dB in steps of 2 dB, two tones for intermodulation, 10 kHz rising until the tape takes no more.",
    ...marked,
    segments: [
      {
        kind: "staircase",
        channels: both,
        frequencyHz: 315,
        levelDb: -32,
        toLevelDb: -6,
        stepDb: 2,
        seconds: 4,
      },
      { kind: "two-tone", channels: both, frequencyHz: 315, secondHz: 3150, levelDb: -12, seconds: 8 },
      {
        kind: "staircase",
        channels: both,
        frequencyHz: 10000,
        levelDb: -32,
        toLevelDb: -4,
        stepDb: 4,
        seconds: 2,
      },
    ],
  }),
  make({
    id: "erase-tone",
    name: "Tone to be erased",
    description: "1 kHz at +6 dB for a minute and a half: recorded first, then the erase sequence over it.",
    segments: [sine(1000, -6, 90)],
  }),
  make({
    id: "erase-and-noise",
    name: "Erase, noise and crosstalk",
    description:
      "A strong 1 kHz tone to be erased, silence over it, then each channel alone at 1 and 10 kHz.",
    ...marked,
    segments: [
      sine(1000, -6, 20),
      { kind: "silence", channels: both, seconds: 20 },
      { ...sine(1000, -12, 10), channels: "left" },
      { ...sine(1000, -12, 10), channels: "right" },
      { ...sine(10000, -22, 6), channels: "left" },
      { ...sine(10000, -22, 6), channels: "right" },
    ],
  }),
  make({
    id: "other-side-tones",
    name: "Tones for the other direction, steady",
    description:
      "1 and 10 kHz together, 10 dB down as a pair, for two minutes: recorded on the other side, to hear how much of it comes across into this one.",
    segments: [
      { kind: "two-tone", channels: both, frequencyHz: 1000, secondHz: 10000, levelDb: -22, seconds: 120 },
    ],
  }),
  make({
    id: "noise-reduction",
    name: "Noise reduction and filters",
    description:
      "1 kHz at 0, tones from 400 Hz to 10 kHz at four levels, 15 and 19 kHz, and 10 kHz at 0: once with everything switched off, once with what is to be tried.",
    ...marked,
    leaderSeconds: 3,
    segments: [
      sine(1000, -12, 3),
      ...[-22, -32, -42, -52].map((levelDb): Segment => ({
        kind: "steps",
        channels: both,
        frequenciesHz: [400, 1000, 3000, 5000, 10000],
        levelDb,
        seconds: 1.5,
      })),
      sine(15000, -32, 3),
      sine(19000, -32, 3),
      sine(10000, -12, 3),
    ],
  }),
  make({
    id: "settings-tones",
    name: "Settings tones, steady",
    description:
      "400 Hz and 15 kHz together, 20 dB down, for three minutes: to set the knobs on the front for a tape.",
    segments: [
      { kind: "two-tone", channels: both, frequencyHz: 400, secondHz: 15000, levelDb: -32, seconds: 170 },
    ],
  }),
  make({
    id: "passport",
    name: "Passport of a tape",
    description:
      "Everything that is to be known of a tape, in a minute and a quarter: sensitivity, treble, bias wanted, how loud it can be recorded, noise, drop-outs.",
    ...marked,
    leaderSeconds: 3,
    segments: [
      sine(400, -12, 4),
      sine(400, -32, 3),
      sine(15000, -32, 4),
      sine(10000, -32, 4),
      {
        kind: "staircase",
        channels: both,
        frequencyHz: 315,
        levelDb: -12,
        toLevelDb: -2,
        stepDb: 2,
        seconds: 2.5,
      },
      { kind: "silence", channels: both, seconds: 9 },
      sine(3150, -16, 24),
    ],
  }),
  make({
    id: "own-reference-tape",
    name: "A reference tape of one's own",
    description:
      "Level, speed, azimuth ladder and response, to be recorded on a deck that is known to be right. The tape inherits that deck's uncertainty.",
    ...marked,
    segments: [
      sine(315, -12, 20),
      sine(3150, -12, 60),
      ...[1000, 3150, 6300, 8000, 10000].map((hz) => sine(hz, -22, 15)),
      ...[40, 63, 125, 250, 500, 1000, 2000, 4000, 6300, 8000, 10000, 12500].map((hz) => sine(hz, -32, 8)),
    ],
  }),
];

/** One plain signal as a sequence of its own: no leader, no mark, no fades, so that it is exact to both ends. */
export const single = (segment: Segment, fadeSeconds = 0): Sequence =>
  make({ id: segment.kind, name: segment.kind, fadeSeconds, segments: [segment] });
