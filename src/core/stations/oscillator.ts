import { recordsTape, type Machine } from "@/core/records/machine";
import type { Reading } from "@/core/records/reading";
import type { RecordingRun } from "@/core/records/recording-run";
import { fixed } from "@/core/text/number-text";
import { nothingAdvised } from "./advised";
import { MAINS } from "./cautions";
import { readingsOfMoment, type Figure, type LogContext } from "./log-context";
import type { OnTheBench } from "./on-the-bench";
import { recordCorridor } from "./record-response";
import { switchesInTheWay } from "./recorded";
import type { MeasuringStation } from "./station";
import { nothingToLog, unlessLacking } from "./station-readings";

const quantities = {
  "oscillator.holds": {
    name: "Recording holds",
    unit: "s",
    decimals: 0,
    signed: false,
    atLeast: true,
    scale: [0, 180],
  },
  "oscillator.frequency": {
    name: "Oscillator frequency",
    unit: "kHz",
    decimals: 1,
    signed: false,
    atLeast: true,
    scale: [40, 160],
  },
  "oscillator.off": { name: "Oscillator off the maker's frequency", unit: "kHz", decimals: 1, signed: true },
  "oscillator.leakage": { name: "Bias left at the output", unit: "dBFS", decimals: 1, signed: true },
} as const;
export type OscillatorQuantity = keyof typeof quantities;

/** What dies warm does so within tens of seconds. */
const HOLDS_SECONDS = 120;
/** A recording that goes is found to about a frame. */
const SECOND_UNCERTAINTY = 0.5;
/** Less of it tells nothing. */
const LEAST_SECONDS = 10;
/** Below that, bias beats with the treble that is recorded. */
const TIMES_HIGHEST_AUDIO = 5;
const USUAL_OFF_KHZ = 5;
/** What counters are good for, and what is left of that across a small resistor, share. */
const COUNTER_SHARE = 0.001;
/** Two things that went within this went together. */
const TOGETHER_SECONDS = 1.5;

const makersKhz = ({ limits }: Machine): number | null => limits.oscillatorKhz ?? null;

const holdsLimit = ({ limits }: Machine): number => limits.recordingHoldsSeconds ?? HOLDS_SECONDS;

/** Least frequency that is asked of the oscillator, kHz: five times the highest that the machine is to record. */
export const leastKhz = (machine: Machine): number =>
  (TIMES_HIGHEST_AUDIO * recordCorridor(machine).toHz) / 1000;

/** What of a recording was found out, and why it cannot be logged yet. */
export interface Holds {
  run: RecordingRun | null;
  /** For how long it held, seconds; null before it can be told. */
  seconds: number | null;
  uncertaintySeconds: number;
  lacks: string | null;
}

/** How long the recording that is watched holds, as far as can be told. */
export function holdsNow(bench: OnTheBench): Holds {
  const run = bench.heard?.recording ?? null;
  const lacking = (lacks: string): Holds => ({ run, seconds: null, uncertaintySeconds: 0, lacks });
  const switched = switchesInTheWay(bench);
  if (switched) return lacking(switched);
  if (!run)
    return lacking("No recording is heard yet: send both tones and record them; the watch begins by itself.");
  if (run.offTape !== true)
    return lacking(
      bench.here.machine.monitorsTape
        ? "Whether it comes off the tape cannot be told yet: monitor the tape."
        : "Whether it comes off the tape cannot be told yet: record, then rewind and play.",
    );
  if (isWeakFromItsStart(run)) return lacking(WEAK_FROM_ITS_START);
  const seconds = run.went.at(0)?.atSeconds ?? run.seconds;
  const uncertaintySeconds = SECOND_UNCERTAINTY + missedBefore(run, seconds);
  if (run.began === null || seconds < LEAST_SECONDS)
    return { run, seconds, uncertaintySeconds, lacks: "Watching: its beginning is still being heard." };
  const wanted = holdsLimit(bench.here.machine);
  if (run.went.length === 0 && seconds < wanted)
    return {
      run,
      seconds,
      uncertaintySeconds,
      lacks: run.ended
        ? `It ended after ${fixed(seconds, 0)} s; it has to hold for ${wanted} s.`
        : `Everything holds so far; it has to for ${wanted} s. Leave it running.`,
    };
  const lacks =
    endedUnclear(run) && seconds < wanted
      ? "All of it went at once and nothing is left: a tone that stops looks the same. If it still goes in, record once more over an old tone, and see whether that comes back."
      : null;
  return { run, seconds, uncertaintySeconds, lacks };
}

const WEAK_FROM_ITS_START =
  "It was not right when it began, so how long it holds is not told. Stop, leave the record key up for some minutes until the machine is cold, then record again.";
/** An old tone that stands so much above what is recorded over it was not erased. */
const NOT_ERASED_DB = 10;
/** What comes back so much below what went in was recorded without bias. */
const NO_BIAS_DB = 12;

/** Whether there was no bias already when it began: what an oscillator leaves behind that stopped before, or never swings. */
function isWeakFromItsStart({ began, sent }: RecordingRun): boolean {
  if (!began) return false;
  const [middle, , old] = began;
  return middle.some((db, c) => old[c] > db + NOT_ERASED_DB || (sent && db < sent[0][c] - NO_BIAS_DB));
}

/** How much of a run nobody heard just before a second of it. */
const missedBefore = ({ missed }: RecordingRun, seconds: number): number =>
  missed
    .filter(({ fromSeconds, toSeconds }) => seconds >= fromSeconds && seconds < toSeconds + TOGETHER_SECONDS)
    .reduce((sum, { fromSeconds, toSeconds }) => sum + toSeconds - fromSeconds, 0);

/** Both tones vanished, nothing of them is left, and no old programme came back. */
function endedUnclear({ went, isLeft }: RecordingRun): boolean {
  const gone = new Set(went.map(({ what }) => what));
  return gone.has("level") && gone.has("treble") && !gone.has("erase") && !isLeft;
}

export const oscillator: MeasuringStation<"oscillator", OscillatorQuantity> = {
  id: "oscillator",
  kind: "measure",
  name: "Oscillator",
  group: "record",
  quantities,
  onRoute: recordsTape,
  deciding: (machine) =>
    makersKhz(machine) === null ? ["oscillator.holds"] : ["oscillator.holds", "oscillator.off"],
  limitOf: (machine, quantity) => {
    switch (quantity) {
      case "oscillator.holds":
        return holdsLimit(machine);
      case "oscillator.frequency":
        return leastKhz(machine);
      case "oscillator.off":
        return makersKhz(machine) === null ? null : (machine.limits.oscillatorOffKhz ?? USUAL_OFF_KHZ);
      case "oscillator.leakage":
        return null;
    }
  },
  ownLimits: [
    { key: "oscillatorKhz", label: "Maker's oscillator frequency, kHz", most: 300, wanted: true },
    { key: "oscillatorOffKhz", label: "± of it, kHz", most: 100 },
    { key: "recordingHoldsSeconds", label: "A recording has to hold, s", most: 360 },
  ],
  corridorOf: () => null,
  // what holds on one tape holds on any
  apartBy: ["speed"],
  circumstances: [],
  adjusters: [{ kind: "work", says: "work, on the oscillator", actsOn: [] }],
  hears: {
    what: "recording",
    flutter: false,
    role: null,
    sequence: null,
    follows: [315, 10_000],
    steady: "bias-tones",
  },
  tapeLacks: () => null,
  upsets: [
    "oscillator",
    "bias",
    "record-level",
    "record-response",
    "distortion",
    "erase",
    "noise",
    "reduction",
    "settings",
  ],
  readings: (bench) => {
    const { run, seconds, uncertaintySeconds, lacks } = holdsNow(bench);
    if (!run || seconds === null) return nothingToLog(lacks ?? "");
    const line = bench.heard?.oscillator ?? null;
    const readings = (context: LogContext): Reading[] =>
      readingsOfMoment(
        oscillator,
        { ...context, channel: "both" },
        { seconds: run.seconds, method: run.went.length > 0 ? WENT : HELD },
        [
          { quantity: "oscillator.holds", value: seconds, uncertainty: uncertaintySeconds },
          ...(line
            ? [
                ...frequencyFigures(bench.here.machine, line.frequencyKhz, line.uncertaintyKhz, HEARD),
                {
                  quantity: "oscillator.leakage" as const,
                  value: Math.max(...line.levelsDbfs),
                  uncertainty: 1,
                  method: HEARD,
                },
              ]
            : []),
        ],
      );
    return unlessLacking(lacks, readings);
  },
  advise: (bench) => {
    const { seconds, uncertaintySeconds, lacks } = holdsNow(bench);
    return nothingAdvised({
      quantity: "oscillator.holds",
      value: seconds,
      uncertainty: uncertaintySeconds,
      settled: lacks === null,
    });
  },
  seeksPeak: () => false,
  learns: () => [],
  nothingToTurn: "An oscillator is mended, not turned: its amplitude is set at bias.",
  setUp: [
    "Record both tones, steady, for two minutes or more, with the machine warm.",
    "Over an old recording of the tone to be erased: then Unzel hears whether erase holds too.",
    "Three heads: monitor the tape. Two heads: record, then rewind and play.",
  ],
  checks: [],
  caution: MAINS,
};
const HELD = "watched recording of 315 Hz and 10 kHz; it held as long as it was watched";
const WENT = "watched recording of 315 Hz and 10 kHz; it held until then";
const HEARD = "line of the oscillator in the machine's output";

const frequencyFigures = (
  machine: Machine,
  khz: number,
  uncertaintyKhz: number,
  method: string,
): Array<Figure<OscillatorQuantity>> => {
  const wanted = makersKhz(machine);
  return [
    { quantity: "oscillator.frequency", value: khz, uncertainty: uncertaintyKhz, method },
    ...(wanted === null
      ? []
      : [{ quantity: "oscillator.off" as const, value: khz - wanted, uncertainty: uncertaintyKhz, method }]),
  ];
};

/** Frequency as a counter shows it, kHz. */
export const counterReading = (machine: Machine, khz: number, context: LogContext): Reading[] =>
  readingsOfMoment(
    oscillator,
    { ...context, channel: "both" },
    { seconds: 0, method: COUNTED },
    frequencyFigures(machine, khz, COUNTER_SHARE * khz, COUNTED),
  );
const COUNTED = "a counter across a small resistor in series with the erase head";

/** What it usually means, the likeliest first; none while it holds. */
export function holdsCauses(run: RecordingRun): string[] {
  const { went, isLeft } = run;
  if (isWeakFromItsStart(run))
    return [
      "It is recorded without bias from its beginning: the oscillator stopped before, warm from what was recorded until then, or it never swings, or the record key's contacts do not feed it.",
    ];
  const of = (what: (typeof went)[number]["what"]) => went.find((one) => one.what === what);
  const [level, treble, erase] = [of("level"), of("treble"), of("erase")];
  const near = (a: { atSeconds: number }, b: { atSeconds: number }) =>
    Math.abs(a.atSeconds - b.atSeconds) < TOGETHER_SECONDS;
  const alone = [level, treble].flatMap((one) => (one?.channels.length === 1 ? one.channels : []));
  if (level && treble && near(level, treble) && alone.length === 2 && alone[0] === alone[1])
    return [
      `The ${alone[0]} channel alone: not the oscillator, but that channel's record amplifier, its switch or its leads to the head.`,
    ];
  if (erase && (level ?? treble) && near(erase, (level ?? treble)!))
    return [
      "Recording and erase went together and the old tone is back: the oscillator stopped, or its supply. Warm and cool its parts one at a time; look at its transistors, capacitors and joints.",
    ];
  if (level && treble && near(level, treble))
    return isLeft
      ? [
          "Level and treble went together, and faint traces go on being recorded: there is no bias any more. The oscillator stopped, its supply, or the lead to the head.",
        ]
      : [
          "Everything went at once: the tone stopped, the machine stopped, or nothing is recorded any more. Listen to what goes in.",
        ];
  return [
    ...(treble && treble.byDb > 0
      ? [
          "Treble rises while it records: bias is getting weaker. The oscillator's amplitude or its supply falls.",
        ]
      : []),
    ...(treble && treble.byDb <= 0
      ? ["Treble falls: dirt or shed oxide on the head, tape that lifts off it, or bias that rises."]
      : []),
    ...(level
      ? [
          `Level moves by ${fixed(level.byDb, 0, true)} dB: the record amplifier, its supply, or what goes in.`,
        ]
      : []),
    ...(erase
      ? ["The old tone comes back while the recording holds: the erase head, its leads or its contacts."]
      : []),
  ];
}
