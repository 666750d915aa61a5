import type { Answer } from "./answer";
import { runCommand } from "./exit";
import { readArguments, USAGE, USUAL_SPEED_CM_PER_S } from "./measure-arguments";
import { withSound } from "./sound-argument";

/*
 * What only some measurements need is loaded where it is needed: reading all of it takes as long as measuring a short file.
 */
async function main(): Promise<void> {
  const asked = readArguments();
  const { kind, file, nominalHz, speedCmPerS, spacingMm, equalisation, inductanceMh, against } = asked;
  if (kind === "doctor") {
    const { doctorAnswer } = await import("./doctor-answer");
    const curve = { speedCmPerS: speedCmPerS ?? USUAL_SPEED_CM_PER_S, equalisation, inductanceMh };
    return print({ measurement: kind, file, ...(await doctorAnswer(file, curve)) });
  }
  const { tapeName, sequenceName, machineName } = asked;
  const tape = tapeName === undefined ? null : await (await import("./tape-argument")).tapeArgument(tapeName);
  const sequence =
    sequenceName === undefined
      ? null
      : await (await import("./sequence-argument")).sequenceArgument(sequenceName);
  const machine =
    machineName === undefined
      ? null
      : await (await import("./machine-argument")).machineArgument(machineName);
  await withSound(file, async (sound) => {
    const measure: Record<typeof kind, () => Promise<Answer>> = {
      speed: async () => (await import("./transport-answer")).transport(sound, "speed", nominalHz, null),
      flutter: async () =>
        (await import("./transport-answer")).transport(
          sound,
          "flutter",
          nominalHz,
          machine && { machine, speedCmPerS },
        ),
      level: async () => (await import("./answers")).levels(sound),
      match: async () => (await import("./answers")).match(sound, against!),
      bands: async () => (await import("./answers")).bands(sound, tape!),
      azimuth: async () =>
        (await import("./playback-answers")).azimuth(sound, tape!, {
          spacingMm,
          speedCmPerS: speedCmPerS ?? tape!.speedCmPerS,
        }),
      response: async () => (await import("./playback-answers")).response(sound, tape!, equalisation),
      distortion: async () => (await import("./record-answers")).distortion(sound, nominalHz, asked.source),
      noise: async () => (await import("./noise-answers")).noise(sound, asked.referenceDbfs),
      dropouts: async () => (await import("./noise-answers")).dropOuts(sound, nominalHz, asked.depthDb),
      returned: async () => (await import("./record-answers")).returned(sound, sequence!),
      bias: async () =>
        (await import("./record-answers")).bias(sound, sequence!, {
          turns: asked.turns,
          overBiasDb: asked.overBiasDb,
          speedCmPerS: speedCmPerS ?? USUAL_SPEED_CM_PER_S,
        }),
    };
    const { warnings = [], ...answer } = await measure[kind]();
    const { sampleRateHz, durationSeconds } = sound;
    const all = [...sound.warnings, ...warnings];
    print({ measurement: kind, file, sampleRateHz, durationSeconds, warnings: all, ...answer });
  });
}

const print = (answer: object) => void process.stdout.write(`${JSON.stringify(answer)}\n`);

runCommand(main, USAGE);
