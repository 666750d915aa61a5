import { playedWithDb, type TimeConstants } from "@/core/standards/equalisation";

/** A tone, or one frequency of a sweep or noise, as it was heard in one channel, and what the tape says of it. */
export interface HeardBand {
  frequencyHz: number;
  /** What was measured, dBFS. */
  levelDbfs: number;
  spreadDb: number;
  /** ± at 95 % of that level, by itself. */
  uncertaintyDb: number;
  /** What the tape's band list says, re its reference fluxivity. */
  bandLevelDb: number;
  /** What the certificate says the band is off by. */
  correctionDb: number;
  correctionUncertaintyDb: number;
  /** What a full-width tape reads high by on a narrower head. */
  fringingDb: number;
}

export interface ResponsePoint {
  frequencyHz: number;
  /** dB re the reference band, with everything below taken away. */
  levelDb: number;
  spreadDb: number;
  /** ± at 95 %. */
  uncertaintyDb: number;
  /** As measured re the reference band. */
  rawDb: number;
  /** What was taken away, each re the reference band. */
  bandLevelDb: number;
  certificateDb: number;
  fringingDb: number;
  equalisationDb: number;
}

const LEAST_UNCERTAINTY_DB = 0.02;

/**
 * Response of one channel from the bands of a reference tape: measured level less what was recorded (band level and
 * certificate), less fringing, less the difference between the tape's equalisation and the machine's, all re the
 * reference band.
 */
export function responseOf(
  bands: HeardBand[],
  reference: HeardBand,
  equalisation: { tape: TimeConstants; machine: TimeConstants },
): ResponsePoint[] {
  return bands
    .map((band): ResponsePoint => {
      const re = (of: (one: HeardBand) => number) => of(band) - of(reference);
      const rawDb = re((one) => one.levelDbfs);
      const bandLevelDb = re((one) => one.bandLevelDb);
      const certificateDb = re((one) => one.correctionDb);
      const fringingDb = re((one) => one.fringingDb);
      const { tape, machine } = equalisation;
      const equalisationDb = playedWithDb(tape, machine, band.frequencyHz, reference.frequencyHz);
      return {
        frequencyHz: band.frequencyHz,
        levelDb: rawDb - bandLevelDb - certificateDb - fringingDb - equalisationDb,
        spreadDb: band.spreadDb,
        uncertaintyDb: Math.hypot(
          LEAST_UNCERTAINTY_DB,
          band.uncertaintyDb,
          reference.uncertaintyDb,
          band.correctionUncertaintyDb,
        ),
        rawDb,
        bandLevelDb,
        certificateDb,
        fringingDb,
        equalisationDb,
      };
    })
    .sort((a, b) => a.frequencyHz - b.frequencyHz);
}
