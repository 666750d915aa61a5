import type { ComponentType } from "react";
import type { ResponseSource } from "@/core/playback/response-runs";
import type { Circumstances } from "@/core/records/reading";
import type { Advised } from "@/core/stations/advised";
import type { OnTheBench } from "@/core/stations/on-the-bench";
import type { MeasuringStation } from "@/core/stations/station";
import type { JobView } from "@/features/job/use-job-records";
import type { ListenerState } from "../listening/use-listener";

export interface PictureProps {
  /** The job's records at the tape speed that is worked at. */
  view: JobView;
  station: MeasuringStation;
  bench: OnTheBench;
  advised: Advised;
  listener: ListenerState;
  /** How far the adjuster's slot was turned since the last logged turn, on a practice machine; 0 elsewhere. */
  slotTurns: number;
  /** What stands in the place of a number that is not there. */
  absent: string;
  /** Says in what circumstances it is worked. */
  onCircumstances(changed: Circumstances): void;
  /** Chooses what the response is read from. */
  onReadFrom(source: ResponseSource): void;
}

/** What the bench shows of a station, beside what all stations have. */
export interface StationPicture {
  /** The middle of the bench. */
  Middle: ComponentType<PictureProps>;
  /** Below the set-up, in the left column. */
  Aside?: ComponentType<Pick<PictureProps, "view">>;
  /** Where nothing is written down that sets it: more than the station's sentence. */
  NothingToTurn?: ComponentType<PictureProps>;
}
