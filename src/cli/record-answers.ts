import type { SoundFile } from "@/core/formats/sound-file";
import { measureDistortion } from "@/core/recordings/measure-distortion";
import { measureReturned } from "@/core/recordings/measure-returned";
import type { Sequence } from "@/core/signals/sequence";
import { biasAnswers, biasSentence, findingsOf } from "@/core/guidance/bias-answers";
import { fitBias } from "@/core/guidance/bias-law";
import { biasHeard, followsLevel, FOLLOWS_LEVEL } from "@/core/returned/bias-points";
import { missingPasses } from "@/core/returned/missing-passes";
import { channelName } from "@/core/measure/channel-name";
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
        thirdUncertaintyDb: found?.third?.uncertaintyDb ?? null,
        thirdMeasurable: found?.third?.measurable ?? false,
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
    channels: biasHeard(one, sentDb, sound.channelCount),
  }));
  const more = passes.filter((one) => !known.includes(one)).map(({ pass }) => pass);
  const names = Array.from({ length: Math.min(2, sound.channelCount) }, (_, c) =>
    channelName(c, sound.channelCount),
  );
  const sides = names.map((channel, c) => {
    const heard = rows.flatMap(({ turns: at, channels }) => {
      const one = channels[c];
      return one === null ? [] : [{ ...one, turns: at }];
    });
    return { channel, heard, absent: rows.filter(({ channels }) => channels[c] === null) };
  });
  return {
    sequence: sequence.id,
    speedFactor,
    overBiasDb,
    warnings: [
      ...new Set([...warnings, ...missingPasses(passes, turns.length)]),
      ...(more.length > 0 ? [`No screw setting was given for pass ${more.join(", ")}.`] : []),
      ...(rows.length < 2 && passes.length > 0 ? ["One setting does not show what the screw does."] : []),
      ...sides.flatMap(({ channel, absent }) =>
        absent.map(({ pass }) => `Pass ${pass}, ${channel}: a bias tone is missing or clipped; left out.`),
      ),
      ...sides.flatMap(({ channel, heard }) =>
        heard.some(followsLevel) ? [`${channel}: ${FOLLOWS_LEVEL}`] : [],
      ),
    ],
    passes: rows.map(({ pass, turns: at, channels }) => ({
      pass,
      turns: at,
      channels: channels.flatMap((one) =>
        one === null
          ? []
          : [
              {
                channel: one.channel,
                middleDb: one.middleDb,
                highDb: one.highDb,
                thirdPercent: one.thirdPercent,
              },
            ],
      ),
    })),
    channels: sides.flatMap(({ channel, heard }) => {
      if (heard.length === 0) return [];
      if (heard.some(followsLevel))
        return [{ channel, answers: [], sentence: `Inconclusive. ${FOLLOWS_LEVEL}` }];
      const [{ middleHz, highHz }] = heard;
      // one screw was turned: the other channel helps to decide its direction
      const beside = sides.flatMap((other) =>
        other.channel === channel || other.heard.some(followsLevel) ? [] : other.heard,
      );
      const fit = fitBias(heard, { middleHz, highHz, speedCmPerS }, beside);
      const findings = findingsOf(fit, fit.laws(), heard, overBiasDb);
      const answers = biasAnswers(findings, heard, overBiasDb);
      return [{ channel, answers, sentence: biasSentence(answers) }];
    }),
  };
}
