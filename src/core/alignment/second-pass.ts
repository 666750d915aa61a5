import { inForce, type JobRecords } from "@/core/records/job-records";
import type { Reading } from "@/core/records/reading";
import type { Station } from "@/core/stations/station";
import { moves } from "./moves";
import { limitFor, measuringRouteOf, stationById } from "./registry";
import { readingsOf, seriesOf } from "./station-state";

/** A station whose reading, repeated, was found to have been moved by an adjustment elsewhere. */
export interface Moved {
  station: Station;
  before: Reading;
  after: Reading;
  /** By how much, in the reading's unit. */
  by: number;
  /** Where something was turned meanwhile. */
  turnedAt: Station;
}

/**
 * The stations to go through a second time: an adjustment made elsewhere after a station was left moved its reading, as
 * repeated since, by more than its tolerance. Only one that can move it: setting a level moves no speed.
 */
export function secondPass(records: JobRecords): Moved[] {
  const { machine } = records;
  const turned = inForce(records.adjustments).filter(({ turns }) => turns !== 0);
  return measuringRouteOf(records).flatMap((station): Moved[] => {
    const moved = seriesOf(readingsOf(records, station)).flatMap((series): Moved[] => {
      const after = series.at(-1)!;
      const left = series.findLastIndex(({ phase }) => phase === "as left");
      // left again since it was repeated: that has been dealt with
      const before = after.phase === "as left" ? undefined : series[left];
      const limit = limitFor(machine, after.quantity);
      if (!before || limit === null) return [];
      const between = turned.filter(({ at }) => at > before.at && at <= after.at);
      const elsewhere = between.findLast((turn) => turn.station !== station.id && moves(turn, station.id));
      if (!elsewhere || between.some((turn) => turn.station === station.id)) return [];
      const by = after.value - before.value;
      return Math.abs(by) > limit
        ? [{ station, before, after, by, turnedAt: stationById(elsewhere.station) ?? station }]
        : [];
    });
    return moved.slice(0, 1);
  });
}
