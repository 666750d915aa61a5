import type { SoundFile } from "@/core/formats/sound-file";
import type { TransportMeter } from "@/core/measure/transport-meter";
import type { Machine } from "@/core/records/machine";
import type { ChannelTransport } from "@/core/advice/transport-view";
import { notAllMeasured, transportOfFile } from "@/core/recordings/transport-of-file";
import type { Answer } from "./answer";

export async function transport(
  sound: SoundFile,
  kind: "speed" | "flutter",
  nominalHz: number,
  geometry: { machine: Machine; speedCmPerS: number | undefined } | null,
): Promise<Answer> {
  const views = geometry === null || kind === "speed" ? null : await viewsFor(geometry);
  const rows = await transportOfFile(sound, nominalHz, (meter, i) => ({
    channel: meter.channels[i],
    ...(kind === "speed" ? speedRow(meter, i) : flutterRow(meter, i)),
    view: views && views.of(meter, i),
  }));
  const parts = views && geometry && partsAnswer(geometry.machine, views.worst(rows.map(({ view }) => view)));
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

/** How parts are looked for, read in only when they are. */
async function viewsFor({
  machine,
  speedCmPerS = machine.speedsCmPerS[0],
}: {
  machine: Machine;
  speedCmPerS: number | undefined;
}) {
  const { channelTransport, worstTransport } = await import("@/core/advice/transport-view");
  const geometry = { parts: machine.parts, speedCmPerS, firstSpeedCmPerS: machine.speedsCmPerS[0] };
  return {
    of: (meter: TransportMeter, channel: number) => channelTransport(meter, channel, geometry),
    worst: worstTransport,
  };
}

function partsAnswer(machine: Machine, worst: ChannelTransport | null) {
  const { parts } = machine;
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
    warnings: result?.doubt ? [...warnings, `${meter.channels[i]}: ${result.doubt}`] : warnings,
    result: {
      carrierHz: result?.carrierHz ?? null,
      weighted: result?.weighted ?? NO_FIGURES,
      unweighted: result?.unweighted ?? NO_FIGURES,
      wowRmsPercent: result?.wowRmsPercent ?? null,
      flutterRmsPercent: result?.flutterRmsPercent ?? null,
      uncertainty: result?.uncertainty ?? null,
      seconds: result?.seconds ?? null,
      components: result?.components ?? [],
      ...(scrape && { scrape }),
    },
  };
}
