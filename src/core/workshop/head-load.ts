import { amplitudeOf, powerDb } from "@/core/dsp/decibels";
/** A playback head with what is across it. */
export interface HeadLoad {
  inductanceHenries: number;
  /** Cable and added capacitor together. */
  capacitanceFarads: number;
  /** Across the head; Infinity for none. */
  resistanceOhms: number;
}

/** Where head and capacitance resonate, Hz: 1 ÷ 2π√(LC). */
export const resonanceHz = (inductanceHenries: number, capacitanceFarads: number): number =>
  1 / (2 * Math.PI * Math.sqrt(inductanceHenries * capacitanceFarads));

/** Capacitance that resonates with a head at a frequency, farads. */
export const capacitanceFor = (inductanceHenries: number, hz: number): number =>
  1 / ((2 * Math.PI * hz) ** 2 * inductanceHenries);

/** Gain in dB of a second-order resonance: |1 ÷ (1 − x² + jx/Q)|, x = f/f₀. */
export function resonanceDb(frequencyHz: number, f0Hz: number, q: number): number {
  const x = frequencyHz / f0Hz;
  return -powerDb((1 - x * x) ** 2 + (x / q) ** 2);
}

/** What a load does to the voltage of a head that is a pure inductance, dB; Q = R·√(C/L). */
export function loadDb(
  { inductanceHenries, capacitanceFarads, resistanceOhms }: HeadLoad,
  hz: number,
): number {
  if (capacitanceFarads === 0) {
    const x = (2 * Math.PI * hz * inductanceHenries) / resistanceOhms;
    return -powerDb(1 + x * x);
  }
  const q = resistanceOhms * Math.sqrt(capacitanceFarads / inductanceHenries);
  return resonanceDb(hz, resonanceHz(inductanceHenries, capacitanceFarads), q);
}

/**
 * Capacitance across an undamped head that lifts a frequency by so many dB, farads: the resonance lies above it where
 * 1 − (f/f₀)² = 10^(−lift/20). @throws RangeError for a lift that is none
 */
export function capacitanceForLift(inductanceHenries: number, hz: number, liftDb: number): number {
  if (!(liftDb > 0)) throw new RangeError(`a lift has to be more than 0 dB, not ${liftDb}`);
  return capacitanceFor(inductanceHenries, hz / Math.sqrt(1 - amplitudeOf(-liftDb)));
}
