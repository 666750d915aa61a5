import { findParts, type PartFinding } from "./find-parts";
import type { SteadyStretch } from "@/core/measure/steady-stretch";
import { strongestWaveform, type FlutterWaveform } from "@/core/measure/flutter-waveform";
import { transportEvents, type TransportEvent } from "@/core/measure/transport-events";
import type { TransportMeter } from "@/core/measure/transport-meter";
import type { MachinePart } from "@/core/workshop/machine-part";

/** The machine whose parts are looked for in the flutter. */
export interface Geometry {
  parts: MachinePart[];
  speedCmPerS: number;
  firstSpeedCmPerS: number;
}

/** Where the flutter comes from and what happened to the speed. */
export interface TransportView {
  finding: PartFinding;
  events: TransportEvent[];
  /** Where it deviates most. */
  waveform: FlutterWaveform;
  /** How much sound it rests on. */
  seconds: number;
}

/** Parts and events of one steady stretch of tone. */
export function transportView(
  stretch: SteadyStretch,
  { parts, speedCmPerS, firstSpeedCmPerS }: Geometry,
): TransportView {
  const { deviation, rateHz, startSeconds } = stretch;
  return {
    finding: findParts(stretch, parts, speedCmPerS, firstSpeedCmPerS),
    events: transportEvents(deviation, rateHz, startSeconds),
    waveform: strongestWaveform(stretch),
    seconds: deviation.length / rateHz,
  };
}

/** What one channel of a whole recording tells. */
export type ChannelTransport = TransportView & { channel: string };

/** Of one channel that a meter has followed; null when its tone is not steady. */
export function channelTransport(
  meter: TransportMeter,
  channel: number,
  geometry: Geometry,
): ChannelTransport | null {
  const { stretch } = meter.tone(channel);
  return stretch && { channel: meter.channels[channel], ...transportView(stretch, geometry) };
}

/** That of the channel with the most flutter, since all are driven by the same parts; null when no tone is steady. */
export const worstTransport = (channels: readonly (ChannelTransport | null)[]): ChannelTransport | null =>
  channels
    .flatMap((view) => view ?? [])
    .toSorted((a, b) => b.finding.totalRmsPercent - a.finding.totalRmsPercent)
    .at(0) ?? null;
