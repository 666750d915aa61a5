import { playbackNumbers } from "@/core/playback/playback-numbers";
import type { ResponseSource } from "@/core/playback/response-runs";
import type { Adjustment } from "@/core/records/adjustment";
import type { JobRecords } from "@/core/records/job-records";
import { atSpeed } from "@/core/records/job-speeds";
import type { Machine } from "@/core/records/machine";
import type { ReferenceTape } from "@/core/reference/reference-tape";
import { AT_ONCE } from "@/core/stations/bias-thought";
import type { Heard } from "@/core/stations/heard";
import type { OnTheBench } from "@/core/stations/on-the-bench";
import { rememberLast } from "@/core/stations/remember-last";
import { responseCorridor } from "@/core/stations/response";
import { lastMoved } from "./moves";

/** What is laid on the bench. */
export interface Laid extends Omit<OnTheBench, "here" | "numbers" | "movedAt" | "screws"> {
  /** What the response is to be read from; what was heard last when null. */
  readFrom: ResponseSource | null;
}

/** Puts together what stands on the bench, its bias screws thought about at once; asked again with the same things it gives the same parts. */
export function layBench(): (laid: Laid) => OnTheBench {
  const here = rememberLast((records: JobRecords) => atSpeed(records));
  const movedAt = rememberLast(
    (adjustments: readonly Adjustment[]) => (station: string) => lastMoved(adjustments, station),
  );
  const numbers = rememberLast(
    (
      machine: Machine,
      tape: ReferenceTape,
      playback: Heard["playback"],
      fullScale: Heard["fullScale"],
      readFrom: ResponseSource | null,
    ) =>
      playback &&
      playbackNumbers({ tape, machine, corridor: responseCorridor(machine) }, playback, fullScale, readFrom),
  );
  return ({ readFrom, ...laid }) => {
    const { records, tape, heard } = laid;
    const atThisSpeed = here(records);
    return {
      ...laid,
      screws: AT_ONCE,
      here: atThisSpeed,
      movedAt: movedAt(atThisSpeed.adjustments),
      numbers: numbers(records.machine, tape, heard?.playback ?? null, heard?.fullScale ?? null, readFrom),
    };
  };
}
