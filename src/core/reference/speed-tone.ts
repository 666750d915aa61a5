import { frequencyUncertaintyOf, type ReferenceTape } from "./reference-tape";

/** The tone for speed and flutter on a tape: the band of that role, or the longest tone. Null if there is none. */
export function speedTone(tape: ReferenceTape): { frequencyHz: number; bandNumber: number } | null {
  const tones = tape.bands
    .map((band, i) => ({ band, bandNumber: i + 1 }))
    .filter(({ band }) => band.kind === "tone");
  const chosen =
    tones.find(({ band }) => band.role === "speed") ??
    tones.sort((a, b) => b.band.seconds - a.band.seconds)[0];
  if (!chosen) return null;
  const { frequencyHz, frequencyErrorPercent = 0 } = chosen.band;
  return { frequencyHz: frequencyHz * (1 + frequencyErrorPercent / 100), bandNumber: chosen.bandNumber };
}

/** The tapes of a speed that have a band for measuring speed, those whose frequencies are known best first. */
export function tapesForSpeed(tapes: readonly ReferenceTape[], speedCmPerS: number): ReferenceTape[] {
  return tapes
    .filter(
      (tape) =>
        tape.speedCmPerS === speedCmPerS &&
        tape.bands.some(({ kind, role }) => kind === "tone" && role === "speed"),
    )
    .sort((a, b) => frequencyUncertaintyOf(a) - frequencyUncertaintyOf(b) || a.name.localeCompare(b.name));
}

const USUAL_HZ = 3150;

/** The frequency that the tone of a reference tape should play at, at a tape speed, in Hz. */
export const nominalToneHz = (tape: ReferenceTape, speedCmPerS: number): number =>
  ((speedTone(tape)?.frequencyHz ?? USUAL_HZ) * speedCmPerS) / tape.speedCmPerS;
