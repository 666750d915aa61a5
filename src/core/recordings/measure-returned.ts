import type { SoundFile } from "@/core/formats/sound-file";
import type { Programme } from "@/core/programme/programme";
import { ProgrammeRecogniser } from "@/core/programme/programme-recogniser";
import type { HeardPass } from "@/core/programme/recognise-by-marks";
import { clips } from "@/core/returned/clips";
import { missingPasses } from "@/core/returned/missing-passes";
import { firstSineDb, returnedPass, type MeasuredSection } from "@/core/returned/returned-pass";
import type { ReturnedPass, ReturnedSequence } from "@/core/returned/returned";
import { SoundRooms } from "@/core/measure/sound-rooms";
import { SectionMeter } from "@/core/returned/section-meter";
import { placedSection } from "@/core/returned/section-places";
import { programmeOfSequence } from "@/core/signals/programme-of-sequence";
import type { Sequence } from "@/core/signals/sequence";

/**
 * Everything of a marked sequence that a recording holds, pass by pass, re what was sent. Reads the recording twice, a
 * block at a time: once to find the marks, once to measure.
 */
export async function measureReturned(sound: SoundFile, sequence: Sequence): Promise<ReturnedSequence> {
  const programme = programmeOfSequence(sequence);
  if (!programme.marks)
    return { passes: [], speedFactor: null, warnings: [`${sequence.name} has no marks to be found by.`] };
  const { sampleRateHz, channelCount } = sound;
  const found = await heardPasses(sound, programme);
  if (found.length === 0)
    return {
      passes: [],
      speedFactor: null,
      warnings: [`${sequence.name} was not heard: none of its marks is there.`],
    };

  const all = found.flatMap(({ sections }) => sections);
  const rooms = new SoundRooms();
  const metered = found.flatMap(({ pass, sections, speedRatio }) =>
    sections.map((heard) => {
      const placed = placedSection(sequence, programme, heard, speedRatio, all);
      const section = programme.sections[heard.index];
      const meter = new SectionMeter(sampleRateHz, channelCount, section, placed.place, rooms);
      return { ...placed, pass, meter, done: null as MeasuredSection | null };
    }),
  );
  let at = 0;
  const measure = (one: (typeof metered)[number]) => {
    const { segment, kind, sentDbfs, place, meter } = one;
    const { startSeconds, endSeconds } = place;
    one.done = { segment, kind, sentDbfs, startSeconds, endSeconds, channels: meter.result() };
  };
  for await (const block of sound.blocks()) {
    for (const one of metered) {
      if (one.done) continue;
      one.meter.push(block, at);
      if (one.meter.to <= at + block[0].length) measure(one);
    }
    at += block[0].length;
  }
  for (const one of metered) if (!one.done) measure(one);
  const sectionsOf = (pass: number) =>
    metered.flatMap((one) => (one.pass === pass && one.done ? [one.done] : []));
  const passes = found.map(({ pass }) => returnedPass(pass, sectionsOf(pass), channelCount));
  return {
    passes,
    speedFactor: Math.exp(
      found.reduce((sum, { speedRatio }) => sum + Math.log(speedRatio), 0) / found.length,
    ),
    warnings: [
      ...missingPasses(passes, 0),
      ...found.flatMap((pass, i) =>
        warningsOf(pass, sequence, sectionsOf(pass.pass), programme.sections.length, passes[i]),
      ),
    ],
  };
}

async function heardPasses(sound: SoundFile, programme: Programme): Promise<HeardPass[]> {
  const recogniser = new ProgrammeRecogniser(sound.sampleRateHz, sound.channelCount, { marks: true });
  for await (const block of sound.blocks()) recogniser.push(block);
  recogniser.finish();
  return recogniser.passes(programme);
}

function warningsOf(
  { pass, retries, sections }: HeardPass,
  { passes = 1 }: Sequence,
  measured: readonly MeasuredSection[],
  whole: number,
  returned: ReturnedPass,
): string[] {
  const name = passes > 1 || pass > 1 ? `Pass ${pass}` : "The sequence";
  const problems = new Set(
    measured.flatMap(({ segment, channels }) =>
      channels.flatMap((one) => {
        const why = one.kind === "nothing" ? one.why : one.kind === "sine" ? one.problem : null;
        return why ? [`Segment ${segment + 1} of ${name.toLowerCase()} ${why}.`] : [];
      }),
    ),
  );
  const hasCurve = measured.some(
    ({ kind }) => kind === "steps" || kind === "sweep" || kind === "pink" || kind === "white",
  );
  const clipped = returned.segments.some(({ channels }) => channels.some(clips));
  return [
    ...(retries > 0 ? [`${name} was heard ${retries + 1} times; the last whole one counts.`] : []),
    ...(sections.length < whole
      ? [`${name} is not whole: ${sections.length} of its ${whole} sounds were heard.`]
      : []),
    ...(hasCurve && firstSineDb(measured, 0) === null
      ? [`${name} has no sine to relate its curves to: they are re what was sent.`]
      : []),
    ...(clipped
      ? [
          `The input clips in ${name.toLowerCase()}: its levels are too low and its distortion is not the machine's.`,
        ]
      : []),
    ...problems,
    ...new Set(
      measured.flatMap(({ segment, channels }) =>
        channels.flatMap((one) =>
          one.kind === "silence" && one.doubt
            ? [`Segment ${segment + 1} of ${name.toLowerCase()}, silence: ${one.doubt}`]
            : [],
        ),
      ),
    ),
  ];
}
