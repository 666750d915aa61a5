import { playbackNumbers } from "@/core/playback/playback-numbers";
import type { ResponseSource } from "@/core/playback/response-runs";
import type { JobRecords } from "@/core/records/job-records";
import { atSpeed } from "@/core/records/job-speeds";
import type { Machine } from "@/core/records/machine";
import type { ReferenceTape } from "@/core/reference/reference-tape";
import { AT_ONCE } from "@/core/stations/bias-thought";
import type { Heard } from "@/core/stations/heard";
import type { OnTheBench } from "@/core/stations/on-the-bench";
import { rememberLast } from "@/core/stations/remember-last";
import { responseCorridor } from "@/core/stations/response";

/** What is laid on the bench. */
export interface Laid extends Omit<OnTheBench, "here" | "numbers" | "screws"> {
  /** What the response is to be read from; what was heard last when null. */
  readFrom: ResponseSource | null;
}

/** Puts together what stands on the bench, its bias screws thought about at once; asked again with the same things it gives the same parts. */
export function layBench(): (laid: Laid) => OnTheBench {
  const here = rememberLast((records: JobRecords) => atSpeed(records));
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
    return {
      ...laid,
      screws: AT_ONCE,
      here: here(records),
      numbers: numbers(records.machine, tape, heard?.playback ?? null, heard?.fullScale ?? null, readFrom),
    };
  };
}
