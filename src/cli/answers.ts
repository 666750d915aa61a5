import type { SoundFile } from "@/core/formats/sound-file";
import { channelName } from "@/core/measure/channel-name";
import { HumMeter } from "@/core/measure/hum";
import { LevelSpread } from "@/core/measure/level-spread";
import { LevelMeter } from "@/core/measure/level-meter";
import { matchRecordings, MatchSound } from "@/core/measure/match/match-recordings";
import { missingSections } from "@/core/programme/missing-sections";
import { ProgrammeRecogniser } from "@/core/programme/programme-recogniser";
import type { RecognisedSection } from "@/core/programme/recognition";
import { programmeOfTape } from "@/core/reference/programme-of-tape";
import type { ReferenceTape } from "@/core/reference/reference-tape";
import type { Answer } from "./answer";
import { withSound } from "./sound-argument";

export async function match(sound: SoundFile, against: string): Promise<Answer> {
  const listen = async (to: SoundFile) => {
    const kept = new MatchSound(to.sampleRateHz);
    for await (const block of to.blocks()) kept.push(block);
    return kept;
  };
  const mine = await listen(sound);
  return { against, ...matchRecordings(mine, await withSound(against, listen)) };
}

const MOST_OFFSET_PERCENT = 0.1;

export async function levels(sound: SoundFile): Promise<Answer> {
  const meters = Array.from({ length: sound.channelCount }, () => ({
    level: new LevelMeter(),
    hum: new HumMeter(sound.sampleRateHz),
    spread: new LevelSpread(sound.sampleRateHz),
  }));
  for await (const block of sound.blocks())
    meters.forEach(({ level, hum, spread }, c) => {
      level.push(block[c]);
      hum.push(block[c]);
      spread.push(block[c]);
    });
  const names = meters.map((_, c) => channelName(c, sound.channelCount));
  return {
    warnings: meters.flatMap(({ level: { level } }, c) => [
      ...(level.clippedSamples > 0 ? [`${names[c]}: clipped; the level is lower than what was played.`] : []),
      ...(Math.abs(level.dcPercent) > MOST_OFFSET_PERCENT
        ? [`${names[c]}: an offset of ${level.dcPercent.toFixed(1)} % of full scale counts in.`]
        : []),
    ]),
    channels: meters.map(({ level, hum, spread }, c) => ({
      channel: names[c],
      ...level.level,
      rmsUncertaintyDb: spread.uncertaintyDb,
      mainsHz: hum.hum.mainsHz,
      humDb: hum.hum.lines,
    })),
  };
}

export async function bands(sound: SoundFile, tape: ReferenceTape): Promise<Answer> {
  const recogniser = new ProgrammeRecogniser(sound.sampleRateHz, sound.channelCount, { marks: false });
  for await (const block of sound.blocks()) recogniser.push(block);
  recogniser.finish();
  const programme = programmeOfTape(tape);
  const { sections: found, repeats, speedRatio, doubt } = recogniser.recognise(programme);
  const row = ({ levelDb, ...band }: RecognisedSection) => ({
    ...band,
    levelDb: levelDb && { left: levelDb.left, right: sound.channelCount > 1 ? levelDb.right : null },
  });
  return {
    warnings: [
      ...(doubt ? [doubt] : []),
      ...(found.length === 0 && !doubt ? [`No band of ${tape.name} was found.`] : []),
      ...missingSections(programme, found),
    ],
    tape: tape.id,
    speedErrorPercent: speedRatio === null ? null : 100 * (speedRatio - 1),
    bands: found.map(row),
    repeats: repeats.map(row),
  };
}
