import { parseArgs } from "node:util";
import { openWav, SoundFileError } from "@/core/formats/wav-reader";
import { TransportMeter } from "@/core/measure/transport-meter";
import { runCommand, UsageError } from "./exit";
import { bytesOfFile } from "./node-bytes";

const USAGE = `usage: npm run --silent measure -- speed|flutter FILE.wav [--nominal HZ]

  speed     frequency, error, uncertainty and drift of a reference tone, per channel
  flutter   weighted and unweighted wow and flutter, and its strongest rates, per channel
  --nominal the tone's frequency on the tape in Hz (default 3150)`;

async function main(): Promise<void> {
  const { kind, file, nominalHz } = readArguments();
  const bytes = await bytesOfFile(file).catch((error: NodeJS.ErrnoException) => {
    throw new SoundFileError(
      error.code === "ENOENT" ? `There is no file ${file}.` : `${file} cannot be read: ${error.message}`,
    );
  });
  try {
    if (bytes.size === 0) throw new SoundFileError(`${file} is empty.`);
    const wav = await openWav(bytes);
    const meter = new TransportMeter(wav.sampleRateHz, wav.channelCount, nominalHz);
    for await (const block of wav.blocks()) meter.push(block);

    const warnings = [...wav.warnings];
    const channels = meter.channels.map((channel, i) => {
      const { result, warnings: doubts } = kind === "speed" ? speedRow(meter, i) : flutterRow(meter, i);
      warnings.push(...doubts);
      return { channel, ...result };
    });
    const answer = {
      measurement: kind,
      file,
      sampleRateHz: wav.sampleRateHz,
      durationSeconds: wav.durationSeconds,
      nominalHz,
      warnings,
      channels,
    };
    process.stdout.write(`${JSON.stringify(answer)}\n`);
  } finally {
    await bytes.close();
  }
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
  return {
    warnings,
    result: {
      carrierHz: result?.carrierHz ?? null,
      weighted: result?.weighted ?? NO_FIGURES,
      unweighted: result?.unweighted ?? NO_FIGURES,
      wowRmsPercent: result?.wowRmsPercent ?? null,
      flutterRmsPercent: result?.flutterRmsPercent ?? null,
      components: result?.components ?? [],
    },
  };
}

function readArguments() {
  let parsed;
  try {
    parsed = parseArgs({ allowPositionals: true, options: { nominal: { type: "string" } } });
  } catch (error) {
    throw new UsageError((error as Error).message);
  }
  const [kind, file, ...rest] = parsed.positionals;
  if (kind !== "speed" && kind !== "flutter")
    throw new UsageError(kind === undefined ? "say what to measure" : `cannot measure "${kind}"`);
  if (file === undefined) throw new UsageError("say which file to measure");
  if (rest.length > 0) throw new UsageError(`one file at a time; "${rest[0]}" is too much`);
  const nominalHz = Number(parsed.values.nominal ?? 3150);
  if (!(nominalHz >= 200 && nominalHz <= 20000))
    throw new UsageError(`--nominal takes a frequency from 200 to 20000 Hz, not "${parsed.values.nominal}"`);
  return { kind, file, nominalHz } as const;
}

runCommand(main, USAGE);
