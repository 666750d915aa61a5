import type { Machine } from "@/core/records/machine";
import type { SoundFile } from "@/core/formats/sound-file";
import { worstTransport } from "@/core/advice/transport-view";
import { channelName } from "@/core/measure/channel-name";
import { HumMeter } from "@/core/measure/hum";
import { LevelMeter } from "@/core/measure/level-meter";
import { matchRecordings, MatchSound } from "@/core/measure/match/match-recordings";
import type { TransportMeter } from "@/core/measure/transport-meter";
import { notAllMeasured, transportOfFile } from "@/core/recordings/transport-of-file";
import { ProgrammeRecogniser } from "@/core/programme/programme-recogniser";
import type { RecognisedSection } from "@/core/programme/recognition";
import { programmeOfTape } from "@/core/reference/programme-of-tape";
import type { ReferenceTape } from "@/core/reference/reference-tape";
import { withSound } from "./sound-argument";

/** What a measurement prints, beside the head that all have. */
export type Answer = { warnings?: string[]; [field: string]: unknown };

export async function match(sound: SoundFile, against: string): Promise<Answer> {
  const listen = async (to: SoundFile) => {
    const kept = new MatchSound(to.sampleRateHz);
    for await (const block of to.blocks()) kept.push(block);
    return kept;
  };
  const mine = await listen(sound);
  return { against, ...matchRecordings(mine, await withSound(against, listen)) };
}

export async function transport(
  sound: SoundFile,
  kind: "speed" | "flutter",
  nominalHz: number,
  geometry: { machine: Machine; speedCmPerS: number | undefined } | null,
): Promise<Answer> {
  const meter = transportOfFile(sound, nominalHz, sound.durationSeconds);
  for await (const block of sound.blocks()) meter.push(block);
  meter.finish();
  const rows = meter.channels.map((channel, i) => ({
    channel,
    ...(kind === "speed" ? speedRow(meter, i) : flutterRow(meter, i)),
  }));
  const parts = geometry === null || kind === "speed" ? null : partsOf(meter, geometry);
  return {
    nominalHz,
    warnings: [
      ...notAllMeasured(sound.durationSeconds),
      ...rows.flatMap(({ warnings }) => warnings),
      ...(parts?.warnings ?? []),
    ],
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

export async function levels(sound: SoundFile): Promise<Answer> {
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

export async function bands(sound: SoundFile, tape: ReferenceTape): Promise<Answer> {
  const recogniser = new ProgrammeRecogniser(sound.sampleRateHz, sound.channelCount, { marks: false });
  for await (const block of sound.blocks()) recogniser.push(block);
  recogniser.finish();
  const { sections: found, repeats, speedRatio, doubt } = recogniser.recognise(programmeOfTape(tape));
  const row = ({ levelDb, ...band }: RecognisedSection) => ({
    ...band,
    levelDb: levelDb && { left: levelDb.left, right: sound.channelCount > 1 ? levelDb.right : null },
  });
  return {
    warnings: doubt ? [doubt] : found.length === 0 ? [`No band of ${tape.name} was heard.`] : [],
    tape: tape.id,
    speedErrorPercent: speedRatio === null ? null : 100 * (speedRatio - 1),
    bands: found.map(row),
    repeats: repeats.map(row),
  };
}
