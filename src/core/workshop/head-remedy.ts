import { capacitanceForLift, loadDb, resonanceHz } from "./head-load";
import { nearestPreferred } from "./preferred-values";

/** A capacitor across the head that lifts the top of the response, and what comes of it. */
export interface HeadRemedy {
  /** At the highest frequency. */
  liftDb: number;
  capacitancePicofarads: number;
  /** The nearest value that there is to buy. */
  nearestPicofarads: number;
  resonanceHz: number;
  /** With the nearest value and no resistor, at each frequency asked for. */
  predictedDb: number[];
}

const LEAST_LIFT_DB = 0.5;
const LARGEST_LIFT_DB = 8;

/**
 * The capacitance that makes up for a loss at the highest frequency, for a head of some inductance. Null where there is
 * nothing to lift, or more than a resonance can give without a peak.
 */
export function headRemedy(
  inductanceHenries: number,
  lossDb: number,
  frequenciesHz: number[],
): HeadRemedy | null {
  if (!(lossDb >= LEAST_LIFT_DB && lossDb <= LARGEST_LIFT_DB)) return null;
  const top = Math.max(...frequenciesHz);
  const wanted = capacitanceForLift(inductanceHenries, top, lossDb);
  const nearest = nearestPreferred(wanted * 1e12) * 1e-12;
  const load = { inductanceHenries, capacitanceFarads: nearest, resistanceOhms: Infinity };
  return {
    liftDb: lossDb,
    capacitancePicofarads: wanted * 1e12,
    nearestPicofarads: nearestPreferred(wanted * 1e12),
    resonanceHz: resonanceHz(inductanceHenries, nearest),
    predictedDb: frequenciesHz.map((hz) => loadDb(load, hz)),
  };
}
