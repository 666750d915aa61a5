import type { JobRecords } from "@/core/records/job-records";
import type { Machine } from "@/core/records/machine";
import type { Unit } from "@/core/text/units";
import { STATIONS } from "@/core/stations";
import type { Quantity } from "@/core/stations/quantity";
import type { MeasuringStation, Station } from "@/core/stations/station";

/** Every station, in working order, as what is common to all. */
export const ROUTE: readonly Station[] = STATIONS;

export const stationById = (id: string): Station | undefined => ROUTE.find((station) => station.id === id);

export const measures = (station: Station | undefined): station is MeasuringStation =>
  station?.kind === "measure";

export const MEASURING: readonly MeasuringStation[] = ROUTE.filter(measures);

/** The stations of a job in working order, without those that it leaves out and those that its machine has not. */
export const routeOf = ({
  job: { leftOut = [] },
  machine,
}: Pick<JobRecords, "job" | "machine">): readonly Station[] =>
  ROUTE.filter((station) => !leftOut.includes(station.id) && isOf(station, machine));

const isOf = (station: Station, machine: Machine): boolean => !measures(station) || station.onRoute(machine);

export const measuringRouteOf = (records: Pick<JobRecords, "job" | "machine">): readonly MeasuringStation[] =>
  routeOf(records).filter(measures);

/** Every station that a machine has, whether or not a job leaves it out. */
export const stationsOf = (machine: Machine): readonly Station[] =>
  ROUTE.filter((station) => isOf(station, machine));

const HOMES = new Map(
  MEASURING.flatMap((station) => Object.keys(station.quantities).map((quantity) => [quantity, station])),
);

/** Names of everything that is logged, in the order of the stations. */
export const QUANTITIES: readonly string[] = [...HOMES.keys()];

/** The station that logs a quantity. @throws RangeError for a name that no station has */
export function stationOf(quantity: string): MeasuringStation {
  const station = HOMES.get(quantity);
  if (!station) throw new RangeError(`no station logs "${quantity}"`);
  return station;
}

/** The row of a quantity. @throws RangeError for a name that no station has */
export const quantityOf = (quantity: string): Quantity => stationOf(quantity).quantities[quantity];

export const unitOf = (quantity: string): Unit => quantityOf(quantity).unit;

/** The largest magnitude that passes, in the quantity's unit, or null where a machine has no limit for it. */
export const limitFor = (machine: Machine, quantity: string): number | null =>
  stationOf(quantity).limitOf(machine, quantity);
