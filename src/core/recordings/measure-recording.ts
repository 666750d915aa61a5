import { missingSections } from "@/core/programme/missing-sections";
import type { SoundFile } from "@/core/formats/sound-file";
import { channelName } from "@/core/measure/channel-name";
import { HumMeter, type Hum } from "@/core/measure/hum";
import { LevelMeter, type Level } from "@/core/measure/level-meter";
import { ProgrammeRecogniser } from "@/core/programme/programme-recogniser";
import { programmeOfTape } from "@/core/reference/programme-of-tape";
import type { ReferenceTape } from "@/core/reference/reference-tape";
import { certifiedFrequencyHz, sectionName, type Programme } from "@/core/programme/programme";
import { programmeOfSequence } from "@/core/signals/programme-of-sequence";
import type { Sequence } from "@/core/signals/sequence";
import { usualFormat } from "@/core/standards/track-formats";
import { measureStretches, type Stretch, type StretchReport } from "./measure-stretches";
import { BandMeters } from "./band-meters";
import type { HeardBands } from "@/core/playback/heard-bands";
import type { Recognition } from "@/core/programme/recognition";
import { playbackView, type PlaybackView } from "./playback-report";

export interface ChannelReport extends Level {
  channel: string;
  hum: Hum;
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
  /** The tape that was played, where marks do not tell a sequence; null when it is not known. */
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
/** So many tones, or one sweep or noise, say something of azimuth or response. */
const FEWEST_BANDS = 2;

/**
 * Every measurement that makes sense for a recording: levels and hum of the whole, then, where bands of a tape,
 * segments of a marked sequence or steady tones are found, level, speed and flutter of each. Reads the recording
 * twice, a block at a time. Null when it was cancelled.
 */
export async function measureRecording(
  sound: SoundFile,
  options: RecordingOptions,
): Promise<RecordingReport | null> {
  const listened = await listenThrough(sound, options);
  if (listened === null) return null;
  const { channels, played, stretches } = listened;
  const tape = played?.programme.kind === "tape" ? options.tape : null;
  const meters = played && tape ? new BandMeters(played.recognition, tape, sound) : null;
  const measured = await measureStretches(sound, stretches, meters, {
    told: (share) => options.onProgress?.(0.6 + 0.4 * share),
    cancelled: options.cancelled,
  });
  if (measured === null) return null;
  const heard = meters && { ...meters.result(), speedRatio: played?.recognition.speedRatio ?? 1 };
  const pairs = new Map(heard?.bands.map(({ index, pair }) => [index, pair]));
  return {
    sampleRateHz: sound.sampleRateHz,
    durationSeconds: sound.durationSeconds,
    channels,
    warnings: [
      ...new Set([
        ...sound.warnings,
        ...(played?.recognition.doubt ? [played.recognition.doubt] : []),
        ...(played && played.programme.kind === "tape"
          ? missingSections(played.programme, played.recognition.sections)
          : []),
      ]),
    ],
    by: played
      ? { kind: played.programme.kind, id: played.programme.id, name: played.programme.name }
      : { kind: "tones" },
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

/** What is told of the whole. What it was told from is not kept: what is measured next needs the room. */
interface Listened {
  channels: ChannelReport[];
  played: { programme: Programme; recognition: Recognition } | null;
  stretches: Stretch[];
}

async function listenThrough(sound: SoundFile, options: RecordingOptions): Promise<Listened | null> {
  const { sequences, onProgress, cancelled } = options;
  const meters = Array.from({ length: sound.channelCount }, () => ({
    level: new LevelMeter(),
    hum: new HumMeter(sound.sampleRateHz),
  }));
  const recogniser = new ProgrammeRecogniser(sound.sampleRateHz, sound.channelCount, {
    marks: sequences.length > 0,
  });
  let frames = 0;
  for await (const block of sound.blocks()) {
    if (cancelled?.()) return null;
    meters.forEach(({ level, hum }, c) => {
      level.push(block[c]);
      hum.push(block[c]);
    });
    recogniser.push(block);
    frames += block[0].length;
    onProgress?.((0.6 * frames) / sound.frameCount);
  }
  recogniser.finish();
  const played = programmeOf(recogniser, options);
  return {
    channels: meters.map(({ level, hum }, c) => ({
      channel: channelName(c, sound.channelCount),
      ...level.level,
      hum: hum.hum,
    })),
    played,
    stretches: played ? stretchesOf(played.programme, played.recognition, sound) : tonesOf(recogniser, sound),
  };
}

/** What was played: a sequence where marks tell one, whatever tape was chosen; else that tape. */
function programmeOf(
  recogniser: ProgrammeRecogniser,
  { tape, sequences }: RecordingOptions,
): Listened["played"] {
  const marked = recogniser.best(sequences.map(programmeOfSequence));
  if (marked || !tape) return marked;
  const programme = programmeOfTape(tape);
  return { programme, recognition: recogniser.recognise(programme) };
}

const stretchesOf = (
  { sections }: Programme,
  recognition: Recognition,
  { channelCount }: SoundFile,
): Stretch[] =>
  recognition.sections.map(({ index, startSeconds, endSeconds, levelDb }) => ({
    what: sectionName(sections[index]),
    index,
    startSeconds,
    endSeconds,
    nominalHz: sections[index].kind === "tone" ? certifiedFrequencyHz(sections[index]) : null,
    levelDb: levelDb && { left: levelDb.left, right: channelCount > 1 ? levelDb.right : null },
  }));

/** Of a recording of nothing that is known: its steady tones, each compared with the usual one it lies near. */
const tonesOf = (recogniser: ProgrammeRecogniser, { channelCount }: SoundFile): Stretch[] =>
  recogniser
    .tones()
    .filter(({ startSeconds, endSeconds }) => endSeconds - startSeconds > 1)
    .map(({ frequencyHz, startSeconds, endSeconds, leftDb, rightDb }) => {
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
        levelDb: { left: leftDb, right: channelCount > 1 ? rightDb : null },
      };
    });
