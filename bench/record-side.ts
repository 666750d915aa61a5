import { biasLaws } from "@/core/guidance/bias-law";
import { distortionOf } from "@/core/measure/distortion";
import { orderLines } from "@/core/measure/order-lines";
import { single } from "@/core/signals/presets";
import { SequenceRenderer } from "@/core/signals/render-sequence";
import { harmonicsOf } from "@/testing/steady-harmonics";
import { biasTurns } from "./bias-turns";
import { biasWatched } from "./bias-watched";
import { say, timed } from "./say";

const WATCHED_MACHINES = Number(process.env.UNZEL_BENCH_MACHINES ?? 200);

/** Distortion, and bias by the card. */
export function recordFigures(): void {
  const [sine] = new SequenceRenderer(
    single({ kind: "sine", channels: "both", frequencyHz: 1000, levelDb: -12, seconds: 5 }),
    48000,
  ).block(0, 240_000);
  say(
    "rendered sine: strongest harmonic, dB",
    Math.max(...harmonicsOf(sine, 48000, 1000).harmonicsDb).toFixed(0),
  );

  const wavering = (thirdDb: number) => {
    let turns = 0;
    return Float64Array.from({ length: 4 * 48000 }, (_, i) => {
      turns += (315 / 48000) * (1 + 0.003 * Math.sin((8 * Math.PI * i) / 48000));
      const angle = 2 * Math.PI * turns;
      return 0.25 * (Math.sin(angle) + 10 ** (thirdDb / 20) * Math.sin(3 * angle));
    });
  };
  for (const db of [-40, -74, -80]) {
    const x = wavering(db);
    const third = orderLines(x, 48000, 315, [3])!.lines[0];
    say(`third harmonic of ${db} dB in 0.3 % of flutter: error, dB`, (third.levelDb - db).toFixed(4));
  }
  say(
    "harmonics 2 to 7 of 4 s of one channel, ms",
    (1000 * timed(() => distortionOf(wavering(-40), 48000, 315))).toFixed(0),
  );
  const biasPlaces = [-3, -1.5, 0, 1.5, 3].map((b) => ({
    turns: b / 8,
    middleDb: -0.06 * (b - 1) ** 2,
    highDb: 2.4 - 0.17 * (b + 3.5) ** 2,
    thirdDb: -43 + 0.25 * (b - 1.6) ** 2,
  }));
  const tones = { middleHz: 315, highHz: 10_000, speedCmPerS: 4.76 };
  say(
    "law of a bias screw from five places, ms",
    (1000 * timed(() => biasLaws(biasPlaces, tones))).toFixed(0),
  );

  const needed = biasTurns(200);
  say(
    "bias by the card, 200 random machines: within the class after a trial turn and at most three more",
    `${needed.filter((turns) => turns !== null && turns <= 4).length} of 200`,
  );

  const watched = [...biasWatched(WATCHED_MACHINES)];
  say(
    `bias watched off the tape, ${WATCHED_MACHINES} random machines: within the class after a trial turn and at most three more`,
    `${watched.filter((turns) => turns !== null).length} of ${WATCHED_MACHINES}`,
  );
}
