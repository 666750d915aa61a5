import type { AzimuthView, LadderBand } from "./azimuth-view";

const JUDGED_HZ = 10_000;

/** The tone that azimuth is judged at: the one nearest to 10 kHz. @throws RangeError for an empty ladder */
export function judgedTone(tones: LadderBand[]): LadderBand {
  if (tones.length === 0) throw new RangeError("a ladder without a tone has none to judge by");
  return tones.reduce((best, tone) =>
    Math.abs(Math.log(tone.frequencyHz / JUDGED_HZ)) < Math.abs(Math.log(best.frequencyHz / JUDGED_HZ))
      ? tone
      : best,
  );
}

/** The tones with the whole cycles that the delay says; as they were measured while it is not known. */
export function cyclesCounted({ tones, delaySeconds }: Pick<AzimuthView, "tones" | "delaySeconds">) {
  return tones.map((tone) => {
    if (delaySeconds === null) return tone;
    const expected = 360 * tone.measuredHz * delaySeconds;
    const cycles = Math.round((expected - tone.phaseDegrees) / 360);
    return { ...tone, phaseDegrees: tone.phaseDegrees + 360 * cycles };
  });
}
