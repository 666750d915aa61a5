import { explainResponse, FEWEST_POINTS, type ResponseFindings } from "@/core/advice/response-doctor";
import { azimuthOf, monoSumDb, type Azimuth, type LadderTone } from "@/core/measure/azimuth";
import { channelName } from "@/core/measure/channel-name";
import { responseOf, type ResponsePoint } from "@/core/measure/response";
import { timeConstants, type ReferenceTape } from "@/core/reference/reference-tape";
import type { TimeConstants } from "@/core/standards/equalisation";
import { azimuthLossDb, wavelengthMicrometres } from "@/core/workshop/tape-losses";
import { heardBand, responseBands, type ToneBand } from "./measure-tone-bands";

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
  const { tiltArcMinutes } = azimuth;
  return {
    ...azimuth,
    tones,
    monoSumDbAt10kHz: delay === null ? null : monoSumDb(delay, TEN_KHZ),
    trackLossDbAt10kHz:
      tiltArcMinutes === null
        ? null
        : azimuthLossDb(tiltArcMinutes, widthMm, wavelengthMicrometres(speedCmPerS, TEN_KHZ)),
  };
}

/** The response of each channel re the tape's reference band; empty when no tone band was heard. */
export function responseChannels(
  bands: ToneBand[],
  tape: ReferenceTape,
  machine: TimeConstants,
): { referenceHz: number | null; channels: Array<Omit<ResponseChannel, "findings">> } {
  const chosen = responseBands(bands);
  const count = bands.at(0)?.pair.channels.length ?? 0;
  const own = timeConstants(tape.equalisation, tape.speedCmPerS);
  return {
    referenceHz: chosen?.reference.band.frequencyHz ?? null,
    channels: Array.from({ length: chosen ? count : 0 }, (_, c) => ({
      channel: channelName(c, count),
      points: responseOf(
        chosen!.points.map((band) => heardBand(band, c)),
        heardBand(chosen!.reference, c),
        { tape: own, machine },
      ),
    })),
  };
}

/** What a played reference tape says of the playback side: azimuth, response, and what the curves look like. */
export interface PlaybackView {
  azimuth: AzimuthView | null;
  referenceHz: number | null;
  channels: ResponseChannel[];
}

/** @param machine equalisation of the machine; the tape's own when left out */
export function playbackView(
  bands: ToneBand[],
  tape: ReferenceTape,
  tracks: HeadTracks,
  speedRatio: number,
  machine: TimeConstants = timeConstants(tape.equalisation, tape.speedCmPerS),
): PlaybackView {
  const { speedCmPerS } = tape;
  const { referenceHz, channels } = responseChannels(bands, tape, machine);
  return {
    azimuth: azimuthView(bands, tracks, speedCmPerS * speedRatio),
    referenceHz,
    channels: channels.map((one) => ({
      ...one,
      findings:
        one.points.length < FEWEST_POINTS
          ? null
          : explainResponse(one.points, {
              speedCmPerS,
              equalisation: machine,
              referenceHz: referenceHz ?? undefined,
            }),
    })),
  };
}
