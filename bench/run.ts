import { findParts } from "@/core/advice/find-parts";
import { explainResponse } from "@/core/advice/response-doctor";
import { azimuthOf } from "@/core/measure/azimuth";
import { TonePairMeter } from "@/core/measure/tone-pair";
import { playbackFaultRuns } from "./playback-faults";
import { pairTone } from "@/testing/pair-tone";
import { matchRecordings, MatchSound } from "@/core/measure/match/match-recordings";
import { noiseLevels } from "@/core/measure/noise-levels";
import { sweepLevels } from "@/core/measure/sweep-levels";
import { lossDb, SWEEP, SWEEP_START_SECONDS, sweepSound } from "@/testing/sweep-sound";
import { WatchLog } from "@/core/measure/watch-log";
import { practiceParts } from "@/core/practice/practice-parts";
import { bump, flutterOfParts, wave } from "@/testing/part-flutter";
import { pluckedNotes } from "@/testing/plucked-notes";
import { flutterOf } from "@/core/measure/flutter";
import { LiveTransport } from "@/core/measure/live-transport";
import { speedOf } from "@/core/measure/speed";
import { TransportMeter } from "@/core/measure/transport-meter";
import { PracticeDeck } from "@/core/simulator/practice-deck";
import { practiceMachine } from "@/core/simulator/practice-machines";
import { LiveListening } from "@/core/live/live-listening";
import { biasTurns } from "./bias-turns";
import { hostileFiles } from "./hostile-files";
import { biasWatched } from "./bias-watched";
import { recordFaultRuns } from "./record-faults";
import { restFaultRuns } from "./rest-faults";
import { biasLaws } from "@/core/guidance/bias-law";
import { distortionOf } from "@/core/measure/distortion";
import { orderLines } from "@/core/measure/order-lines";
import { harmonicsOf } from "@/testing/steady-harmonics";
import { practiceTape } from "@/core/practice/practice-tape";
import { ProgrammeRecogniser } from "@/core/programme/programme-recogniser";
import { programmeOfTape } from "@/core/reference/programme-of-tape";
import { BUILT_IN_TAPES } from "@/core/reference/built-in-tapes";
import { single } from "@/core/signals/presets";
import { SequenceRenderer } from "@/core/signals/render-sequence";
import { fmTone, sumOf, whiteNoise } from "@/testing/fm-tone";

/*
 * How fast and how exact the engine is on this machine. Figures go to standard output, one line each; nothing
 * here passes or fails.
 */

/** Playback faults and pairs of them that are gone through; each takes about a minute. */
const BENCH_RUNS = Number(process.env.UNZEL_BENCH_RUNS ?? 28);

const HOSTILE_FILES = Number(process.env.UNZEL_BENCH_FILES ?? 10_000);

const WATCHED_MACHINES = Number(process.env.UNZEL_BENCH_MACHINES ?? 200);

const say = (what: string, figure: string) => console.log(`${what.padEnd(72)} ${figure}`);
const timed = (run: () => void): number => {
  const start = performance.now();
  run();
  return (performance.now() - start) / 1000;
};
const median = (values: number[]) => values.toSorted((a, b) => a - b)[values.length >> 1];

/** A minute of stereo tone measured as a file is: blocks in, then speed and flutter of both channels. */
function measureSpeed(rateHz: number, blockFrames: number, seconds: number): number {
  const second = Array.from({ length: 2 }, () => fmTone(1, rateHz, 3150, [{ rateHz: 4, peak: 0.001 }]));
  return timed(() => {
    const meter = new TransportMeter(rateHz, 2, 3150);
    for (let s = 0; s < seconds; s++)
      for (let at = 0; at < rateHz; at += blockFrames)
        meter.push(second.map((channel) => channel.slice(at, at + blockFrames)));
    for (const channel of [0, 1]) {
      meter.speed(channel);
      meter.flutter(channel);
    }
  });
}

measureSpeed(48000, 32768, 20); // warm-up
for (const rateHz of [48000, 96000]) {
  const seconds = 60;
  const times = [1, 2, 3, 4, 5].map(() => measureSpeed(rateHz, 32768, seconds));
  say(
    `speed and flutter, stereo ${rateHz} Hz: seconds of sound per second`,
    (seconds / median(times)).toFixed(0),
  );
}

const grown = process.memoryUsage().rss;
measureSpeed(96000, 32768, 600);
say(
  "ten minutes, stereo 96 kHz: memory grown by, MiB",
  ((process.memoryUsage().rss - grown) / 2 ** 20).toFixed(0),
);
say("  whole process, MiB", (process.memoryUsage().rss / 2 ** 20).toFixed(0));

const deckOptions = {
  parameters: practiceMachine("ellesby-c-1r").transport,
  toneHz: 3150,
  sampleRateHz: 48000,
};
const deck = new PracticeDeck(deckOptions);
deck.render(48000);
say("practice machine: seconds of sound per second", (20 / timed(() => deck.render(20 * 48000))).toFixed(0));

const live = new LiveTransport(48000, 2, 3150);
const results: number[] = [];
for (let i = 0; i < 400; i++) {
  const block = deck.render(4800);
  const took = timed(() => {
    live.push(block);
    live.result(true);
  });
  if (i > 250) results.push(1000 * took);
}
say("live: a tenth of a second of sound to a result with flutter, ms, median", median(results).toFixed(1));
say("  the slowest of 150", Math.max(...results).toFixed(1));

const clean = new TransportMeter(48000, 1, 3150);
clean.push([fmTone(10, 48000, 3150 * 0.9838)]);
const cleanSpeed = clean.speed(0).result!;
say(
  "clean tone 1.62 % slow, 10 s: error, ppm",
  (1e4 * Math.abs(cleanSpeed.errorPercent + 1.62)).toExponential(1),
);
say(
  "  residual unweighted peak flutter, %",
  clean.flutter(0).result!.unweighted.peakPercent.toExponential(1),
);

const n = 5 * 48000;
const eta = 0.25 / (2 * 0.005 ** 2);
const bound = (Math.sqrt(12 / (eta * n * (n * n - 1))) * 48000) / (2 * Math.PI);
const errors = Array.from({ length: 30 }, (_, seed) => {
  const meter = new TransportMeter(48000, 1, 3150);
  meter.push([sumOf(fmTone(5, 48000, 3200), whiteNoise(n, 0.005, seed + 1))]);
  return meter.speed(0).result!.frequencyHz - 3200;
});
say(
  "noise, 37 dB, 5 s: RMS error over the Cramér-Rao bound",
  (Math.hypot(...errors) / Math.sqrt(30) / bound).toFixed(2),
);

const rateHz = 2000;
for (const rate of [0.3, 0.4, 1, 4, 10, 63, 150]) {
  const deviation = Float64Array.from(
    { length: 40000 },
    (_, i) => 0.01 * Math.sin((2 * Math.PI * rate * i) / rateHz),
  );
  const { unweighted } = flutterOf({ deviation, rateHz });
  say(
    `±1 % at ${rate} Hz, unweighted: peak, RMS, average over truth`,
    [unweighted.peakPercent, unweighted.rmsPercent * Math.SQRT2, unweighted.averagePercent * Math.SQRT2]
      .map((v) => v.toFixed(3))
      .join(", "),
  );
}
say(
  "speed of a 10 s stretch, ms",
  (1000 * timed(() => speedOf({ deviation: new Float64Array(20000), rateHz }))).toFixed(1),
);

const ladder = BUILT_IN_TAPES.find(({ id }) => id === "azimuth-cassette")!;
const player = new PracticeDeck({ ...deckOptions, tape: practiceTape(ladder) });
player.press("play");
const played = Array.from({ length: 80 }, () => player.render(48000));
const recogniser = new ProgrammeRecogniser(48000, 2, { marks: false });
const heardIn = timed(() => {
  for (const block of played) recogniser.push(block);
  recogniser.finish();
});
say("hearing bands, stereo 48 kHz: seconds of sound per second", (80 / heardIn).toFixed(0));
say(
  "  telling which of the tape's bands they are, 80 s, ms",
  (1000 * timed(() => recogniser.recognise(programmeOfTape(ladder)))).toFixed(0),
);

const listening = new LiveListening({
  sampleRateHz: 48000,
  channelCount: 2,
  tape: ladder,
  speedFactor: 1,
  nominalHz: 3150,
  evidenceSeconds: 30,
});
const listenedIn = timed(() => {
  for (const [left, right] of played)
    for (let at = 0; at < 48000; at += 4800) {
      listening.push([left.slice(at, at + 4800), right.slice(at, at + 4800)]);
      listening.result(true);
    }
});
say(
  "everything live at once, with flutter: ms for each second of sound",
  ((1000 * listenedIn) / 80).toFixed(0),
);

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
say("law of a bias screw from five places, ms", (1000 * timed(() => biasLaws(biasPlaces, tones))).toFixed(0));

const needed = biasTurns(200);
say(
  "bias by the card, 200 random machines: within the class after a trial turn and at most three more",
  `${needed.filter((turns) => turns !== null && turns <= 4).length} of 200`,
);

const parts = practiceParts(practiceMachine("ellesby-c-1r").transport);
for (const seconds of [60, 1800]) {
  const heard = flutterOfParts(seconds, [wave(0.1, 6.06), bump(0.3, 3.311)], 5e-5);
  say(
    `naming the parts in ${seconds} s of deviation, ms`,
    (1000 * timed(() => findParts(heard, parts, 4.76))).toFixed(0),
  );
}
const music = pluckedNotes(5, 60);
const [copy, original] = [1.03, 1].map((ratio) => {
  const sound = new MatchSound(16000);
  sound.push([Float64Array.from({ length: 50 * 16000 }, (_, i) => music((ratio * i) / 16000))]);
  return sound;
});
let matched = matchRecordings(copy, original);
say(
  "comparing 50 s of music with another copy, ms",
  (1000 * timed(() => (matched = matchRecordings(copy, original)))).toFixed(0),
);
say("  speed found where it is 3 %", `${matched.speedErrorPercent?.toFixed(4)} %`);
const log = new WatchLog(0);
for (let t = 0; t < 3600; t += 0.1)
  log.add(t, { speedPercent: 0.123456, flutterPercent: 0.054321, levelDb: -12.34567 });
say("an hour watched: steps kept", String(log.snapshot.speedPercent.length));
say("  stored, kB", (JSON.stringify(log.snapshot).length / 1000).toFixed(0));

const DELAY_SECONDS = -1.873e-4;
const rungs = [1000, 3150, 8000, 10000].map((frequencyHz, i) => {
  const flutter = [[0.3, 5]] as const;
  const sound = pairTone({
    frequencyHz,
    seconds: 10,
    delaySeconds: DELAY_SECONDS,
    flutter,
    snrDb: 40,
    seed: i + 1,
  });
  const meter = new TonePairMeter(48000, 2, frequencyHz);
  const seconds = timed(() => meter.push(sound));
  return { ...meter.result()!, seconds };
});
const [rung] = rungs.slice(-1);
const phaseOff = rung.pair!.phaseDegrees - 360 * 10000 * DELAY_SECONDS;
say(
  "phase at 10 kHz, 40 dB over noise, 0.3 % flutter: error, degrees",
  Math.abs(phaseOff - 360 * Math.round(phaseOff / 360)).toFixed(4),
);
say("  level there: error, dB", Math.abs(rung.channels[0].levelDbfs + 12).toFixed(4));
say("  seconds of two channels measured in a second", (10 / rung.seconds).toFixed(0));
const ladderFound = azimuthOf(
  rungs.map(({ frequencyHz, pair }) => ({ frequencyHz, ...pair! })),
  { spacingMm: 0.9, speedCmPerS: 4.76 },
);
say(
  "delay of nearly two cycles at 10 kHz: error, µs",
  (1e6 * Math.abs(ladderFound.delaySeconds! - DELAY_SECONDS)).toFixed(4),
);
const swept = sweepSound({ flutter: [[0.3, 5]], humDbfs: -50 });
const place = { startSeconds: SWEEP_START_SECONDS, speedRatio: 1 };
let along = sweepLevels([swept, swept], 48000, SWEEP, place);
say(
  "response along a sweep of 20 s, two channels, ms",
  (1000 * timed(() => (along = sweepLevels([swept, swept], 48000, SWEEP, place)))).toFixed(0),
);
const sweepOff = along[0].map(({ frequencyHz, levelDb }) => Math.abs(levelDb - lossDb(frequencyHz) + 20));
say("  0.3 % flutter, hum 30 dB down: largest error, dB", Math.max(...sweepOff).toFixed(3));
const hiss = whiteNoise(30 * 48000, 0.05, 3);
say(
  "  30 s of noise by bands, two channels, ms",
  (1000 * timed(() => noiseLevels([hiss, hiss], 48000))).toFixed(0),
);

const curve = [40, 63, 125, 250, 500, 1000, 2000, 4000, 6300, 8000, 10000, 12500].map((frequencyHz, i) => ({
  frequencyHz,
  levelDb: (-54.6 * 1.2 * frequencyHz) / 47_600 + 0.2 * Math.sin(7 * i),
}));
const equalisation = { t1Microseconds: 3180, t2Microseconds: 120 };
let diagnosed = explainResponse(curve, { speedCmPerS: 4.76, equalisation });
say(
  "explaining a response of twelve points, ms",
  (1000 * timed(() => (diagnosed = explainResponse(curve, { speedCmPerS: 4.76, equalisation })))).toFixed(0),
);
const [likeliest] = diagnosed.explanations;
say(
  "  1.2 µm of dirt is taken for",
  `${likeliest.cause}, ${likeliest.parameters.spacingMicrometres?.toFixed(2)} µm, probability ${likeliest.probability.toFixed(2)}`,
);

const watched = [...biasWatched(WATCHED_MACHINES)];
say(
  `bias watched off the tape, ${WATCHED_MACHINES} random machines: within the class after a trial turn and at most three more`,
  `${watched.filter((turns) => turns !== null).length} of ${WATCHED_MACHINES}`,
);
for (const [name, seconds, { turns, work, verdicts, inClass }] of recordFaultRuns(BENCH_RUNS))
  say(
    `record faults, following the screens: ${name}`,
    `${turns} turns on two tapes${work.length > 0 ? `, ${work.join(", ")}` : ""}; ${inClass ? "all within the class" : `NOT within: ${JSON.stringify(verdicts)}`} (${seconds.toFixed(0)} s)`,
  );
for (const { name, followed, good } of restFaultRuns(BENCH_RUNS))
  say(
    `faults of the rest of a recorder, following the screens: ${name}`,
    `${followed.work.join(", ") || "nothing done"}; ${good ? "cured, nothing sound accused" : `NOT cured: ${JSON.stringify(followed)}`}`,
  );
for (const [name, seconds, run] of playbackFaultRuns(BENCH_RUNS)) {
  const { turns, work, verdicts } = run;
  const all = [...verdicts.azimuth, ...verdicts.level, ...verdicts.response];
  const complete = verdicts.azimuth.length > 0 && verdicts.level.length > 0 && verdicts.response.length > 0;
  const inClass = complete && all.every((verdict) => verdict === "pass");
  say(
    `playback faults, following the screens: ${name}`,
    `${turns} turns${work.length > 0 ? `, ${work.join(", ")}` : ""}; ${inClass ? "all within the class" : `NOT within: ${JSON.stringify(verdicts)}`} (${seconds.toFixed(0)} s)`,
  );
}
for await (const { name, faults, slowestSeconds, megabytes } of hostileFiles(HOSTILE_FILES))
  say(
    `${HOSTILE_FILES} damaged or hostile files: ${name}`,
    `${faults.length} met badly${faults.length > 0 ? ` (${faults[0]})` : ""}, the slowest in ${slowestSeconds.toFixed(2)} s, ${megabytes.toFixed(0)} MB in all`,
  );
