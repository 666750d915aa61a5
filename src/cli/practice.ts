import { parseArgs } from "node:util";
import { firstIssue } from "@/core/formats/import-error";
import { comesBack } from "@/core/practice/comes-back";
import { DEMO_BLANKS } from "@/core/practice/demo-blanks";
import { PRESETS } from "@/core/signals/presets";
import { sequenceSchema } from "@/core/signals/sequence";
import { speedTone } from "@/core/reference/speed-tone";
import { encodeSamples, wavHeader } from "@/core/formats/wav-writer";
import { PracticeDeck } from "@/core/simulator/practice-deck";
import { practiceTape } from "@/core/practice/practice-tape";
import { PRACTICE_MACHINES, practiceMachine } from "@/core/simulator/practice-machines";
import {
  PARAMETER_RANGES,
  parameterSetting,
  type ParameterPath,
  type TransportParameters,
} from "@/core/simulator/transport-parameters";
import { KNOWN_TAPES, tapeArgument } from "./tape-argument";
import { runCommand, UsageError } from "./exit";
import { writeWhole } from "./whole-file";
import { joinNegatives } from "./join-negatives";
import { sequenceArgument } from "./sequence-argument";

const USAGE = `usage: npm run --silent practice -- --machine ID --tape ID|FILE --seconds N --out FILE.wav [options]

  --tape ID|FILE    a tape that comes with Unzel, or a reference tape file; all its bands are played
  --rate HZ         sample rate (default 48000)
  --set PATH=VALUE  a parameter of the machine; may be repeated
  --turn TURNS      turn the speed trimmer first, clockwise positive
  --record S        instead of a tape: a sequence that is recorded, rewound and played: what comes back
  --record-tape ID  the blank tape that it is recorded on (default an ordinary one)
  --passes N        of the sequence that is recorded
  --bias-turns T,…  how far the bias trimmers of both channels stand at each pass, turns clockwise
  --seed N          another course of the random parts (default 1)
  --list            machines, tapes and parameters with units and ranges, as JSON`;

const BLOCK = 48000;

async function main(): Promise<void> {
  const { values } = parse();
  if (values.list) {
    const list = {
      machines: PRACTICE_MACHINES,
      tapes: KNOWN_TAPES.map(({ id, name }) => ({ id, name })),
      blankTapes: DEMO_BLANKS.map(({ id, name }) => ({ id, name })),
      sequences: PRESETS.map(({ id, name }) => ({ id, name })),
      parameters: PARAMETER_RANGES,
    };
    process.stdout.write(`${JSON.stringify(list)}\n`);
    return;
  }
  const number = (name: "seconds" | "rate" | "seed" | "turn", fallback: number, from: number, to: number) => {
    const value = Number(values[name] ?? fallback);
    if (!(value >= from && value <= to))
      throw new UsageError(`--${name} takes ${from} to ${to}, not "${values[name]}"`);
    return value;
  };
  const out = values.out;
  if (!out) throw new UsageError("say where to write with --out FILE.wav");
  const sampleRateHz = Math.round(number("rate", 48000, 8000, 384000));
  const seed = number("seed", 1, 0, 2 ** 31);
  const parametersOf = () => {
    const settings = Object.assign({}, ...(values.set ?? []).map(setting));
    return { ...practiceMachine(values.machine ?? "").transport, ...settings } as TransportParameters;
  };
  if (values.record !== undefined) {
    const parameters = inRange(parametersOf);
    const asked = await sequenceArgument(values.record);
    const passes = values.passes === undefined ? (asked.passes ?? 1) : Number(values.passes);
    const parsed = sequenceSchema.safeParse({ ...asked, passes });
    if (!parsed.success) throw new UsageError(`--${firstIssue(parsed.error)}`);
    const turns = (values["bias-turns"] ?? "").split(",").filter(Boolean).map(Number);
    if (turns.some((turn) => !Number.isFinite(turn)) || (turns.length > 0 && turns.length !== passes))
      throw new UsageError(
        `--bias-turns takes a number for each of the ${passes} passes, separated by commas`,
      );
    const blank = DEMO_BLANKS.find(({ id }) => id === values["record-tape"]);
    if (values["record-tape"] !== undefined && !blank)
      throw new UsageError(`there is no blank tape "${values["record-tape"]}"; --list names them`);
    const back = comesBack({
      parameters,
      seed,
      sampleRateHz,
      sequence: parsed.data,
      blank: blank ?? null,
      turns,
    });
    await write(out, [values.record], sampleRateHz, back.frames, (frames) => back.render(frames));
    const { machine, record: sequence } = values;
    const tape = blank?.id ?? null;
    process.stdout.write(
      `${JSON.stringify({ file: out, machine, sequence, passes, tape, sampleRateHz, parameters })}\n`,
    );
    return;
  }
  const seconds = number("seconds", 30, 0.1, 36000);
  const tape = await tapeArgument(values.tape ?? "");
  const tone = speedTone(tape);
  const { parameters, toneHz } = inRange(() => {
    const parameters = parametersOf();
    const toneHz = tone && (tone.frequencyHz * parameters.speedCmPerS) / tape.speedCmPerS;
    return { parameters, toneHz };
  });

  // a tape of one tone plays on for as long as it is asked to; one of several bands is played through
  const single = toneHz !== null && tape.bands.length === 1;
  const deck = new PracticeDeck({
    parameters,
    sampleRateHz,
    seed,
    ...(single ? { toneHz } : { tape: practiceTape(tape) }),
  });
  deck.press("play");
  deck.transport.trimmers[0].turn(number("turn", 0, -100, 100));
  const frames = Math.round(seconds * sampleRateHz);
  await write(out, [values.tape ?? ""], sampleRateHz, frames, (count) => deck.render(count));
  process.stdout.write(
    `${JSON.stringify({ file: out, machine: values.machine, tape: tape.id, toneHz, seconds, sampleRateHz, parameters })}\n`,
  );
}

async function write(
  out: string,
  reads: readonly string[],
  sampleRateHz: number,
  frames: number,
  render: (frames: number) => [Float64Array, Float64Array],
): Promise<void> {
  const pieces = function* () {
    yield wavHeader(sampleRateHz, 2, frames, "int24");
    for (let done = 0; done < frames; done += BLOCK)
      yield encodeSamples(render(Math.min(BLOCK, frames - done)), "int24");
  };
  await writeWhole(out, reads, pieces());
}

function setting(text: string) {
  const [path, value] = text.split("=");
  if (value === undefined || value.trim() === "" || !Number.isFinite(Number(value)))
    throw new UsageError(`--set takes path=value with a number, not "${text}"`);
  return parameterSetting(path as ParameterPath, Number(value));
}

function inRange<T>(make: () => T): T {
  try {
    return make();
  } catch (error) {
    if (error instanceof RangeError) throw new UsageError(error.message);
    throw error;
  }
}

function parse() {
  try {
    return parseArgs({
      args: joinNegatives(process.argv.slice(2)),
      options: {
        machine: { type: "string" },
        tape: { type: "string" },
        seconds: { type: "string" },
        rate: { type: "string" },
        out: { type: "string" },
        seed: { type: "string" },
        turn: { type: "string" },
        record: { type: "string" },
        "record-tape": { type: "string" },
        passes: { type: "string" },
        "bias-turns": { type: "string" },
        set: { type: "string", multiple: true },
        list: { type: "boolean" },
      },
    });
  } catch (error) {
    throw new UsageError((error as Error).message);
  }
}

runCommand(main, USAGE);
