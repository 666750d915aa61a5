import type { SoundFile } from "@/core/formats/sound-file";
import { leastRateFor } from "@/core/dsp/tone-demodulator";
import { channelName } from "@/core/measure/channel-name";
import { TrackRoom } from "@/core/measure/deviation-track";
import type { ChannelDropOuts } from "@/core/measure/drop-out-rates";
import { countsDropOuts, DropOutMeter, USUAL_DEPTH_DB } from "@/core/measure/drop-outs";
import type { FlutterResult } from "@/core/measure/flutter";
import { LevelMeter } from "@/core/measure/level-meter";
import { TonePairMeter, type TonePair } from "@/core/measure/tone-pair";
import type { SpeedChannel } from "@/core/measure/transport-meter";
import type { BandMeters } from "./band-meters";
import { notAllMeasured, readingsOf, transportMeterOf } from "./transport-of-file";

/** A part of a recording in which something is measured. */
export interface Stretch {
  what: string;
  index: number;
  startSeconds: number;
  endSeconds: number;
  nominalHz: number | null;
  levelDb: { left: number; right: number | null } | null;
}

/** A part of the recording that was recognised, and what was measured in it. */
export interface StretchReport {
  what: string;
  /** Its place among the bands of the tape or the sounds of the sequence; -1 for a tone that belongs to neither. */
  index: number;
  startSeconds: number;
  endSeconds: number;
  /** Frequency that its tone is compared with; null when it has none. */
  nominalHz: number | null;
  levelDb: { left: number; right: number | null };
  speed: SpeedChannel | null;
  flutter: (FlutterResult & { channel: string; carrierHz: number }) | null;
  /** Level of its tone in each channel and the phase between them; null when it has none. */
  pair: TonePair | null;
  /** Of a tone high and long enough for them to be counted. */
  dropOuts: ChannelDropOuts[] | null;
  /** What makes its figures doubtful, or why there are none. */
  warnings: string[];
}

const LOWEST_CARRIER_HZ = 200;
const SHORTEST_FOR_SPEED_SECONDS = 1.5;
/** More of a long tone is not needed for its level and phase. */
const MOST_PAIR_SECONDS = 60;
/** Left out at both ends of a stretch: the edges of bands are not steady. */
const EDGE_SECONDS = 0.1;

/**
 * What is measured in each stretch of a recording, the earliest first: reads it once, and once more for each further
 * channel of long stretches. Null when it was cancelled.
 * @param bands read the same blocks; level and phase of tones are theirs then
 */
export async function measureStretches(
  sound: SoundFile,
  stretches: readonly Stretch[],
  bands: BandMeters | null,
  { told, cancelled }: { told: (share: number) => void; cancelled?: () => boolean },
): Promise<StretchReport[] | null> {
  const ordered = stretches.toSorted((a, b) => a.startSeconds - b.startSeconds);
  const readings = ordered.map((stretch) =>
    canFollow(stretch, sound) ? readingsOf(lengthOf(stretch), sound.channelCount) : [],
  );
  const count = Math.max(1, ...readings.map(({ length }) => length));
  const options = (reading: number) => ({
    told: (share: number) => told((reading + share) / count),
    cancelled,
  });
  const rooms = Array.from({ length: sound.channelCount }, () => new TrackRoom());
  const meters = (i: number, reading: number) => () =>
    toneMeters(ordered[i], sound, readings[i].at(reading), rooms);
  const first = await readStretches(
    sound,
    ordered.map((stretch, i) => ({
      stretch,
      meters: () => allMeters(stretch, sound, bands === null, meters(i, 0)()),
    })),
    bands,
    options(0),
  );
  if (first === null) return null;
  for (let reading = 1; reading < count; reading++) {
    const long = [...first.keys()].filter((i) => readings[i].length > reading);
    const more = await readStretches(
      sound,
      long.map((i) => ({ stretch: ordered[i], meters: meters(i, reading) })),
      null,
      options(reading),
    );
    if (more === null) return null;
    more.forEach((tones, k) => first[long[k]].tones.push(...tones));
  }
  return first.map(({ found, tones }, i) => ({ ...found, ...transportOf(ordered[i], tones) }));
}

interface Meters<T> {
  push(piece: Float32Array[]): void;
  result(): T;
}

/**
 * What meters read of stretches, in their order; one set of meters at a time, since the stretches stand one after the
 * other. Null when it was cancelled.
 */
async function readStretches<T>(
  sound: SoundFile,
  stretches: ReadonlyArray<{ stretch: Stretch; meters: () => Meters<T> }>,
  bands: BandMeters | null,
  { told, cancelled }: { told: (share: number) => void; cancelled?: () => boolean },
): Promise<T[] | null> {
  const rate = sound.sampleRateHz;
  const results: T[] = [];
  let meters = stretches.at(0)?.meters() ?? null;
  if (meters === null) return results;
  let at = 0;
  for await (const block of sound.blocks()) {
    if (cancelled?.()) return null;
    const end = at + block[0].length;
    bands?.push(block);
    while (meters !== null) {
      const { startSeconds, endSeconds } = stretches[results.length].stretch;
      const from = Math.round((startSeconds + EDGE_SECONDS) * rate);
      const to = Math.round((endSeconds - EDGE_SECONDS) * rate);
      if (from >= end) break;
      const inside = [Math.max(0, from - at), Math.max(0, Math.min(to, end) - at)] as const;
      meters.push(block.map((channel) => channel.subarray(...inside)));
      if (to > end) break;
      results.push(meters.result());
      meters = stretches.at(results.length)?.meters() ?? null;
    }
    at = end;
    told(at / sound.frameCount);
    if (meters === null && bands === null) break;
  }
  if (meters !== null) results.push(meters.result());
  return results;
}

const lengthOf = ({ startSeconds, endSeconds }: Stretch): number => endSeconds - startSeconds;

const canFollow = (stretch: Stretch, { sampleRateHz }: SoundFile): boolean =>
  stretch.nominalHz !== null &&
  stretch.nominalHz >= LOWEST_CARRIER_HZ &&
  sampleRateHz >= leastRateFor(stretch.nominalHz) &&
  lengthOf(stretch) >= SHORTEST_FOR_SPEED_SECONDS;

/** Speed and flutter of one channel of a stretch, with what makes them doubtful. */
interface ChannelTone {
  speed: SpeedChannel | null;
  flutter: StretchReport["flutter"];
  warnings: string[];
}

/** Speed and flutter of the channels that are followed in one reading; none without any. */
function toneMeters(
  stretch: Stretch,
  sound: SoundFile,
  followed: readonly number[] | undefined,
  rooms: readonly TrackRoom[],
): Meters<ChannelTone[]> {
  const { nominalHz } = stretch;
  if (nominalHz === null || followed === undefined) return { push: () => {}, result: () => [] };
  const meter = transportMeterOf(sound, nominalHz, lengthOf(stretch), followed, rooms);
  return {
    push: (piece) => meter.push(piece),
    result() {
      meter.finish();
      return meter.channels.map((_, c) => {
        const { result: speed, warnings } = meter.speed(c);
        // how short it is for flutter is told by the flutter itself
        return { speed, flutter: meter.flutter(c).result, warnings };
      });
    },
  };
}

type Transport = Pick<StretchReport, "speed" | "flutter" | "warnings">;

/** Speed of the channel that is known best, flutter of the worst. */
function transportOf(stretch: Stretch, tones: readonly ChannelTone[]): Transport {
  const speeds = tones.flatMap(({ speed }) => speed ?? []);
  const flutters = tones.flatMap(({ flutter }) => flutter ?? []).filter(({ carrierHz }) => carrierHz > 900);
  return {
    speed: speeds.toSorted((a, b) => a.uncertaintyPercent - b.uncertaintyPercent).at(0) ?? null,
    flutter: flutters.toSorted((a, b) => b.weighted.peakPercent - a.weighted.peakPercent).at(0) ?? null,
    warnings: [
      ...(tones.length > 0 ? notAllMeasured(lengthOf(stretch)) : []),
      ...new Set(tones.flatMap(({ warnings }) => warnings)),
    ],
  };
}

/** @param withPair level and phase of the tone too */
function allMeters(
  stretch: Stretch,
  sound: SoundFile,
  withPair: boolean,
  followed: Meters<ChannelTone[]>,
): Meters<{ found: Omit<StretchReport, keyof Transport>; tones: ChannelTone[] }> {
  const { nominalHz } = stretch;
  const levels = Array.from({ length: sound.channelCount }, () => new LevelMeter());
  const isTone = withPair && nominalHz !== null && nominalHz < 0.44 * sound.sampleRateHz;
  const tone = isTone ? new TonePairMeter(sound.sampleRateHz, sound.channelCount, nominalHz) : null;
  let toneFrames = MOST_PAIR_SECONDS * sound.sampleRateHz;
  const dropOuts =
    nominalHz !== null &&
    canFollow(stretch, sound) &&
    countsDropOuts(nominalHz, sound.sampleRateHz, lengthOf(stretch))
      ? levels.map(() => new DropOutMeter(sound.sampleRateHz, nominalHz, USUAL_DEPTH_DB))
      : null;
  return {
    push(piece) {
      levels.forEach((meter, c) => meter.push(piece[c]));
      followed.push(piece);
      dropOuts?.forEach((meter, c) => meter.push(piece[c]));
      if (toneFrames > 0) tone?.push(piece.map((x) => x.subarray(0, toneFrames)));
      toneFrames -= piece[0].length;
    },
    result() {
      // a sine as strong as what is there
      const level = (c: number) => levels[c].level.rmsDbfs + 3.0103;
      return {
        found: {
          ...stretch,
          levelDb: stretch.levelDb ?? { left: level(0), right: levels.length > 1 ? level(1) : null },
          pair: tone?.result() ?? null,
          dropOuts:
            dropOuts?.map((meter, c) => ({
              channel: channelName(c, sound.channelCount),
              ...meter.result(),
            })) ?? null,
        },
        tones: followed.result(),
      };
    },
  };
}
