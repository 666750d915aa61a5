import type { ReferenceTape } from "./reference-tape";

/** The tape as it sounds on a machine of another speed. */
export function atSpeed(tape: ReferenceTape, factor: number): ReferenceTape {
  if (factor === 1) return tape;
  return {
    ...tape,
    bands: tape.bands.map((band) => ({
      ...band,
      frequencyHz: band.frequencyHz * factor,
      ...(band.toFrequencyHz && { toFrequencyHz: band.toFrequencyHz * factor }),
      seconds: band.seconds / factor,
    })),
  };
}
