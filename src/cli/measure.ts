import { doctorAnswer } from "./doctor-answer";
import { bands, levels, match, transport, type Answer } from "./answers";
import { runCommand } from "./exit";
import { machineArgument } from "./machine-argument";
import { readArguments, USAGE, USUAL_SPEED_CM_PER_S } from "./measure-arguments";
import { azimuth, response } from "./playback-answers";
import { dropOuts, noise } from "./noise-answers";
import { bias, distortion, returned } from "./record-answers";
import { sequenceArgument } from "./sequence-argument";
import { withSound } from "./sound-argument";
import { tapeArgument } from "./tape-argument";

async function main(): Promise<void> {
  const asked = readArguments();
  const { kind, file, nominalHz, speedCmPerS, spacingMm, equalisation, inductanceMh, against } = asked;
  if (kind === "doctor") {
    const curve = { speedCmPerS: speedCmPerS ?? USUAL_SPEED_CM_PER_S, equalisation, inductanceMh };
    return print({ measurement: kind, file, ...(await doctorAnswer(file, curve)) });
  }
  const tape = asked.tapeName === undefined ? null : await tapeArgument(asked.tapeName);
  const sequence = asked.sequenceName === undefined ? null : await sequenceArgument(asked.sequenceName);
  const machine = asked.machineName === undefined ? null : await machineArgument(asked.machineName);
  await withSound(file, async (sound) => {
    const measure: Record<typeof kind, () => Promise<Answer>> = {
      speed: () => transport(sound, "speed", nominalHz, null),
      flutter: () => transport(sound, "flutter", nominalHz, machine && { machine, speedCmPerS }),
      level: () => levels(sound),
      match: () => match(sound, against!),
      bands: () => bands(sound, tape!),
      azimuth: () => azimuth(sound, tape!, { spacingMm, speedCmPerS: speedCmPerS ?? tape!.speedCmPerS }),
      response: () => response(sound, tape!, equalisation),
      distortion: () => distortion(sound, nominalHz, asked.source),
      noise: () => noise(sound, asked.referenceDbfs),
      dropouts: () => dropOuts(sound, nominalHz, asked.depthDb),
      returned: () => returned(sound, sequence!),
      bias: () =>
        bias(sound, sequence!, {
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
