import { parseArgs } from "node:util";
import { openSound } from "@/core/formats/open-sound";
import { SoundFileError, type SoundFile } from "@/core/formats/sound-file";
import { channelName } from "@/core/measure/channel-name";
import { HumMeter } from "@/core/measure/hum";
import { LevelMeter } from "@/core/measure/level-meter";
import type { Machine } from "@/core/alignment/records";
import { worstTransport } from "@/core/listen/transport-view";
import { matchRecordings, MatchSound } from "@/core/measure/match/match-recordings";
import { TransportMeter } from "@/core/measure/transport-meter";
import { BandEar } from "@/core/reference/band-ear";
import { runCommand, UsageError } from "./exit";
import { bytesOfFile } from "./node-bytes";
import { machineArgument } from "./machine-argument";
import { tapeArgument } from "./tape-argument";

const USAGE = `usage: npm run --silent measure -- KIND FILE [options]     FILE is a WAV or FLAC recording

  speed     frequency, error, uncertainty and drift of a reference tone, per channel
  flutter   weighted and unweighted wow and flutter, and its strongest rates, per channel
  level     peak, true peak, RMS, DC, clipping and mains hum, per channel
  match     speed of a recording of music against another copy of it, by the time map between the two
  bands     which bands of a reference tape are heard, and when

  --nominal HZ      speed, flutter: the tone's frequency on the tape (default 3150)
  --machine FILE|ID flutter: a machine file (JSON) or the id of a demo machine; names the parts that are heard
  --speed CM/S      flutter: tape speed, where the machine has several (default its first)
  --against FILE    match: another copy of the same recording, of known speed
  --tape FILE|ID    bands: a reference tape file (JSON), or the id of a tape that comes with Unzel`;

const KINDS = ["speed", "flutter", "level", "bands", "match"] as const;
type Kind = (typeof KINDS)[number];

async function main(): Promise<void> {
  const { kind, file, nominalHz, speedCmPerS, tapeName, machineName, against } = readArguments();
  const tape = kind === "bands" ? await tapeArgument(tapeName!) : null;
  const machine = machineName === undefined ? null : await machineArgument(machineName);
  await withSound(file, async (sound) => {
    const measured =
      kind === "level"
        ? await levels(sound)
        : kind === "match"
          ? await match(sound, against!)
          : tape !== null
            ? await bands(sound, tape)
            : await transport(
                sound,
                kind as "speed" | "flutter",
                nominalHz,
                machine && { machine, speedCmPerS },
              );
    const { warnings = [], ...answer } = measured;
    const head = { measurement: kind, file, sampleRateHz: sound.sampleRateHz };
    const durationSeconds = sound.durationSeconds;
    process.stdout.write(
      `${JSON.stringify({ ...head, durationSeconds, warnings: [...sound.warnings, ...warnings], ...answer })}\n`,
    );
  });
}

async function withSound<T>(file: string, hear: (sound: SoundFile) => Promise<T>): Promise<T> {
  const bytes = await bytesOfFile(file).catch((error: NodeJS.ErrnoException) => {
    throw new SoundFileError(
      error.code === "ENOENT" ? `There is no file ${file}.` : `${file} cannot be read: ${error.message}`,
    );
  });
  try {
    if (bytes.size === 0) throw new SoundFileError(`${file} is empty.`);
    return await hear(await openSound(bytes));
  } finally {
    await bytes.close();
  }
}

async function match(sound: SoundFile, against: string): Promise<Answer> {
  const listen = async (to: SoundFile) => {
    const kept = new MatchSound(to.sampleRateHz);
    for await (const block of to.blocks()) kept.push(block);
    return kept;
  };
  const mine = await listen(sound);
  return { against, ...matchRecordings(mine, await withSound(against, listen)) };
}

type Answer = { warnings?: string[]; [field: string]: unknown };

async function transport(
  sound: SoundFile,
  kind: "speed" | "flutter",
  nominalHz: number,
  geometry: { machine: Machine; speedCmPerS: number | undefined } | null,
): Promise<Answer> {
  const meter = new TransportMeter(sound.sampleRateHz, sound.channelCount, nominalHz);
  for await (const block of sound.blocks()) meter.push(block);
  const rows = meter.channels.map((channel, i) => ({
    channel,
    ...(kind === "speed" ? speedRow(meter, i) : flutterRow(meter, i)),
  }));
  const parts = geometry === null || kind === "speed" ? null : partsOf(meter, geometry);
  return {
    nominalHz,
    warnings: [...rows.flatMap(({ warnings }) => warnings), ...(parts?.warnings ?? [])],
    channels: rows.map(({ channel, result }) => ({ channel, ...result })),
    ...parts?.answer,
  };
}

function partsOf(
  meter: TransportMeter,
  { machine, speedCmPerS = machine.speedsCmPerS[0] }: { machine: Machine; speedCmPerS: number | undefined },
) {
  const { parts, speedsCmPerS } = machine;
  const worst = worstTransport(meter, { parts, speedCmPerS, firstSpeedCmPerS: speedsCmPerS[0] });
  if (worst === null) return { warnings: [], answer: { machine: machine.id, parts: [] } };
  const { channel, finding } = worst;
  return {
    warnings: [...finding.warnings, ...(parts.length === 0 ? [`${machine.name} has no parts entered.`] : [])],
    answer: {
      machine: machine.id,
      partsOf: channel,
      totalRmsPercent: finding.totalRmsPercent,
      parts: finding.parts.map((part) => ({ ...part, turn: undefined })),
      unexplained: finding.unexplained,
    },
  };
}

function speedRow(meter: TransportMeter, i: number) {
  const { result, warnings } = meter.speed(i);
  return {
    warnings,
    result: {
      frequencyHz: result?.frequencyHz ?? null,
      errorPercent: result?.errorPercent ?? null,
      errorCents: result?.errorCents ?? null,
      uncertaintyPercent: result?.uncertaintyPercent ?? null,
      driftPercentPerMinute: result?.driftPercentPerMinute ?? null,
    },
  };
}

const NO_FIGURES = { peakPercent: null, twoSigmaPercent: null, rmsPercent: null, averagePercent: null };

function flutterRow(meter: TransportMeter, i: number) {
  const { result, warnings } = meter.flutter(i);
  const scrape = result && meter.scrape(i);
  return {
    warnings,
    result: {
      carrierHz: result?.carrierHz ?? null,
      weighted: result?.weighted ?? NO_FIGURES,
      unweighted: result?.unweighted ?? NO_FIGURES,
      wowRmsPercent: result?.wowRmsPercent ?? null,
      flutterRmsPercent: result?.flutterRmsPercent ?? null,
      components: result?.components ?? [],
      ...(scrape && { scrape }),
    },
  };
}

async function levels(sound: SoundFile): Promise<Answer> {
  const meters = Array.from({ length: sound.channelCount }, () => ({
    level: new LevelMeter(),
    hum: new HumMeter(sound.sampleRateHz),
  }));
  for await (const block of sound.blocks())
    meters.forEach(({ level, hum }, c) => {
      level.push(block[c]);
      hum.push(block[c]);
    });
  return {
    channels: meters.map(({ level, hum }, c) => ({
      channel: channelName(c, sound.channelCount),
      ...level.level,
      mainsHz: hum.hum.mainsHz,
      humDb: hum.hum.lines,
    })),
  };
}

async function bands(sound: SoundFile, tape: Awaited<ReturnType<typeof tapeArgument>>): Promise<Answer> {
  const ear = new BandEar(sound.sampleRateHz, sound.channelCount);
  for await (const block of sound.blocks()) ear.push(block);
  ear.finish();
  const { bands: found, repeats, speedRatio, doubt } = ear.recognise(tape);
  const row = ({ leftDb, rightDb, ...band }: (typeof found)[number]) => ({
    ...band,
    levelDb: { left: leftDb, right: sound.channelCount > 1 ? rightDb : null },
  });
  return {
    warnings: doubt ? [doubt] : found.length === 0 ? [`No band of ${tape.name} was heard.`] : [],
    tape: tape.id,
    speedErrorPercent: speedRatio === null ? null : 100 * (speedRatio - 1),
    bands: found.map(row),
    repeats: repeats.map(row),
  };
}

function readArguments() {
  let parsed;
  try {
    parsed = parseArgs({
      allowPositionals: true,
      options: {
        nominal: { type: "string" },
        tape: { type: "string" },
        machine: { type: "string" },
        speed: { type: "string" },
        against: { type: "string" },
      },
    });
  } catch (error) {
    throw new UsageError((error as Error).message);
  }
  const [kind, file, ...rest] = parsed.positionals;
  if (!KINDS.includes(kind as Kind))
    throw new UsageError(kind === undefined ? "say what to measure" : `cannot measure "${kind}"`);
  if (file === undefined) throw new UsageError("say which file to measure");
  if (rest.length > 0) throw new UsageError(`one file at a time; "${rest[0]}" is too much`);
  const nominalHz = Number(parsed.values.nominal ?? 3150);
  if (!(nominalHz >= 200 && nominalHz <= 20000))
    throw new UsageError(`--nominal takes a frequency from 200 to 20000 Hz, not "${parsed.values.nominal}"`);
  if (kind === "bands" && parsed.values.tape === undefined)
    throw new UsageError("say which tape it is: --tape FILE|ID");
  if (kind === "match" && parsed.values.against === undefined)
    throw new UsageError("say which recording to match it against: --against FILE");
  const speedCmPerS = parsed.values.speed === undefined ? undefined : Number(parsed.values.speed);
  if (speedCmPerS !== undefined && !(speedCmPerS >= 1 && speedCmPerS <= 100))
    throw new UsageError(`--speed takes a tape speed from 1 to 100 cm/s, not "${parsed.values.speed}"`);
  return {
    kind: kind as Kind,
    file,
    nominalHz,
    speedCmPerS,
    tapeName: parsed.values.tape,
    machineName: parsed.values.machine,
    against: parsed.values.against,
  };
}

runCommand(main, USAGE);
