import type { ListeningResult } from "@/core/live/listening-result";
import type { LiveListening } from "@/core/live/live-listening";
import type { Resumed } from "@/core/live/recording-watch";
import type { KeptRun, Wanted } from "./listener-api";

export const RESULTS_PER_SECOND = 10;

/** A source that is being listened to in a worker. */
export interface LiveSource {
  readonly live: LiveListening;
  wanted: Wanted;
  /** Stops it; resolves when everything that was recorded is kept. */
  finish(): Promise<void>;
}

export function resultOf({ live, wanted }: LiveSource): ListeningResult {
  live.wantSequence(wanted.sequence);
  live.listenForQuiet(wanted.quiet);
  live.listenForBlanking(wanted.blanking);
  const { controls, ticks, wind, sequence, follows, recording } = wanted;
  // a mechanism may whistle as it winds;
  // what is sent to a recorder changes as it likes, and nobody plays an old tape meanwhile
  const squeal = !ticks && !wind && sequence === null && follows === null && recording === null;
  live.listenBeside({ controls, ticks, squeal, wind });
  live.watchRecording(wanted.recording !== null, resumed(wanted.recording?.from ?? null));
  return live.result(wanted.flutter, wanted.role, wanted.follows);
}

const resumed = (kept: KeptRun | null): Resumed | null =>
  kept && { run: kept.run, missedSeconds: kept.heardAt === null ? 0 : (Date.now() - kept.heardAt) / 1000 };
