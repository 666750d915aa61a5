import type { SoundFile } from "@/core/formats/sound-file";
import { heardBand, measureToneBands, responseBands } from "@/core/listen/measure-tone-bands";
import { azimuthOf, monoSumDb } from "@/core/measure/azimuth";
import { channelName } from "@/core/measure/channel-name";
import { responseOf } from "@/core/measure/response";
import { timeConstants, type ReferenceTape } from "@/core/reference/reference-tape";

/** Below this the amplifiers' own phases say more than the head's tilt. */
const LOWEST_LADDER_HZ = 250;
const NEAR_10_KHZ = 0.03;

/** What `measure azimuth` prints: phase of each band, and the delay and tilt they add up to. */
export async function azimuth(
  sound: SoundFile,
  tape: ReferenceTape,
  head: { spacingMm: number; speedCmPerS: number },
) {
  const { bands, speedRatio, warnings } = await measureToneBands(sound, tape);
  const tones = bands.flatMap(({ index, band, pair: { frequencyHz: measuredHz, pair } }) =>
    pair === null || band.frequencyHz < LOWEST_LADDER_HZ
      ? []
      : [
          {
            index,
            frequencyHz: band.frequencyHz,
            measuredHz,
            phaseDegrees: pair.phaseDegrees,
            spreadDegrees: pair.spreadDegrees,
            uncertaintyDegrees: pair.uncertaintyDegrees,
            coherence: pair.coherence,
          },
        ],
  );
  const ladder = tones.map((tone) => ({ ...tone, frequencyHz: tone.measuredHz }));
  const answer = azimuthOf(ladder, { ...head, speedCmPerS: head.speedCmPerS * speedRatio });
  const top = tones.find(({ frequencyHz }) => Math.abs(frequencyHz / 10000 - 1) < NEAR_10_KHZ);
  const delay10k = answer.delaySeconds ?? (top ? top.phaseDegrees / 360 / top.measuredHz : null);
  return {
    tape: tape.id,
    ...head,
    warnings: [
      ...warnings,
      ...(sound.channelCount < 2 ? ["One channel only: there is no phase to measure."] : []),
      ...(answer.doubt && sound.channelCount > 1 ? [answer.doubt] : []),
    ],
    bands: tones,
    delaySeconds: answer.delaySeconds,
    delayUncertaintySeconds: answer.delayUncertaintySeconds,
    tiltArcMinutes: answer.tiltArcMinutes,
    resolved: answer.resolved,
    monoSumLossDbAt10kHz: delay10k === null ? null : monoSumDb(delay10k, 10000),
  };
}

/** What `measure response` prints: levels after all corrections, and each correction. */
export async function response(sound: SoundFile, tape: ReferenceTape, equalisation: string | undefined) {
  const { bands, warnings } = await measureToneBands(sound, tape);
  const chosen = responseBands(bands);
  const own = timeConstants(tape.equalisation, tape.speedCmPerS);
  const machine = equalisation === undefined ? own : timeConstants(equalisation, tape.speedCmPerS);
  const channels = Array.from({ length: Math.min(2, sound.channelCount) }, (_, c) => ({
    channel: channelName(c, sound.channelCount),
    points: chosen
      ? responseOf(
          chosen.points.map((band) => heardBand(band, c)),
          heardBand(chosen.reference, c),
          { tape: own, machine },
        )
      : [],
  }));
  return {
    tape: tape.id,
    equalisation: `${machine.t1Microseconds}/${machine.t2Microseconds}`,
    referenceHz: chosen?.reference.band.frequencyHz ?? null,
    warnings,
    channels,
  };
}
