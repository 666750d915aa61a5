/** What was seen of the distortion of a recorder, as far as it is known. */
export interface DistortionSeen {
  /** At 0 level, percent; null where noise hides it. */
  thirdPercent: number | null;
  secondPercent: number | null;
  sourceThirdPercent: number | null;
  limitPercent: number;
  /** The same at 0 level on the other blank tapes of the job, by their names. */
  others: ReadonlyArray<{ name: string; thirdPercent: number }>;
  /** Bias re where its school would leave it, dB; null where it was not set yet. */
  biasErrorDb: number | null;
  /** ± of that. */
  biasUncertaintyDb: number;
  /** ± that the bias may be off by its class. */
  biasLimitDb: number;
  /**
   * The same by over-bias, which the record equaliser has no part in: asked where bias was set by flatness and the tape has
   * a figure for it.
   */
  overBias: { errorDb: number; uncertaintyDb: number } | "not known" | "not asked";
  /** Level that came back less what went in, dB, as it was set for this tape; null where it was not. */
  recordLevel: { errorDb: number; uncertaintyDb: number } | null;
  /** By how much the third fell, dB, for the step of level below 0, dB. */
  fallsDbPerDb: number | null;
}

export interface DistortionCause {
  name: string;
  because: string;
  tryFirst: string;
  /** By how much bias is to be raised for it, dB; where that is what to try first. */
  raisesBiasDb?: number;
}

const SOURCE_SHARE = 0.5;
const SECOND_SHARE = 0.5;
const LEAST_SECOND_PERCENT = 0.2;
const LOW_BIAS_DB = -0.8;
/** Known no better, another school's word says nothing. */
const TOLD_DB = 1.2;
/** Near the right bias the third of a tape falls by so many decades for each decibel of it (type I: from 1.7 % to 0.9 % over 2 dB). */
const DECADES_PER_DB = 0.14;
/** Less than this cannot be turned on purpose. */
const LEAST_RAISE_DB = 0.15;
/** Of one type only: the others have less than this share of it. */
const OTHERS_SHARE = 0.6;
const ALIKE_SHARE = 0.75;
/** By how many decades the third of a tape grows for each decibel of level: 2 dB. */
const DECADES_PER_LEVEL_DB = 0.1;
/** The third of tape falls by 2 dB for each of level; what is cut off falls faster. */
const CLIPPING_DB_PER_DB = 3;

/** What a pattern of distortion usually means, the likeliest first; none where nothing is wrong. */
export function explainDistortion(seen: DistortionSeen): DistortionCause[] {
  const { thirdPercent, secondPercent, sourceThirdPercent, limitPercent, others, fallsDbPerDb } = seen;
  const { biasErrorDb, biasUncertaintyDb, biasLimitDb, overBias, recordLevel } = seen;
  const causes: DistortionCause[] = [];
  if (thirdPercent === null) return causes;
  const high = thirdPercent > limitPercent;
  const percent = (value: number) => `${value.toFixed(2)} %`;
  if (sourceThirdPercent !== null && high && sourceThirdPercent > SOURCE_SHARE * thirdPercent)
    causes.push({
      name: "it is in the source",
      because: `What goes in has ${percent(sourceThirdPercent)} already.`,
      tryFirst: "Lower what is sent, look at the generator, the sound card and the input amplifier.",
    });
  if (secondPercent !== null && secondPercent > Math.max(LEAST_SECOND_PERCENT, SECOND_SHARE * thirdPercent))
    causes.push({
      name: "magnetised, or leaking direct current",
      because: `The second harmonic is ${percent(secondPercent)}; tape alone makes odd ones.`,
      tryFirst:
        "Demagnetise heads and guides. If it comes back, look for a leaking coupling capacitor at the record head.",
    });
  if (!high) return causes;
  const isLow = biasErrorDb !== null && biasErrorDb < LOW_BIAS_DB;
  if (fallsDbPerDb !== null && fallsDbPerDb > CLIPPING_DB_PER_DB)
    causes.push({
      name: "clipping, not tape",
      because: `The third harmonic falls by ${fallsDbPerDb.toFixed(1)} dB for each decibel of level; that of tape falls by 2.`,
      tryFirst: "Look for the stage that runs out of supply, from the input on.",
    });
  if (isLow)
    causes.push({
      name: "under-biased",
      because: `The bias stands ${Math.abs(biasErrorDb).toFixed(1)} dB below where its school would leave it.`,
      tryFirst: "Set bias, then look again.",
    });
  const isAsked = !isLow && biasErrorDb !== null && overBias !== "not asked";
  const isTold = isAsked && overBias !== "not known" && overBias.uncertaintyDb < TOLD_DB;
  const hidesLow = isTold && overBias.errorDb < LOW_BIAS_DB;
  if (hidesLow)
    causes.push({
      name: "under-biased, and the record equaliser hides it",
      because: `By over-bias it stands ${Math.abs(overBias.errorDb).toFixed(1)} dB too low. Flatness looks at treble alone, and an equaliser that is low makes up for bias that is.`,
      tryFirst: "Choose over-bias at bias and set it again; then record level, then the record equaliser.",
    });
  const isUntold = isAsked && !isTold;
  if (isUntold)
    causes.push({
      name: "under-biased, or not: flatness alone does not tell",
      because:
        "An equaliser that is low makes up for bias that is; by over-bias it is not known well enough yet.",
      tryFirst:
        "Choose over-bias at bias and set it by that; if it stays where it is, bias is not the cause.",
    });
  const mayBeLowDb = biasErrorDb === null ? 0 : Math.max(0, biasUncertaintyDb - biasErrorDb);
  const biasExplains =
    !isLow &&
    !hidesLow &&
    !isUntold &&
    biasErrorDb !== null &&
    thirdPercent < limitPercent * 10 ** (DECADES_PER_DB * mayBeLowDb);
  if (biasExplains) {
    const raisesBiasDb = Math.min(mayBeLowDb, biasLimitDb - biasUncertaintyDb - biasErrorDb);
    const canRaise = raisesBiasDb >= LEAST_RAISE_DB;
    causes.push({
      name: "bias at the low end of what is known of it",
      because: `It may stand up to ${mayBeLowDb.toFixed(1)} dB low within its ±, and so much alone makes ${percent(thirdPercent)} of ${percent(limitPercent)}.`,
      tryFirst: canRaise
        ? `Raise bias by ${raisesBiasDb.toFixed(1)} dB, which keeps it within its tolerance, and look again before the amplifier is suspected.`
        : "Let bias be heard at one more place of its screw, so that it is known better, and set it again before the amplifier is suspected.",
      ...(canRaise ? { raisesBiasDb } : {}),
    });
  }
  const mayBeLoudDb = recordLevel && Math.max(0, recordLevel.errorDb + recordLevel.uncertaintyDb);
  const levelExplains =
    mayBeLoudDb === null || thirdPercent < limitPercent * 10 ** (DECADES_PER_LEVEL_DB * mayBeLoudDb);
  if (mayBeLoudDb === null)
    causes.push({
      name: "record level is not known",
      because:
        "The third harmonic grows by 2 dB for each decibel of level, and how loud this tape was recorded was not logged.",
      tryFirst: "Set record level for this tape, then look again.",
    });
  else if (levelExplains)
    causes.push({
      name: "recorded louder than 0",
      because: `The tape may have been recorded up to ${mayBeLoudDb.toFixed(1)} dB louder than 0, and so much alone makes ${percent(thirdPercent)} of ${percent(limitPercent)}.`,
      tryFirst: "Set record level for this tape closer to 0, then look again.",
    });
  const lower = others.filter((other) => other.thirdPercent < OTHERS_SHARE * thirdPercent);
  const alike = others.filter((other) => other.thirdPercent > ALIKE_SHARE * thirdPercent);
  if (others.length > 0 && lower.length === others.length)
    causes.push({
      name: "this tape's setting",
      because: `On ${lower.map(({ name, thirdPercent: other }) => `${name} it is ${percent(other)}`).join(", ")}.`,
      tryFirst: "Bias and record level for this type of tape.",
    });
  const isExplained = isLow || hidesLow || isUntold || biasExplains || levelExplains;
  if (alike.length > 0 && !isExplained)
    causes.push({
      name: "record amplifier",
      because: `It is much the same on ${alike.map(({ name }) => name).join(", ")}, bias is not low and level not high.`,
      tryFirst: "Its coupling and supply capacitors, then its supply.",
    });
  if (causes.length === 0)
    causes.push({
      name: "cannot be told from this",
      because: "High, and nothing else was heard that would tell why.",
      tryFirst: "Set bias; record the same on another type of tape; monitor the source for one pass.",
    });
  return causes;
}
