import { explainResponse, FEWEST_POINTS, type ResponseFindings } from "@/core/advice/response-doctor";
import type { ResponsePoint } from "@/core/measure/response";
import { azimuthView, type AzimuthView, type HeadTracks } from "@/core/playback/azimuth-view";
import type { HeardBands } from "@/core/playback/heard-bands";
import { responseRuns, type ResponseRun } from "@/core/playback/response-runs";
import { timeConstants, type ReferenceTape } from "@/core/reference/reference-tape";
import type { TimeConstants } from "@/core/standards/equalisation";

export interface ExplainedResponse extends Omit<ResponseRun, "channels"> {
  channels: ResponseChannel[];
}

export interface ResponseChannel {
  channel: string;
  points: ResponsePoint[];
  /** What the curve looks like; null when there are too few points. */
  findings: ResponseFindings | null;
}

/** What a played reference tape says of the playback side: azimuth, response, and what the curves look like. */
export interface PlaybackView {
  azimuth: AzimuthView | null;
  /** In every way that the response was heard. */
  responses: ExplainedResponse[];
}

/** @param machine equalisation of the machine; the tape's own when left out */
export function playbackView(
  { bands, wide, speedRatio }: HeardBands,
  tape: ReferenceTape,
  tracks: HeadTracks,
  machine: TimeConstants = timeConstants(tape.equalisation, tape.speedCmPerS),
): PlaybackView {
  const { speedCmPerS } = tape;
  return {
    azimuth: azimuthView(bands, tracks, speedCmPerS * speedRatio),
    responses: responseRuns(bands, wide, tape, machine).map((run) => ({
      ...run,
      channels: run.channels.map((one) => ({
        ...one,
        findings:
          one.points.length < FEWEST_POINTS
            ? null
            : explainResponse(one.points, {
                speedCmPerS,
                equalisation: machine,
                referenceHz: run.referenceHz,
              }),
      })),
    })),
  };
}
