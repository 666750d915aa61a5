import type { Band } from "@/core/reference/reference-tape";
import { sectionName } from "@/core/programme/programme";
import type { StripPiece } from "@/ui/band-strip";

/** Bands of a tape as pieces of the drawn strip. */
export const tapePieces = (bands: readonly Band[]): StripPiece[] =>
  bands.map((band) => ({
    name: sectionName(band),
    kind: band.kind,
    frequenciesHz:
      band.kind === "sweep" ? [band.frequencyHz, band.toFrequencyHz ?? band.frequencyHz] : [band.frequencyHz],
    levelDb: band.levelDb,
    seconds: band.seconds,
  }));
