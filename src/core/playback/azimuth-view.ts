import {
  azimuthOf,
  heardInBoth,
  monoSumDb,
  tiltOf,
  type Azimuth,
  type LadderTone,
} from "@/core/measure/azimuth";
import { azimuthLossDb, wavelengthMicrometres } from "@/core/workshop/tape-losses";
import type { ToneBand } from "./heard-bands";

/** A rung of the ladder as it is shown. */
export interface LadderBand extends LadderTone {
  /** Its place on the tape, from 0. */
  index: number;
  /** Where it was heard; `frequencyHz` is what the tape says. */
  measuredHz: number;
  /** Phase of each tenth of a second. */
  track: Float64Array;
}

export interface HeadTracks {
  widthMm: number;
  spacingMm: number;
}

/** What a played reference tape says of azimuth. */
export interface AzimuthView extends Azimuth {
  tones: LadderBand[];
  /** What becomes of 10 kHz when the channels are added; null when the phase there is not known. */
  monoSumDbAt10kHz: number | null;
  /** What the tilt costs each track at 10 kHz; null when the tilt is not known. */
  trackLossDbAt10kHz: number | null;
}

/** Below this the amplifiers' own phases say more than the head's tilt. */
const LOWEST_LADDER_HZ = 250;
const TEN_KHZ = 10_000;
const NEAR_10_KHZ = 0.03;

/** The ladder of a tape's tones and what it adds up to; null for one channel. */
export function azimuthView(
  bands: ToneBand[],
  { widthMm, spacingMm }: HeadTracks,
  speedCmPerS: number,
): AzimuthView | null {
  if (bands.some(({ pair }) => pair.channels.length < 2)) return null;
  const tones = bands.flatMap(
    ({ index, band, pair: { frequencyHz: measuredHz, pair, channels } }): LadderBand[] => {
      if (pair === null || band.frequencyHz < LOWEST_LADDER_HZ) return [];
      const [left, right] = channels;
      const balanceDb = left.levelDbfs - right.levelDbfs;
      return [{ ...pair, index, frequencyHz: band.frequencyHz, measuredHz, balanceDb }];
    },
  );
  const ladder = tones.map((tone) => ({ ...tone, frequencyHz: tone.measuredHz }));
  const azimuth = azimuthOf(ladder, { spacingMm, speedCmPerS });
  const top = tones.find(
    (tone) => heardInBoth(tone) && Math.abs(tone.frequencyHz / TEN_KHZ - 1) < NEAR_10_KHZ,
  );
  const delay = azimuth.delaySeconds ?? (top ? top.phaseDegrees / 360 / top.measuredHz : null);
  return {
    ...azimuth,
    tones,
    monoSumDbAt10kHz: delay === null ? null : monoSumDb(delay, TEN_KHZ),
    trackLossDbAt10kHz: trackLossDb(azimuth.tiltArcMinutes, widthMm, speedCmPerS),
  };
}

const trackLossDb = (tiltArcMinutes: number | null, widthMm: number, speedCmPerS: number) =>
  tiltArcMinutes === null
    ? null
    : azimuthLossDb(tiltArcMinutes, widthMm, wavelengthMicrometres(speedCmPerS, TEN_KHZ));

/** The ladder where its whole cycles are known from elsewhere: from having followed a turn through them. */
export function withKnownPhase(
  view: AzimuthView,
  at10kHz: { degrees: number; uncertaintyDegrees: number },
  { widthMm, spacingMm }: HeadTracks,
  speedCmPerS: number,
): AzimuthView {
  const perDegree = 1 / 360 / TEN_KHZ;
  const delaySeconds = at10kHz.degrees * perDegree;
  const tiltArcMinutes = tiltOf(delaySeconds, { spacingMm, speedCmPerS });
  return {
    tones: view.tones,
    delaySeconds,
    delayUncertaintySeconds: at10kHz.uncertaintyDegrees * perDegree,
    tiltArcMinutes,
    resolved: true,
    doubt: null,
    monoSumDbAt10kHz: monoSumDb(delaySeconds, TEN_KHZ),
    trackLossDbAt10kHz: trackLossDb(tiltArcMinutes, widthMm, speedCmPerS),
  };
}
