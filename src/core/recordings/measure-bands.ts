import type { SoundFile } from "@/core/formats/sound-file";
import { MONO_INPUT } from "@/core/measure/azimuth";
import { missingSections } from "@/core/programme/missing-sections";
import { ProgrammeRecogniser } from "@/core/programme/programme-recogniser";
import { programmeOfTape } from "@/core/reference/programme-of-tape";
import type { ReferenceTape } from "@/core/reference/reference-tape";
import { BandMeters } from "./band-meters";
import type { HeardBands } from "@/core/playback/heard-bands";

/**
 * Levels and phase of every tone band, and levels along every sweep and noise, that a recording of a reference tape
 * holds, two channels or one. Reads the recording twice, a block at a time: once to recognise the bands, once to
 * measure them.
 */
export async function measureBands(
  sound: SoundFile,
  tape: ReferenceTape,
): Promise<HeardBands & { warnings: string[] }> {
  const recogniser = new ProgrammeRecogniser(sound.sampleRateHz, sound.channelCount, { marks: false });
  for await (const block of sound.blocks()) recogniser.push(block);
  recogniser.finish();
  const programme = programmeOfTape(tape);
  const recognition = recogniser.recognise(programme);
  const meters = new BandMeters(recognition, tape, sound);
  for await (const block of sound.blocks()) meters.push(block);
  const { bands, wide } = meters.result();
  const { doubt, speedRatio } = recognition;
  const warnings = [
    ...(doubt ? [doubt] : []),
    ...missingSections(programme, recognition.sections),
    ...(bands.length > 0 && bands.every(({ pair }) => pair.pair?.isMono) ? [MONO_INPUT] : []),
    ...(bands.length + wide.length === 0 ? [`No band of ${tape.name} was heard.`] : []),
  ];
  return { bands, wide, speedRatio: speedRatio ?? 1, warnings };
}
