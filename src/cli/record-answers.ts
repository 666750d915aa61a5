import type { SoundFile } from "@/core/formats/sound-file";
import { measureDistortion } from "@/core/recordings/measure-distortion";
import { measureReturned } from "@/core/recordings/measure-returned";
import type { Sequence } from "@/core/signals/sequence";
import { biasAnswers, biasSentence, placedByLaws } from "@/core/guidance/bias-answers";
import { biasLaws } from "@/core/guidance/bias-law";
import { biasHeard } from "@/core/returned/bias-points";
import { withSound } from "./sound-argument";

/** What `measure distortion` prints: the harmonics of a tone, beside those of what went in. */
export async function distortion(sound: SoundFile, nominalHz: number, source: string | undefined) {
  const { channels, warnings } = await measureDistortion(sound, nominalHz);
  const went =
    source === undefined ? null : await withSound(source, (file) => measureDistortion(file, nominalHz));
  return {
    nominalHz,
    source: source ?? null,
    warnings: [...warnings, ...(went?.warnings ?? []).map((warning) => `Of the source: ${warning}`)],
    channels: channels.map(({ channel, found }, c) => {
      const own = went?.channels[Math.min(c, went.channels.length - 1)]?.found?.harmonics ?? [];
      const sourceDb = (order: number) =>
        own.find((line) => line.order === order && line.measurable)?.levelDb ?? null;
      return {
        channel,
        frequencyHz: found?.frequencyHz ?? null,
        levelDbfs: found?.levelDbfs ?? null,
        harmonics: found?.harmonics.map((line) => ({ ...line, sourceDb: sourceDb(line.order) })) ?? [],
        thirdPercent: found?.third?.percent ?? null,
        thdPercent: found?.thdPercent ?? null,
        thdMeasurable: found?.thdMeasurable ?? false,
      };
    }),
  };
}

/** What `measure returned` prints. */
export async function returned(sound: SoundFile, sequence: Sequence) {
  return { sequence: sequence.id, ...(await measureReturned(sound, sequence)) };
}

/** What `measure bias` prints: each pass at its place of the screw, and where each school would stop. */
export async function bias(
  sound: SoundFile,
  sequence: Sequence,
  { turns, overBiasDb, speedCmPerS }: { turns: number[]; overBiasDb: number | null; speedCmPerS: number },
) {
  const { passes, speedFactor, warnings } = await measureReturned(sound, sequence);
  const sentDb = (segment: number) => {
    const sent = sequence.segments[segment];
    return sent.kind === "sine" ? sent.levelDb : null;
  };
  const known = passes.filter(({ pass }) => turns[pass - 1] !== undefined);
  const rows = known.map((one) => ({
    pass: one.pass,
    turns: turns[one.pass - 1],
    channels: biasHeard(one, sentDb, sound.channelCount).filter((heard) => heard !== null),
  }));
  const more = passes.filter((one) => !known.includes(one)).map(({ pass }) => pass);
  const channels = [...new Set(rows.flatMap((row) => row.channels.map(({ channel }) => channel)))];
  return {
    sequence: sequence.id,
    speedFactor,
    overBiasDb,
    warnings: [
      ...warnings,
      ...(more.length > 0 ? [`No place of the screw was given for pass ${more.join(", ")}.`] : []),
      ...(rows.length < 2 && passes.length > 0
        ? ["One place of the screw tells nothing of what it does."]
        : []),
    ],
    passes: rows.map(({ pass, turns: at, channels: heard }) => ({
      pass,
      turns: at,
      channels: heard.map(({ channel, middleDb, highDb, thirdPercent }) => ({
        channel,
        middleDb,
        highDb,
        thirdPercent,
      })),
    })),
    channels: channels.map((channel) => {
      const heard = rows.flatMap((row) =>
        row.channels.filter((one) => one.channel === channel).map((one) => ({ ...one, turns: row.turns })),
      );
      const [{ middleHz, highHz }] = heard;
      const laws = biasLaws(heard, { middleHz, highHz, speedCmPerS });
      const answers = biasAnswers(placedByLaws(laws, heard, overBiasDb), heard, overBiasDb);
      return { channel, answers, sentence: biasSentence(answers) };
    }),
  };
}
