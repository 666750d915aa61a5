import { channelTransport, worstTransport, type Geometry } from "@/core/advice/transport-view";
import type { SoundFile } from "@/core/formats/sound-file";
import { tellsNoSpeed } from "@/core/live/heard-live";
import { LivePlayback } from "@/core/live/live-playback";
import { flutterNotKept } from "@/core/measure/flutter";
import type { HeadTracks } from "@/core/playback/azimuth-view";
import { isWide } from "@/core/playback/wide-band";
import { atSpeed } from "@/core/reference/at-speed";
import { timeConstants, type ReferenceTape } from "@/core/reference/reference-tape";
import { MarkDetector } from "@/core/programme/mark-detector";
import { recogniseByMarks } from "@/core/programme/recognise-by-marks";
import { programmeOfSequence } from "@/core/signals/programme-of-sequence";
import type { Sequence } from "@/core/signals/sequence";
import { usualFormat } from "@/core/standards/track-formats";
import { NOTHING_HEARD_YET, type Heard } from "@/core/stations/heard";
import type { ReturnedNow } from "@/core/returned/heard-pass";
import type { ReturnedPass, ReturnedSequence } from "@/core/returned/returned";
import { nothingMeasured, type FileMeasurement } from "./file-measurement";
import { blankedFile, watchFile } from "./watched-file";
import { measureRecording } from "./measure-recording";
import { measureReturned } from "./measure-returned";
import { notAllMeasured, transportOfFile } from "./transport-of-file";

/** What a recording is measured as. */
export interface MeasuredAs {
  tape: ReferenceTape;
  /** Tape speed of the machine over that of the tape. */
  speedFactor: number;
  /** Frequency that a single tone is compared with. */
  nominalHz: number;
  geometry: Geometry;
  /** Of the playback head; null for the usual ones of the tape speed. */
  tracks: HeadTracks | null;
  /** What else it may be, told by its marks: then nothing of a reference tape is read from it. */
  sequences: readonly Sequence[];
  /** The one of them whose passes are measured, where a station listens for one. */
  sequenceId: string | null;
  /** It is watched for the second at which it goes, or for an old programme that goes quiet; null for neither. */
  watches: "recording" | "blanking" | null;
}

type OnProgress = (share: number) => void;

/** Measures a recording for the bench, as the tape that is in its job. */
export async function measureForBench(
  name: string,
  sound: SoundFile,
  as: MeasuredAs,
  onProgress: OnProgress,
): Promise<FileMeasurement> {
  if (as.watches === "recording") return watchFile(name, sound, onProgress);
  if (as.watches === "blanking") return blankedFile(name, sound, onProgress);
  const sequence = as.sequences.find(({ id }) => id === as.sequenceId);
  const returned = sequence ? await measureReturned(sound, sequence) : null;
  if (sequence && returned && returned.passes.length > 0)
    return {
      ...sequenceFile(
        name,
        sound,
        [...sound.warnings, ...returned.warnings],
        `the sequence ${sequence.name}`,
      ),
      returned: returnedFrom(returned, sequence),
    };
  return as.tape.bands.length > 1 || isWide(as.tape.bands[0])
    ? measureTape(name, sound, as, onProgress)
    : measureTone(name, sound, as, onProgress);
}

/** The passes of a recording as if they had been heard just now; where the screws stood then nobody has told. */
function returnedFrom({ passes }: ReturnedSequence, sequence: Sequence): ReturnedNow {
  const last = (pass: ReturnedPass) => pass.segments.at(-1)?.endSeconds ?? 0;
  return {
    sequenceId: sequence.id,
    told: 0,
    nowSeconds: Math.max(...passes.map(last)),
    passes: passes.map((pass) => ({
      ...pass,
      sequenceId: sequence.id,
      startSeconds: pass.segments.at(0)?.startSeconds ?? 0,
      endSeconds: last(pass),
      whole: pass.segments.length === sequence.segments.length,
      hears: "tape",
      told: passes.length === 1 ? 0 : null,
    })),
  };
}

async function measureTone(
  name: string,
  sound: SoundFile,
  { nominalHz, geometry, sequences }: MeasuredAs,
  onProgress: OnProgress,
): Promise<FileMeasurement> {
  const marks = new MarkDetector(sound.sampleRateHz);
  const { durationSeconds, warnings } = sound;
  const measured = await transportOfFile(
    sound,
    nominalHz,
    (meter, c) => {
      const speed = meter.speed(c);
      const flutter = meter.flutter(c);
      return {
        channel: {
          channel: meter.channels[c],
          speed: speed.result,
          flutter: flutter.result,
          warnings: [...new Set([...speed.warnings, ...flutter.warnings])],
        },
        transport: channelTransport(meter, c, geometry),
      };
    },
    { alongside: (block) => marks.push(block), onProgress },
  );
  const isMarked = sequences
    .map(programmeOfSequence)
    .some((programme) => recogniseByMarks(marks.marks, programme, durationSeconds).sections.length > 0);
  if (isMarked) return sequenceFile(name, sound, warnings, "a marked test sequence");
  return {
    ...nothingMeasured(name, sound),
    warnings: [...warnings, ...notAllMeasured(durationSeconds)],
    channels: measured.map(({ channel }) => channel),
    transport: worstTransport(measured.map(({ transport }) => transport)),
  };
}

/** Of a tape with several bands: speed from the band that is for it, or else from the one that is known best. */
async function measureTape(
  name: string,
  sound: SoundFile,
  { tape, speedFactor, tracks, sequences }: MeasuredAs,
  onProgress: OnProgress,
): Promise<FileMeasurement> {
  const reference = atSpeed(tape, speedFactor);
  const report = await measureRecording(sound, { tape: reference, sequences, onProgress });
  if (!report) throw new Error("The recording was left before its end.");
  const { sampleRateHz, by } = report;
  if (by.kind === "sequence") return sequenceFile(name, sound, report.warnings, `the sequence ${by.name}`);
  const usable = report.stretches.filter(({ speed }) => speed !== null);
  const forSpeed = usable.filter(({ index }) => reference.bands[index].role === "speed");
  const [best] = [...forSpeed, ...usable];
  const warnings = best ? report.warnings : [...report.warnings, `No tone of ${reference.name} was heard.`];
  const channels = best
    ? [{ channel: best.speed!.channel, speed: best.speed, flutter: best.flutter, warnings: best.warnings }]
    : [];
  const heard = report.heard!;
  const speedCmPerS = reference.speedCmPerS * heard.speedRatio;
  const playback = new LivePlayback({
    sampleRateHz,
    tape: reference,
    speedFactor: 1,
    tracks: tracks ?? usualFormat(speedCmPerS),
    speedCmPerS,
    equalisation: timeConstants(reference.equalisation, reference.speedCmPerS),
  }).take(heard);
  return { ...nothingMeasured(name, sound), warnings, channels, playback };
}

/** A recording of a sequence: nothing of a reference tape is in it. */
const sequenceFile = (
  name: string,
  sound: SoundFile,
  warnings: readonly string[],
  what: string,
): FileMeasurement => ({
  ...nothingMeasured(name, sound),
  warnings: [...warnings, tellsNoSpeed(`This is ${what}`)],
});

/** What a file has given, as the stations read it: speed of the channel known best, flutter of the worse one. */
export function heardFile(file: FileMeasurement): Heard {
  const speeds = file.channels.flatMap(({ speed }) => speed ?? []);
  const flutters = file.channels.flatMap(({ flutter }) => flutter ?? []);
  const best = speeds.toSorted((a, b) => a.uncertaintyPercent - b.uncertaintyPercent).at(0);
  const worst = flutters.toSorted((a, b) => b.weighted.peakPercent - a.weighted.peakPercent).at(0);
  return {
    source: { kind: "file", name: file.name },
    ...NOTHING_HEARD_YET,
    speed: best ? { ...best, settled: true, creeps: best.creepPercent !== 0, before: null } : null,
    flutter: worst ? { ...worst, settled: flutterNotKept(worst) === null } : null,
    playback: file.playback,
    returned: file.returned,
    recording: file.recording,
    blanking: file.blanking,
    oscillator: file.oscillator,
    problems: [...file.warnings, ...file.channels.flatMap(({ warnings }) => warnings)],
  };
}
