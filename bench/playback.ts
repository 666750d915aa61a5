import { explainResponse } from "@/core/advice/response-doctor";
import { azimuthOf } from "@/core/measure/azimuth";
import { noiseLevels } from "@/core/measure/noise-levels";
import { sweepLevels } from "@/core/measure/sweep-levels";
import { TonePairMeter } from "@/core/measure/tone-pair";
import { whiteNoise } from "@/testing/fm-tone";
import { pairTone } from "@/testing/pair-tone";
import { lossDb, SWEEP, SWEEP_START_SECONDS, sweepSound } from "@/testing/sweep-sound";
import { say, timed } from "./say";

/** Azimuth, level and response. */
export function playbackFigures(): void {
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
    (1000 * timed(() => (diagnosed = explainResponse(curve, { speedCmPerS: 4.76, equalisation })))).toFixed(
      0,
    ),
  );
  const [likeliest] = diagnosed.explanations;
  say(
    "  1.2 µm of dirt is taken for",
    `${likeliest.cause}, ${likeliest.parameters.spacingMicrometres?.toFixed(2)} µm, probability ${likeliest.probability.toFixed(2)}`,
  );
}
