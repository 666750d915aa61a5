import { explainResponse, FEWEST_POINTS, type ResponseFindings } from "@/core/advice/response-doctor";
import { azimuthOf, monoSumDb, tiltOf, type Azimuth, type LadderTone } from "@/core/measure/azimuth";
import type { ResponsePoint } from "@/core/measure/response";
import { timeConstants, type ReferenceTape } from "@/core/reference/reference-tape";
import type { TimeConstants } from "@/core/standards/equalisation";
import { azimuthLossDb, wavelengthMicrometres } from "@/core/workshop/tape-losses";
import type { HeardBands, ToneBand } from "./heard-bands";
import { responseRuns, type ResponseRun } from "./response-runs";

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

export interface ExplainedResponse extends Omit<ResponseRun, "channels"> {
  channels: ResponseChannel[];
}

export interface ResponseChannel {
  channel: string;
  points: ResponsePoint[];
  /** What the curve looks like; null when there are too few points. */
  findings: ResponseFindings | null;
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
  const tones = bands.flatMap(({ index, band, pair: { frequencyHz: measuredHz, pair } }): LadderBand[] =>
    pair === null || band.frequencyHz < LOWEST_LADDER_HZ
      ? []
      : [{ ...pair, index, frequencyHz: band.frequencyHz, measuredHz }],
  );
  const ladder = tones.map((tone) => ({ ...tone, frequencyHz: tone.measuredHz }));
  const azimuth = azimuthOf(ladder, { spacingMm, speedCmPerS });
  const top = tones.find(({ frequencyHz }) => Math.abs(frequencyHz / TEN_KHZ - 1) < NEAR_10_KHZ);
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

/** What a played reference tape says of the playback side: azimuth, response, and what the curves look like. */
export interface PlaybackView {
  azimuth: AzimuthView | null;
  /** In every way that the response was heard. */
  responses: ExplainedResponse[];
}

/** @param machine equalisation of the machine; the tape's own when left out */
export function playbackView(
  { bands, wide, speedRatio }: HeardBands,
  tape: ReferenceTape,
  tracks: HeadTracks,
  machine: TimeConstants = timeConstants(tape.equalisation, tape.speedCmPerS),
): PlaybackView {
  const { speedCmPerS } = tape;
  return {
    azimuth: azimuthView(bands, tracks, speedCmPerS * speedRatio),
    responses: responseRuns(bands, wide, tape, machine).map((run) => ({
      ...run,
      channels: run.channels.map((one) => ({
        ...one,
        findings:
          one.points.length < FEWEST_POINTS
            ? null
            : explainResponse(one.points, {
                speedCmPerS,
                equalisation: machine,
                referenceHz: run.referenceHz,
              }),
      })),
    })),
  };
}
