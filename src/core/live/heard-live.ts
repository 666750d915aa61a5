import type { FullScale } from "@/core/playback/playback-level";
import type { PlaybackNow } from "@/core/playback/playback-now";
import type { Reading } from "@/core/records/reading";
import type { Heard } from "@/core/stations/heard";
import type { ListeningResult } from "./listening-result";

/** A live source, as the stations know it. */
export interface LiveSource {
  source: Reading["source"];
  /** Seconds of its sound that pass in one second of the clock. */
  pace?: number;
  /** ± percent of the clock that samples it; undefined for an uncalibrated sound card. */
  clockPercent?: number;
  fullScale: FullScale | null;
  /** Of the sound card itself, as measured by loop-back. */
  ownNoiseDbfs?: number | null;
}

/** What is said where a sequence was heard instead of a tape, live or in a file. @param what as "The sequence … plays" */
export const tellsNoSpeed = (what: string): string =>
  `${what}: the speed of a machine is told by a reference tape only.`;

/** What does not come with every result. */
export type HeardSoFar = Pick<
  Heard,
  | "playback"
  | "comparison"
  | "returned"
  | "recording"
  | "oscillator"
  | "quiet"
  | "blanking"
  | "controls"
  | "zeroDbfs"
>;

/** What was heard so far and what came with a result, the newer of each. */
export function heardSince(before: HeardSoFar, result: ListeningResult): HeardSoFar {
  return {
    playback: result.playback ?? before.playback,
    comparison: result.comparison ?? before.comparison,
    returned: result.returned ?? before.returned,
    // what was watched of an earlier session of the page comes back by the source
    recording: result.recording ?? before.recording,
    oscillator: result.recording ? result.oscillator : before.oscillator,
    quiet: result.quiet ?? before.quiet,
    blanking: result.blanking ?? before.blanking,
    controls: result.controls ?? before.controls,
    zeroDbfs: before.zeroDbfs,
  };
}

/**
 * What a live source has given, as the stations read it.
 * @param soFar what does not come with every result
 */
export function heardLive(
  result: ListeningResult,
  { source, pace = 1, clockPercent, fullScale, ownNoiseDbfs = null }: LiveSource,
  soFar: HeardSoFar,
): Heard {
  const { speed, flutter, channels, nominalHz, sequencePlays } = result;
  const sound = channels.filter(({ problem }) => problem === null);
  const both = sound.length === channels.length && sound.length === 2;
  return {
    ...soFar,
    source,
    pace,
    clockPercent,
    fullScale,
    nominalHz,
    speed: speed && {
      channel: both ? "both" : (sound[0]?.channel ?? ""),
      errorPercent: speed.errorPercent,
      uncertaintyPercent: speed.uncertaintyPercent,
      seconds: speed.windowSeconds,
      settled: speed.settled,
      creeps: speed.creeps,
      before: speed.beforeChange,
    },
    flutter,
    ownNoiseDbfs,
    gone: false,
    droppedAt: null,
    problems: [
      ...(sequencePlays ? [tellsNoSpeed(sequencePlays)] : []),
      ...channels.flatMap(({ problem }) => problem ?? []),
    ],
  };
}

/** What was heard before something was turned is settled no more, though it shows until there is something newer. */
export const beforeTurn = (heard: Heard): Heard => ({
  ...heard,
  speed: heard.speed && { ...heard.speed, settled: false },
  flutter: heard.flutter && { ...heard.flutter, settled: false },
  playback: heard.playback && playbackBeforeTurn(heard.playback),
  // told of the machine as it was
  blanking: null,
  quiet: null,
  zeroDbfs: null,
  // until the source has counted the turn itself
  returned: heard.returned && { ...heard.returned, told: heard.returned.told + 1 },
  comparison: heard.comparison && {
    ...heard.comparison,
    tape: heard.comparison.tape && { ...heard.comparison.tape, settled: false },
    before: null,
  },
});

const playbackBeforeTurn = (now: PlaybackNow): PlaybackNow => ({
  ...now,
  tones: now.tones.map((tone) => ({ ...tone, fresh: false })),
  responses: now.responses.map((run) => (run.from === "bands" ? run : { ...run, fresh: false })),
  playing: now.playing && { ...now.playing, settled: false, before: null },
  phase: now.phase && { ...now.phase, settled: false },
});
