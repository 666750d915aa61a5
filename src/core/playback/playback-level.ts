import { channelName } from "@/core/measure/channel-name";
import type { TonePair } from "@/core/measure/tone-pair";
import type { Section } from "@/core/programme/programme";
import type { ReferenceTape } from "@/core/reference/reference-tape";
import { fluxivityDb } from "@/core/workshop/fluxivity";
import type { Machine } from "@/core/records/machine";

/** A term of the level arithmetic, dB. */
export interface LevelTerm {
  what: string;
  db: number;
}

export interface ChannelLevel {
  channel: string;
  levelDbfs: number;
  /** Null without a calibrated input. */
  levelDbu: number | null;
  spreadDb: number;
  /** What was measured less what should be; null without a calibrated input or an operating level. */
  errorDb: number | null;
  uncertaintyDb: number;
  /** What the certificate says of this channel. */
  certificateDb: number;
  /** Its level is higher than what arrived. */
  clipped: boolean;
}

/** The reference fluxivity band against the machine's operating level. */
export interface PlaybackLevel {
  frequencyHz: number;
  channels: ChannelLevel[];
  /** Left less right with the certificate taken away; null for one channel. */
  balanceDb: number | null;
  balanceUncertaintyDb: number;
  /** What the output should be on this band: operating level and each correction; the sum is expected in dBu. */
  terms: LevelTerm[];
  expectedDbu: number | null;
}

/** Level in dBu of a full-scale sine. */
export interface FullScale {
  leftDbu: number;
  rightDbu: number;
}

const CALIBRATION_DB = 0.05;
const LEAST_DB = 0.02;

/**
 * Playback level on a band of known flux. Expected output = operating level + 20·log₁₀(Φ of the tape ÷ Φ of the
 * operating level, by one method of measuring) + level of the band + certificate + fringing.
 */
export function playbackLevel(
  { band, pair }: { band: Section; pair: TonePair },
  tape: Pick<ReferenceTape, "fluxivityNwbPerM" | "fluxivityMethod">,
  { operatingLevel }: Pick<Machine, "operatingLevel">,
  fullScale: FullScale | null,
): PlaybackLevel {
  const { fluxivityNwbPerM, fluxivityMethod } = tape;
  const fluxDb =
    operatingLevel && fluxivityNwbPerM
      ? fluxivityDb(
          { nwbPerM: fluxivityNwbPerM, method: fluxivityMethod ?? operatingLevel.method },
          { nwbPerM: operatingLevel.fluxivityNwbPerM, method: operatingLevel.method },
        )
      : null;
  const terms: LevelTerm[] = [
    ...(operatingLevel ? [{ what: "operating level", db: operatingLevel.outputDbu }] : []),
    ...(fluxDb === null
      ? []
      : [{ what: `${fluxivityNwbPerM} re ${operatingLevel!.fluxivityNwbPerM} nWb/m`, db: fluxDb }]),
    { what: "level of the band", db: band.levelDb },
    ...(band.fringingDb ? [{ what: "fringing", db: band.fringingDb }] : []),
  ];
  const expectedDbu = fluxDb === null ? null : terms.reduce((sum, { db }) => sum + db, 0);
  const channels = pair.channels.map(({ levelDbfs, spreadDb, uncertaintyDb, clipped }, c): ChannelLevel => {
    const certificateDb = (c === 0 ? band.correctionDb?.left : band.correctionDb?.right) ?? 0;
    const full = c === 0 ? fullScale?.leftDbu : fullScale?.rightDbu;
    const levelDbu = full === undefined ? null : levelDbfs + full;
    return {
      channel: channelName(c, pair.channels.length),
      levelDbfs,
      levelDbu,
      spreadDb,
      errorDb: levelDbu === null || expectedDbu === null ? null : levelDbu - expectedDbu - certificateDb,
      uncertaintyDb: Math.hypot(LEAST_DB, CALIBRATION_DB, uncertaintyDb, band.correctionUncertaintyDb ?? 0),
      certificateDb,
      clipped,
    };
  });
  const [left, right] = channels;
  return {
    frequencyHz: band.frequencyHz,
    channels,
    balanceDb: right
      ? left.levelDbfs - left.certificateDb - right.levelDbfs + right.certificateDb + between(fullScale)
      : null,
    balanceUncertaintyDb: right ? Math.hypot(left.uncertaintyDb, right.uncertaintyDb) : 0,
    terms,
    expectedDbu,
  };
}

/** What the inputs of a card differ by. */
const between = (fullScale: FullScale | null): number =>
  fullScale ? fullScale.leftDbu - fullScale.rightDbu : 0;

/**
 * The tone that level is read from: the level band of a tape, or on a tape without one the tone nearest to 400 Hz at its
 * highest level. Null when that was not heard.
 */
export function levelTone<T extends { band: Section }>(
  tones: T[],
  { bands }: Pick<ReferenceTape, "bands">,
): T | null {
  if (bands.some(({ role }) => role === "level"))
    return tones.find(({ band }) => band.role === "level") ?? null;
  const distance = ({ band }: T) => Math.abs(Math.log(band.frequencyHz / 400));
  const fit = tones.filter((tone) => distance(tone) < Math.log(3));
  return fit.toSorted((a, b) => b.band.levelDb - a.band.levelDb || distance(a) - distance(b))[0] ?? null;
}
