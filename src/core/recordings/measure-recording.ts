import type { SoundFile } from "@/core/formats/sound-file";
import { channelName } from "@/core/measure/channel-name";
import type { FlutterResult } from "@/core/measure/flutter";
import { HumMeter, type Hum } from "@/core/measure/hum";
import { LevelMeter, type Level } from "@/core/measure/level-meter";
import { TransportMeter, type SpeedChannel } from "@/core/measure/transport-meter";
import { TonePairMeter, type TonePair } from "@/core/measure/tone-pair";
import { BandRecogniser } from "@/core/reference/band-recogniser";
import { bandName, certifiedFrequencyHz, type ReferenceTape } from "@/core/reference/reference-tape";
import { locateSegments } from "@/core/signals/locate-segments";
import { MarkDetector } from "@/core/signals/mark-detector";
import { segmentName, type Sequence } from "@/core/signals/sequence";
import { usualFormat } from "@/core/standards/track-formats";
import { BandMeters } from "./band-meters";
import type { HeardBands } from "@/core/playback/heard-bands";
import type { Recognition } from "@/core/reference/recognise-bands";
import { playbackView, type PlaybackView } from "./playback-report";

export interface ChannelReport extends Level {
  channel: string;
  hum: Hum;
}

/** A part of the recording that was recognised, and what was measured in it. */
export interface StretchReport {
  what: string;
  /** Of a tape: which band; of a sequence: which segment; -1 for a tone that belongs to neither. */
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
  warnings: string[];
}

export interface RecordingReport {
  sampleRateHz: number;
  durationSeconds: number;
  channels: ChannelReport[];
  warnings: string[];
  /** What the stretches were told by. */
  by: { kind: "tape" | "sequence"; id: string; name: string } | { kind: "tones" };
  stretches: StretchReport[];
  /** Azimuth and response, of a tape whose tones were heard; null without one. */
  playback: PlaybackView | null;
  /** What that was read from; null without a tape. */
  heard: HeardBands | null;
}

export interface RecordingOptions {
  /** The tape that was played; null when it is not known. */
  tape: ReferenceTape | null;
  /** Sequences whose marks are looked for. */
  sequences: readonly Sequence[];
  onProgress?: (share: number) => void;
  /** Asked between blocks; true gives up. */
  cancelled?: () => boolean;
}

/** Tones that test tapes and technicians use; a tone without a tape is compared with the nearest. */
const USUAL_HZ = [
  40, 63, 100, 125, 250, 315, 333, 400, 500, 630, 700, 1000, 2000, 3000, 3150, 4000, 5000, 6300, 7000, 8000,
  10000, 12500, 14000, 15000, 16000, 18000,
];
const NEAR_USUAL = 0.06;
const LOWEST_CARRIER_HZ = 200;
const SHORTEST_FOR_SPEED_SECONDS = 1.5;
/** So many tones, or one sweep or noise, say something of azimuth or response. */
const FEWEST_BANDS = 2;
/** More of a long tone is not needed for its level and phase. */
const MOST_PAIR_SECONDS = 60;
/** Left out at both ends of a stretch: the edges of bands are not steady. */
const EDGE_SECONDS = 0.1;

interface Stretch {
  what: string;
  index: number;
  startSeconds: number;
  endSeconds: number;
  nominalHz: number | null;
  levelDb: { left: number; right: number | null } | null;
}

/**
 * Every measurement that makes sense for a recording: levels and hum of the whole, then, where bands of a tape,
 * segments of a marked sequence or steady tones are found, level, speed and flutter of each. Reads the recording
 * twice, a block at a time. Null when it was cancelled.
 */
export async function measureRecording(
  sound: SoundFile,
  options: RecordingOptions,
): Promise<RecordingReport | null> {
  const first = await listenThrough(sound, options);
  if (first === null) return null;
  const { tape } = options;
  const { by, stretches, doubt, recognition } = stretchesOf(first, options, sound);
  const meters = recognition && tape ? new BandMeters(recognition, tape, sound) : null;
  const measured = await measureStretches(sound, stretches, meters, options);
  if (measured === null) return null;
  const heard = meters && { ...meters.result(), speedRatio: recognition?.speedRatio ?? 1 };
  const pairs = new Map(heard?.bands.map(({ index, pair }) => [index, pair]));
  return {
    sampleRateHz: sound.sampleRateHz,
    durationSeconds: sound.durationSeconds,
    channels: first.meters.map(({ level, hum }, c) => ({
      channel: channelName(c, sound.channelCount),
      ...level.level,
      hum: hum.hum,
    })),
    warnings: [...new Set([...sound.warnings, ...(doubt ? [doubt] : [])])],
    by,
    stretches: heard
      ? measured.map((stretch) => ({ ...stretch, pair: pairs.get(stretch.index) ?? null }))
      : measured,
    playback:
      tape && heard && heard.bands.length + FEWEST_BANDS * heard.wide.length >= FEWEST_BANDS
        ? playbackView(heard, tape, usualFormat(tape.speedCmPerS))
        : null,
    heard,
  };
}

async function listenThrough(sound: SoundFile, { onProgress, cancelled }: RecordingOptions) {
  const meters = Array.from({ length: sound.channelCount }, () => ({
    level: new LevelMeter(),
    hum: new HumMeter(sound.sampleRateHz),
  }));
  const recogniser = new BandRecogniser(sound.sampleRateHz, sound.channelCount);
  const markDetector = new MarkDetector(sound.sampleRateHz);
  let frames = 0;
  for await (const block of sound.blocks()) {
    if (cancelled?.()) return null;
    meters.forEach(({ level, hum }, c) => {
      level.push(block[c]);
      hum.push(block[c]);
    });
    recogniser.push(block);
    markDetector.push(block);
    frames += block[0].length;
    onProgress?.((0.6 * frames) / sound.frameCount);
  }
  recogniser.finish();
  return { meters, recogniser, marks: markDetector.marks };
}

type Listened = NonNullable<Awaited<ReturnType<typeof listenThrough>>>;

function stretchesOf(
  { recogniser, marks }: Listened,
  { tape, sequences }: RecordingOptions,
  sound: SoundFile,
): {
  by: RecordingReport["by"];
  stretches: Stretch[];
  doubt?: string | null;
  recognition?: Recognition;
} {
  const stereo = sound.channelCount > 1;
  if (tape) {
    const recognition = recogniser.recognise(tape);
    const { bands, doubt } = recognition;
    return {
      recognition,
      by: { kind: "tape", id: tape.id, name: tape.name },
      doubt,
      stretches: bands.map(({ index, startSeconds, endSeconds, leftDb, rightDb }) => ({
        what: bandName(tape.bands[index]),
        index,
        startSeconds,
        endSeconds,
        nominalHz: tape.bands[index].kind === "tone" ? certifiedFrequencyHz(tape.bands[index]) : null,
        levelDb: { left: leftDb, right: stereo ? rightDb : null },
      })),
    };
  }
  const located = sequences
    .map((sequence) => ({ sequence, found: locateSegments(marks, sequence, sound.durationSeconds) }))
    .filter(({ found }) => found.length > 0)
    .sort((a, b) => b.found.length - a.found.length)
    .at(0);
  if (located) {
    const { sequence, found } = located;
    return {
      by: { kind: "sequence", id: sequence.id, name: sequence.name },
      stretches: found.map(({ index, startSeconds, endSeconds }) => {
        const segment = sequence.segments[index];
        const nominalHz = segment.kind === "sine" ? segment.frequencyHz : null;
        return { what: segmentName(segment), index, startSeconds, endSeconds, nominalHz, levelDb: null };
      }),
    };
  }
  const tones = recogniser.tones().filter(({ startSeconds, endSeconds }) => endSeconds - startSeconds > 1);
  return {
    by: { kind: "tones" },
    stretches: tones.map(({ frequencyHz, startSeconds, endSeconds, leftDb, rightDb }) => {
      const usual = USUAL_HZ.reduce((a, b) =>
        Math.abs(Math.log(b / frequencyHz)) < Math.abs(Math.log(a / frequencyHz)) ? b : a,
      );
      const near = Math.abs(frequencyHz / usual - 1) < NEAR_USUAL;
      return {
        what: `tone near ${near ? usual : Math.round(frequencyHz)} Hz`,
        index: -1,
        startSeconds,
        endSeconds,
        nominalHz: near ? usual : null,
        levelDb: { left: leftDb, right: stereo ? rightDb : null },
      };
    }),
  };
}

/** One meter at a time: the stretches stand one after the other. */
async function measureStretches(
  sound: SoundFile,
  stretches: Stretch[],
  bands: BandMeters | null,
  { onProgress, cancelled }: RecordingOptions,
): Promise<StretchReport[] | null> {
  const rate = sound.sampleRateHz;
  const ordered = stretches.toSorted((a, b) => a.startSeconds - b.startSeconds);
  const reports: StretchReport[] = [];
  let meters = ordered.length > 0 ? metersFor(ordered[0], sound, bands === null) : null;
  let next = 0;
  let at = 0;
  if (meters !== null)
    for await (const block of sound.blocks()) {
      if (cancelled?.()) return null;
      const end = at + block[0].length;
      bands?.push(block);
      while (next < ordered.length && meters !== null) {
        const from = Math.round((ordered[next].startSeconds + EDGE_SECONDS) * rate);
        const to = Math.round((ordered[next].endSeconds - EDGE_SECONDS) * rate);
        if (from >= end) break;
        const piece = block.map((channel) =>
          channel.slice(Math.max(0, from - at), Math.max(0, Math.min(to, end) - at)),
        );
        meters.push(piece);
        if (to > end) break;
        reports.push(meters.report());
        next++;
        meters = next < ordered.length ? metersFor(ordered[next], sound, bands === null) : null;
      }
      at = end;
      onProgress?.(0.6 + (0.4 * at) / sound.frameCount);
      if (meters === null && bands === null) break;
    }
  if (meters !== null) reports.push(meters.report());
  return reports;
}

/** @param withPair level and phase of the tone too */
function metersFor(stretch: Stretch, sound: SoundFile, withPair: boolean) {
  const { nominalHz, startSeconds, endSeconds } = stretch;
  const levels = Array.from({ length: sound.channelCount }, () => new LevelMeter());
  const canFollow =
    nominalHz !== null &&
    nominalHz >= LOWEST_CARRIER_HZ &&
    sound.sampleRateHz >= 2.6 * nominalHz &&
    endSeconds - startSeconds >= SHORTEST_FOR_SPEED_SECONDS;
  const isTone = withPair && nominalHz !== null && nominalHz < 0.44 * sound.sampleRateHz;
  const tone = isTone ? new TonePairMeter(sound.sampleRateHz, sound.channelCount, nominalHz) : null;
  let toneFrames = MOST_PAIR_SECONDS * sound.sampleRateHz;
  const transport = canFollow ? new TransportMeter(sound.sampleRateHz, sound.channelCount, nominalHz) : null;
  return {
    push(piece: Float64Array[]) {
      levels.forEach((meter, c) => meter.push(piece[c]));
      transport?.push(piece);
      if (toneFrames > 0) tone?.push(piece.map((x) => x.subarray(0, toneFrames)));
      toneFrames -= piece[0].length;
    },
    report(): StretchReport {
      const rows = transport?.channels.map((_, c) => ({
        speed: transport.speed(c),
        flutter: transport.flutter(c),
      }));
      const best = rows
        ?.flatMap(({ speed }) => speed.result ?? [])
        .reduce<SpeedChannel | null>(
          (a, b) => (a === null || b.uncertaintyPercent < a.uncertaintyPercent ? b : a),
          null,
        );
      const worst = rows
        ?.flatMap(({ flutter }) => flutter.result ?? [])
        .filter(({ carrierHz }) => carrierHz > 900)
        .reduce<StretchReport["flutter"]>(
          (a, b) => (a === null || b.weighted.peakPercent > a.weighted.peakPercent ? b : a),
          null,
        );
      // a sine as strong as what is there
      const level = (c: number) => levels[c].level.rmsDbfs + 3.0103;
      return {
        ...stretch,
        levelDb: stretch.levelDb ?? { left: level(0), right: levels.length > 1 ? level(1) : null },
        speed: best ?? null,
        flutter: worst ?? null,
        pair: tone?.result() ?? null,
        warnings: [
          ...new Set(rows?.flatMap(({ speed, flutter }) => [...speed.warnings, ...flutter.warnings]) ?? []),
        ],
      };
    },
  };
}
