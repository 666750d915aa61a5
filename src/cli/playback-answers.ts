import type { SoundFile } from "@/core/formats/sound-file";
import { measureBands } from "@/core/recordings/measure-bands";
import { azimuthView } from "@/core/playback/azimuth-view";
import { responseRuns } from "@/core/playback/response-runs";
import { timeConstants, type ReferenceTape } from "@/core/reference/reference-tape";
import { usualFormat } from "@/core/standards/track-formats";

/** What `measure azimuth` prints: phase of each band, and the delay and tilt they add up to. */
export async function azimuth(
  sound: SoundFile,
  tape: ReferenceTape,
  head: { spacingMm: number; speedCmPerS: number },
) {
  const { bands, speedRatio, warnings } = await measureBands(sound, tape);
  const tracks = { ...usualFormat(head.speedCmPerS), spacingMm: head.spacingMm };
  const found = sound.channelCount > 1 ? azimuthView(bands, tracks, head.speedCmPerS * speedRatio) : null;
  const { doubt = "One channel only: there is no phase to measure." } = found ?? {};
  return {
    tape: tape.id,
    ...head,
    warnings: [...warnings, ...(doubt ? [doubt] : [])],
    bands: found?.tones.map((tone) => ({ ...tone, track: undefined, balanceDb: undefined })) ?? [],
    delaySeconds: found?.delaySeconds ?? null,
    delayUncertaintySeconds: found?.delayUncertaintySeconds ?? null,
    tiltArcMinutes: found?.tiltArcMinutes ?? null,
    resolved: found?.resolved ?? false,
    monoSumLossDbAt10kHz: found?.monoSumDbAt10kHz ?? null,
  };
}

/**
 * What `measure response` prints: levels after all corrections, and each correction. From the tones of the tape where
 * it has them, or else from its sweep or noise; other ways that it was heard in stand under `others`.
 */
export async function response(sound: SoundFile, tape: ReferenceTape, equalisation: string | undefined) {
  const { bands, wide, warnings } = await measureBands(sound, tape);
  const machine = timeConstants(equalisation ?? tape.equalisation, tape.speedCmPerS);
  const runs = responseRuns(bands, wide, tape, machine);
  const [first, ...others] = runs.map(({ from, referenceHz, channels }) => ({ from, referenceHz, channels }));
  const doubts = new Set(runs.flatMap(({ doubts: own }) => own.map(({ says }) => says)));
  return {
    tape: tape.id,
    equalisation: `${machine.t1Microseconds}/${machine.t2Microseconds}`,
    warnings: [...warnings, ...doubts],
    ...(first ?? { from: null, referenceHz: null, channels: [] }),
    others,
  };
}
