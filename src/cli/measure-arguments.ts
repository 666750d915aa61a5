import { parseArgs } from "node:util";
import { USUAL_DEPTH_DB } from "@/core/measure/drop-outs";
import { TAPE_SPEEDS } from "@/core/standards/tape-speeds";
import { UsageError } from "./exit";
import { joinNegatives } from "./join-negatives";

export const USAGE = `usage: npm run --silent measure -- KIND FILE [options]     FILE is a WAV or FLAC recording

  speed     frequency, error, uncertainty and drift of a reference tone, per channel
  flutter   weighted and unweighted wow and flutter, and its strongest rates, per channel
  level     peak, true peak, RMS, DC, clipping and mains hum, per channel
  match     speed of a recording of music against another copy of it, by the time map between the two
  bands     which bands of a reference tape are heard, and when
  azimuth   phase between the channels on each tone of a reference tape, the delay and the tilt of the head
  response  level of each tone of a reference tape re its reference band, all corrections made, per channel
  distortion  harmonics 2 to 7 of a steady tone by order tracking, THD, the noise that hides them, per channel
  returned  what came back of a marked sequence re what was sent, pass by pass
  bias      where each school would leave the bias screw, from passes of a bias sequence at known places of it
  noise     noise flat, A- and 468-weighted, and mains hum of a recording of silence, per channel
  dropouts  drop-outs of a steady tone by depth and length, per channel and of both
  doctor    what a response curve looks like; FILE is a CSV file with the columns frequencyHz, levelDb

  --nominal HZ      speed, flutter, distortion, dropouts: the tone's frequency (default 3150; distortion 315)
  --reference-dbfs DB noise: the level that the figures are told re (default full scale)
  --depth-db DB     dropouts: the least depth that counts (default 6)
  --source FILE     distortion: a recording of what went in, to tell the source's own harmonics
  --turns T,T,…     bias: where the screw stood at each pass, turns clockwise
  --over-bias-db DB bias: by how much the high tone is to have dropped past its loudest point
  --sequence S      returned, bias: a preset, or a sequence file (JSON) that Unzel exported
  --machine FILE|ID flutter: a machine file (JSON) or the id of a demo machine; names the parts that are heard
  --speed CM/S      flutter: tape speed, where the machine has several (default its first)
  --speed-cm-s CM/S azimuth, doctor, bias: tape speed (default the tape's, 4.76)
  --spacing-mm MM   azimuth: between the middles of the two tracks (default 0.9)
  --equalisation E  response, doctor: the machine's time constants, "3180/70" (default the tape's, the speed's)
  --inductance-mh L doctor: of the head, for component values
  --against FILE    match: another copy of the same recording, of known speed
  --tape FILE|ID    bands, azimuth, response: a reference tape file (JSON), or the id of a tape that comes with Unzel`;

const KINDS = [
  "speed",
  "flutter",
  "level",
  "bands",
  "match",
  "azimuth",
  "response",
  "distortion",
  "returned",
  "bias",
  "noise",
  "dropouts",
  "doctor",
] as const;
export type Kind = (typeof KINDS)[number];
/** Measurements of a reference tape, which has to be named. */
const NEED_TAPE: readonly Kind[] = ["bands", "azimuth", "response"];

/** The usual tone of measurements that are not of speed. */
const USUAL_TONE_HZ: Partial<Record<Kind, number>> = { distortion: 315 };

const OPTIONS = {
  nominal: { type: "string" },
  tape: { type: "string" },
  machine: { type: "string" },
  speed: { type: "string" },
  against: { type: "string" },
  source: { type: "string" },
  sequence: { type: "string" },
  turns: { type: "string" },
  "over-bias-db": { type: "string" },
  "reference-dbfs": { type: "string" },
  "depth-db": { type: "string" },
  "spacing-mm": { type: "string" },
  "speed-cm-s": { type: "string" },
  equalisation: { type: "string" },
  "inductance-mh": { type: "string" },
} as const;

/** What was asked for. @throws UsageError saying what is wrong with it */
export function readArguments() {
  let parsed;
  try {
    parsed = parseArgs({
      allowPositionals: true,
      options: OPTIONS,
      args: joinNegatives(process.argv.slice(2)),
    });
  } catch (error) {
    throw new UsageError((error as Error).message);
  }
  const { values } = parsed;
  const [kind, file, ...rest] = parsed.positionals;
  if (!KINDS.includes(kind as Kind))
    throw new UsageError(kind === undefined ? "say what to measure" : `cannot measure "${kind}"`);
  if (file === undefined) throw new UsageError("say which file to measure");
  if (rest.length > 0) throw new UsageError(`one file at a time; "${rest[0]}" is too much`);
  const number = (name: keyof typeof OPTIONS, what: string, from: number, to: number) => {
    const text = values[name];
    if (text === undefined) return undefined;
    const value = Number(text);
    if (!(value >= from && value <= to))
      throw new UsageError(`--${name} takes ${what} from ${from} to ${to}, not "${text}"`);
    return value;
  };
  if (NEED_TAPE.includes(kind as Kind) && values.tape === undefined)
    throw new UsageError("say which tape it is: --tape FILE|ID");
  if (kind === "match" && values.against === undefined)
    throw new UsageError("say which recording to match it against: --against FILE");
  if (kind === "returned" && values.sequence === undefined)
    throw new UsageError("say which sequence was recorded: --sequence PRESET|FILE");
  const turns = (values.turns ?? "")
    .split(",")
    .filter((one) => one.trim() !== "")
    .map(Number);
  if (turns.some((turn) => !Number.isFinite(turn)))
    throw new UsageError(`--turns takes numbers separated by commas, not "${values.turns}"`);
  if (kind === "bias" && turns.length < 2)
    throw new UsageError("say where the screw stood at each pass: --turns 0,0.1,0.2");
  if (values.equalisation !== undefined && !/^(\d+(\.\d+)?|∞)\/\d+(\.\d+)?$/.test(values.equalisation))
    throw new UsageError(
      `--equalisation takes two time constants in microseconds, as 3180/120, not "${values.equalisation}"`,
    );
  return {
    kind: kind as Kind,
    file,
    nominalHz:
      number("nominal", "a frequency", kind === "distortion" ? 20 : 200, 20000) ??
      USUAL_TONE_HZ[kind as Kind] ??
      3150,
    speedCmPerS: number("speed", "a tape speed", 1, 100) ?? number("speed-cm-s", "a tape speed", 1, 100),
    spacingMm: number("spacing-mm", "millimetres", 0.1, 30) ?? 0.9,
    inductanceMh: number("inductance-mh", "millihenries", 0.1, 10000),
    equalisation: values.equalisation,
    tapeName: values.tape,
    machineName: values.machine,
    against: values.against,
    source: values.source,
    sequenceName: values.sequence ?? (kind === "bias" ? "bias" : undefined),
    overBiasDb: number("over-bias-db", "decibels", 0.1, 20) ?? null,
    referenceDbfs: number("reference-dbfs", "a level", -120, 0) ?? null,
    depthDb: number("depth-db", "decibels", 1, 60) ?? USUAL_DEPTH_DB,
    turns,
  };
}

/** The speed that most small recorders have, for a curve whose speed was not said. */
export const USUAL_SPEED_CM_PER_S = TAPE_SPEEDS[1].cmPerS;
