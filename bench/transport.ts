import { median } from "@/core/dsp/quantile";
import { findParts } from "@/core/advice/find-parts";
import { flutterOf } from "@/core/measure/flutter";
import { LiveTransport } from "@/core/measure/live-transport";
import { speedOf } from "@/core/measure/speed";
import { TransportMeter } from "@/core/measure/transport-meter";
import { WatchLog } from "@/core/measure/watch-log";
import { practiceParts } from "@/core/practice/practice-parts";
import { PracticeDeck } from "@/core/simulator/practice-deck";
import { practiceMachine } from "@/core/simulator/practice-machines";
import { fmTone, sumOf, whiteNoise } from "@/testing/fm-tone";
import { bump, flutterOfParts, wave } from "@/testing/part-flutter";
import { PRACTICE } from "./practice";
import { say, timed } from "./say";

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

/** Speed and flutter: how fast, and how near to the truth. */
export function transportFigures(): void {
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

  const deck = new PracticeDeck(PRACTICE);
  deck.render(48000);
  say(
    "practice machine: seconds of sound per second",
    (20 / timed(() => deck.render(20 * 48000))).toFixed(0),
  );

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

  const parts = practiceParts(practiceMachine("ellesby-c-1r").transport);
  for (const seconds of [60, 1800]) {
    const heard = flutterOfParts(seconds, [wave(0.1, 6.06), bump(0.3, 3.311)], 5e-5);
    say(
      `naming the parts in ${seconds} s of deviation, ms`,
      (1000 * timed(() => findParts(heard, parts, 4.76))).toFixed(0),
    );
  }

  const log = new WatchLog(0);
  for (let t = 0; t < 3600; t += 0.1)
    log.add(t, { speedPercent: 0.123456, flutterPercent: 0.054321, levelDb: -12.34567 });
  say("an hour watched: steps kept", String(log.snapshot.speedPercent.length));
  say("  stored, kB", (JSON.stringify(log.snapshot).length / 1000).toFixed(0));
}
