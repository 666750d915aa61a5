import type { PlaybackNow, PlayingTone } from "@/core/listen/playback-now";
import type { ResponseSource } from "@/core/listen/response-runs";
import type { ResponsePoint } from "@/core/measure/response";
import { base, type LogContext } from "./log-reading";
import type { PlaybackLevel } from "./playback-level";
import { judgeResponse } from "./judge-response";
import { azimuthByPhase, corridorOf } from "./limits";
import type { Quantity } from "./quantities";
import type { Machine, Reading, StationId } from "./records";

interface Figure {
  quantity: Quantity;
  value: number;
  uncertainty: number;
  channel?: string;
  nominalHz?: number;
}

const figures = (
  station: StationId,
  context: LogContext,
  seconds: number,
  method: string,
  list: Array<Figure | false | null>,
): Reading[] =>
  list
    .filter((figure) => figure !== null && figure !== false)
    .map(({ quantity, value, uncertainty, channel = "both", nominalHz = context.nominalHz }) => ({
      ...base({ ...context, channel, nominalHz }, station, quantity, seconds),
      value,
      uncertainty,
      ownUncertainty: uncertainty,
      method,
    }));

/** Before the screw was turned the loudest so far is only where it stands: so much may be lost, dB. */
const PEAK_NOT_SEEN_DB = 10;

/** ± dB of how far a level is below its peak. */
export const belowPeakUncertainty = ({
  peakSeen,
  wanderDb,
}: Pick<PlayingTone, "peakSeen" | "wanderDb">): number => (peakSeen ? wanderDb : PEAK_NOT_SEEN_DB);

/** Azimuth as it is logged; empty when there is nothing to log. */
export function azimuthReadings(now: PlaybackNow, machine: Machine, context: LogContext): Reading[] {
  const { phase, azimuth, playing } = now;
  if (!azimuthByPhase(machine)) {
    if (!playing) return [];
    const { levelsDbfs, heldDbfs, wanderDb, frequencyHz: nominalHz } = playing;
    const uncertainty = belowPeakUncertainty(playing);
    const levelDbfs = meanDb(levelsDbfs);
    return figures("azimuth", context, 1, "loudest point of the treble tone", [
      {
        quantity: "azimuth.belowPeak",
        value: Math.max(0, heldDbfs - levelDbfs),
        uncertainty,
        nominalHz,
      },
      { quantity: "azimuth.treble", value: levelDbfs, uncertainty: wanderDb, nominalHz },
    ]);
  }
  if (!phase) return [];
  const { degrees, uncertaintyDegrees, spreadDegrees, counted } = phase;
  const method = counted
    ? "phase between the channels, cycles counted by the tone ladder"
    : "phase between the channels, cycles not counted";
  const seconds = Math.max(0, ...now.tones.map(({ pair }) => pair.seconds));
  const known = azimuth?.resolved ? azimuth : null;
  return figures("azimuth", { ...context, nominalHz: 10_000 }, seconds, method, [
    { quantity: "azimuth.phase", value: degrees, uncertainty: uncertaintyDegrees },
    { quantity: "azimuth.wander", value: spreadDegrees, uncertainty: 0.1 * spreadDegrees },
    known && {
      quantity: "azimuth.tilt",
      value: known.tiltArcMinutes!,
      uncertainty: Math.abs(
        (known.tiltArcMinutes! * known.delayUncertaintySeconds!) / (known.delaySeconds || 1e-9),
      ),
    },
    known &&
      known.monoSumDbAt10kHz !== null && {
        quantity: "azimuth.monoLoss",
        value: -known.monoSumDbAt10kHz,
        uncertainty: 0.1,
      },
  ]);
}

/** Level of each channel and their balance. */
export function levelReadings(level: PlaybackLevel, seconds: number, context: LogContext): Reading[] {
  const { channels, balanceDb, balanceUncertaintyDb, frequencyHz: nominalHz } = level;
  const method = "level of the reference fluxivity band, corrections taken away";
  return figures("level", { ...context, nominalHz }, seconds, method, [
    ...channels.map(
      ({ channel, errorDb, uncertaintyDb }) =>
        errorDb !== null && {
          quantity: "level.error" as const,
          value: errorDb,
          uncertainty: uncertaintyDb,
          channel: channels.length === 1 ? "both" : channel,
        },
    ),
    balanceDb !== null && { quantity: "level.balance", value: balanceDb, uncertainty: balanceUncertaintyDb },
  ]);
}

export interface ResponseToLog {
  from: ResponseSource | null;
  channels: ReadonlyArray<{ channel: string; points: ResponsePoint[] }>;
}

const RESPONSE_METHODS: Record<ResponseSource, string> = {
  bands: "band levels re the reference band, tape and certificate taken away",
  sweep: "level along the sweep re the reference band, tape and certificate taken away",
  noise: "pink noise in bands of a third and a sixth of an octave, re its own middle",
};

/** Every point of the response of each channel, with its worst and the point that the equaliser is set by. */
export function responseReadings(
  { from, channels }: ResponseToLog,
  machine: Machine,
  context: LogContext,
): Reading[] {
  const method = RESPONSE_METHODS[from ?? "bands"];
  return figures(
    "response",
    context,
    1,
    method,
    channels.flatMap(({ channel, points }) => {
      const { worst, treble } = judgeResponse(points, corridorOf(machine));
      const figure = (quantity: Quantity, point: ResponsePoint | null): Figure | null =>
        point && {
          quantity,
          value: point.levelDb,
          uncertainty: point.uncertaintyDb,
          channel,
          nominalHz: point.frequencyHz,
        };
      return [
        figure("response.worst", worst),
        figure("response.treble", treble),
        ...points.map((point) => figure("response.point", point)),
      ];
    }),
  );
}

const meanDb = (levels: number[]): number =>
  10 * Math.log10(levels.reduce((sum, db) => sum + 10 ** (db / 10), 0) / levels.length);
