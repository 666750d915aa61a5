import { useEffect, useMemo, useRef } from "react";
import { decidingQuantity } from "@/core/alignment/station-state";
import type { Circumstances, Machine, StationId } from "@/core/alignment/records";
import type { ResponseSource } from "@/core/listen/response-runs";
import type { FullScale } from "@/core/alignment/playback-level";
import { PRACTICE_FULL_SCALE } from "@/core/machine/practice-machines";
import type { JobView } from "@/features/job/use-job-records";
import type { ListenerState } from "../use-listener";
import { playbackNumbers, type PlaybackNumbers } from "@/core/alignment/playback-numbers";

export const isPlayback = (station: StationId): boolean =>
  station === "azimuth" || station === "level" || station === "response";

/** What was heard of the tape, as numbers for the playback stations; null before anything was. */
export function usePlaybackNumbers(
  view: JobView,
  listener: ListenerState,
  readFrom: ResponseSource | null,
): PlaybackNumbers | null {
  const { playback, kind, card } = listener;
  const calibrated = kind === "sound card" ? (card?.calibration?.level ?? null) : null;
  return useMemo(() => {
    const fullScale: FullScale | null = kind === "practice" ? PRACTICE_FULL_SCALE : calibrated;
    return playback && playbackNumbers(view, playback, fullScale, readFrom);
  }, [view, playback, kind, calibrated, readFrom]);
}

/** Another direction or another head plays: the tones that were heard are not its own. */
export function useForgetTones({ clearPlayback }: ListenerState, { side, head }: Circumstances): void {
  const heard = useRef(`${side} ${head}`);
  useEffect(() => {
    const now = `${side} ${head}`;
    if (heard.current === now) return;
    heard.current = now;
    clearPlayback();
  });
}

/** The number that the guide tone follows. */
export function playbackShown(
  station: StationId,
  machine: Machine,
  numbers: PlaybackNumbers | null,
  channel: "left" | "right" | null,
): { value: number } | null {
  if (!numbers) return null;
  const { now, level, response } = numbers;
  if (station === "azimuth") {
    if (decidingQuantity(station, machine) === "azimuth.phase")
      return now.phase && { value: now.phase.degrees };
    const { playing } = now;
    return playing && Number.isFinite(playing.heldDbfs)
      ? { value: playing.heldDbfs - playing.levelsDbfs[0] }
      : null;
  }
  if (station === "level") {
    const own = level?.numbers.channels.find((one) => one.channel === channel) ?? level?.numbers.channels[0];
    const value = own?.errorDb ?? level?.numbers.balanceDb ?? null;
    return value === null ? null : { value };
  }
  const own = response.channels.find((one) => one.channel === channel) ?? response.channels.at(0);
  return own?.judged.treble ? { value: own.judged.treble.levelDb } : null;
}
