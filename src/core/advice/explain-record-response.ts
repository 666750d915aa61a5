interface Point {
  frequencyHz: number;
  levelDb: number;
  spreadDb: number;
}

/** A record response, as far as it is known why. */
export interface RecordResponseSeen {
  /** Re the middle, at the frequencies that were sent. */
  points: readonly Point[];
  limitDb: number;
  /** Bias re where its school would leave it, dB; null where it was not set yet. */
  biasErrorDb: number | null;
}

export interface RecordResponseCause {
  name: string;
  because: string;
  tryFirst: string;
}

const MIDDLE_HZ = [800, 1300] as const;
const TREBLE_HZ = [7500, 11_000] as const;
const TOP_HZ = [13_500, 17_000] as const;
const WORTH_SAYING = 0.5;
const BIAS_DB = 0.8;
/** A knee: the top falls so much more than the treble before it. */
const KNEE_DB = 3;

/** What a record response usually means, on the record side; playback was set before. */
export function explainRecordResponse({
  points,
  limitDb,
  biasErrorDb,
}: RecordResponseSeen): RecordResponseCause[] {
  const mean = ([from, to]: readonly [number, number]) => {
    const inside = points.filter(({ frequencyHz }) => frequencyHz >= from && frequencyHz <= to);
    return inside.length === 0 ? null : inside.reduce((sum, { levelDb }) => sum + levelDb, 0) / inside.length;
  };
  const [middle, treble, top] = [mean(MIDDLE_HZ) ?? 0, mean(TREBLE_HZ), mean(TOP_HZ)];
  if (treble === null) return [];
  const off = treble - middle;
  const db = (value: number) => `${Math.abs(value).toFixed(1)} dB`;
  const causes: RecordResponseCause[] = [];
  if (top !== null && top - treble < -KNEE_DB && Math.abs(off) < WORTH_SAYING * limitDb)
    causes.push({
      name: "a knee at the top",
      because: `It is ${db(top - treble)} lower above 13 kHz than at 10 kHz, where it is right.`,
      tryFirst:
        "Record-head azimuth and a clean head first; then the head's gap, or a tape that holds no more treble.",
    });
  if (Math.abs(off) < WORTH_SAYING * limitDb) return causes;
  const bright = off > 0;
  const says = `The treble is ${db(off)} too ${bright ? "loud" : "soft"}`;
  if (biasErrorDb === null)
    causes.push({
      name: "bias, equaliser or tape: cannot be told from this",
      because: `${says}, and bias was not set on this tape yet.`,
      tryFirst: "Set bias first: too little makes it bright and distorted, too much dull.",
    });
  else if (Math.abs(biasErrorDb) > BIAS_DB && bright === biasErrorDb < 0)
    causes.push({
      name: bright ? "bias too low" : "bias too high",
      because: `${says}, and bias stands ${db(biasErrorDb)} too ${bright ? "low" : "high"}.`,
      tryFirst: "Set bias; the equaliser only after it.",
    });
  else
    causes.push({
      name: "record equaliser",
      because: `${says}, and bias is where its school would leave it.`,
      tryFirst: "Turn the record equaliser; if it is so on this tape alone, it is the tape.",
    });
  return causes;
}
