import { parseArgs } from "node:util";
import { firstIssue } from "@/core/formats/import-error";
import { PRESETS, single } from "@/core/signals/presets";
import { MOST_PASSES } from "@/core/programme/sync-mark";
import { segmentSchema, sequenceSchema, type Sequence } from "@/core/signals/sequence";
import { timelineOf } from "@/core/signals/timeline";
import { exportOptionsSchema, wavExport } from "@/core/formats/wav-export";
import { runCommand, UsageError } from "./exit";
import { writeWhole } from "./whole-file";
import { joinNegatives } from "./join-negatives";
import { sequenceArgument } from "./sequence-argument";

const USAGE = `usage: npm run --silent signals -- NAME [options] --out FILE.wav

  NAME is a signal (sine, two-tone, steps, staircase, sweep, pink, white, silence), a preset sequence, or a
  sequence file (JSON) that Unzel exported. --list shows all of them with their options.

  --rate 44100|48000|96000   sample rate (default 48000)
  --bits 16|24|32            16 and 24 with dither, 32 is float (default 24)
  --level DB                 peak of the sine in dBFS; noise has the RMS of such a sine
  --passes N                 a marked sequence N times over, the number of each pass in its marks (1 to ${MOST_PASSES})`;

/** Options of each signal: what they set, and what they are when left out. */
const OPTIONS = {
  frequency: { sets: "frequencyHz", unit: "Hz" },
  second: { sets: "secondHz", unit: "Hz" },
  frequencies: { sets: "frequenciesHz", unit: "Hz, separated by commas" },
  to: { sets: "toFrequencyHz", unit: "Hz" },
  level: { sets: "levelDb", unit: "dBFS" },
  "to-level": { sets: "toLevelDb", unit: "dBFS" },
  step: { sets: "stepDb", unit: "dB" },
  seconds: { sets: "seconds", unit: "s; of each step where there are several" },
  channels: { sets: "channels", unit: "both, left or right" },
} as const;
type Option = keyof typeof OPTIONS;

const SIGNALS: Record<string, Partial<Record<Option, string>>> = {
  sine: { frequency: "1000", level: "-12", seconds: "10", channels: "both" },
  "two-tone": { frequency: "400", second: "800", level: "-12", seconds: "10", channels: "both" },
  steps: { frequencies: "63,125,250,500,1000,2000,4000,8000", level: "-12", seconds: "3", channels: "both" },
  staircase: {
    frequency: "1000",
    level: "-40",
    "to-level": "-10",
    step: "5",
    seconds: "3",
    channels: "both",
  },
  sweep: { frequency: "20", to: "20000", level: "-12", seconds: "20", channels: "both" },
  pink: { level: "-20", seconds: "30", channels: "both" },
  white: { level: "-20", seconds: "30", channels: "both" },
  silence: { seconds: "10" },
};

async function main(): Promise<void> {
  const { name, values } = parse();
  if (values.list) {
    process.stdout.write(`${JSON.stringify(list(), null, 1)}\n`);
    return;
  }
  if (name === undefined) throw new UsageError("say which signal");
  const out = values.out;
  if (out === undefined) throw new UsageError("say where to write: --out FILE.wav");
  const given = exportOptionsSchema.safeParse({ rate: values.rate ?? 48000, bits: values.bits ?? 24 });
  if (!given.success) throw new UsageError(`--${firstIssue(given.error)}`);
  const options = given.data;
  const sequence = name in SIGNALS ? signal(name, values) : await sequenceNamed(name, values);
  let wav;
  try {
    wav = wavExport(sequence, options);
  } catch (error) {
    throw new UsageError((error as Error).message);
  }
  await writeWhole(out, [name], wav.pieces());
  const answer = {
    name,
    file: out,
    sampleRateHz: options.rate,
    bits: options.bits,
    seconds: timelineOf(sequence).seconds,
    passes: sequence.passes ?? 1,
  };
  process.stdout.write(`${JSON.stringify(answer)}\n`);
}

type Values = ReturnType<typeof parse>["values"];

function signal(name: string, values: Values): Sequence {
  const own = SIGNALS[name];
  refuse(values, (option) => !(option in own), `${name} has no`);
  if (values.passes !== undefined)
    throw new UsageError(`${name} has no --passes: only a sequence with marks has`);
  const segment: Record<string, unknown> = { kind: name };
  for (const [option, preset] of Object.entries(own) as Array<[Option, string]>) {
    const text = values[option] ?? preset;
    segment[OPTIONS[option].sets] =
      option === "channels" ? text : option === "frequencies" ? text.split(",").map(Number) : Number(text);
  }
  const parsed = segmentSchema.safeParse(segment);
  if (!parsed.success) throw new UsageError(firstIssue(parsed.error));
  const fade = Number(values.fade ?? 0);
  if (!(fade >= 0 && fade <= 1)) throw new UsageError(`--fade takes 0 to 1 s, not "${values.fade}"`);
  return single(parsed.data, fade);
}

async function sequenceNamed(name: string, values: Values): Promise<Sequence> {
  refuse(values, () => true, "a sequence has no");
  const sequence = await sequenceArgument(name);
  if (values.passes === undefined) return sequence;
  const parsed = sequenceSchema.safeParse({ ...sequence, passes: Number(values.passes) });
  if (!parsed.success) throw new UsageError(`--${firstIssue(parsed.error)}`);
  return parsed.data;
}

function refuse(values: Values, isForeign: (option: Option) => boolean, says: string): void {
  const foreign = (Object.keys(OPTIONS) as Option[]).find(
    (option) => values[option] !== undefined && isForeign(option),
  );
  if (foreign) throw new UsageError(`${says} --${foreign}`);
}

function list() {
  return {
    signals: Object.entries(SIGNALS).map(([name, own]) => ({
      name,
      options: (Object.entries(own) as Array<[Option, string]>).map(([option, standard]) => ({
        option: `--${option}`,
        unit: OPTIONS[option].unit,
        default: standard,
      })),
    })),
    sequences: PRESETS.map((sequence) => ({
      name: sequence.id,
      title: sequence.name,
      seconds: timelineOf(sequence).seconds,
      options: [],
    })),
    forAll: [
      "--rate 44100|48000|96000",
      "--bits 16|24|32",
      "--fade SECONDS (signals only)",
      "--passes N (marked sequences only)",
      "--out FILE.wav",
    ],
  };
}

function parse() {
  const text = { type: "string" } as const;
  try {
    const { values, positionals } = parseArgs({
      allowPositionals: true,
      options: {
        frequency: text,
        second: text,
        frequencies: text,
        to: text,
        level: text,
        "to-level": text,
        step: text,
        seconds: text,
        channels: text,
        fade: text,
        passes: text,
        rate: text,
        bits: text,
        out: text,
        list: { type: "boolean" },
      },
      args: joinNegatives(process.argv.slice(2)),
    });
    if (positionals.length > 1) throw new UsageError(`one signal at a time; "${positionals[1]}" is too much`);
    return { name: positionals[0] as string | undefined, values };
  } catch (error) {
    throw error instanceof UsageError ? error : new UsageError((error as Error).message);
  }
}

runCommand(main, USAGE);
