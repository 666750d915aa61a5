import { powerDb } from "@/core/dsp/decibels";
import type { SweepShape } from "@/core/measure/sweep-levels";
import type { HeardSegment } from "./heard-segment";
import { LINES_PER_FRAME, type ToneFrames } from "./tone-frames";

const SPEEDS = Array.from({ length: 31 }, (_, i) => 1 + (i - 15) / 200);
const BIN_SECONDS = 0.1;
/** Share of the sweep's frames that must lie on its line. */
const ENOUGH = 0.3;
const NEAR_SECONDS = 0.25;

/**
 * Looks for a sweep of known shape: on its straight line of log frequency against time every moment points to the
 * same start, for one tape speed within ±7.5 %. Null when too few moments agree.
 */
export function findSweep(
  frames: ToneFrames,
  { frequencyHz, toFrequencyHz, seconds }: SweepShape,
  isHum: (hz: number, power: number) => boolean,
): HeardSegment | null {
  const octavesPerSecond = Math.log2(toFrequencyHz / frequencyHz) / seconds;
  const moments: Array<{ frame: number; at: number; octave: number }> = [];
  for (let frame = 0; frame < frames.length; frame++) {
    let [hz, strongest] = [0, 0];
    for (let line = 0; line < LINES_PER_FRAME; line++) {
      const power = frames.linePower(frame, line);
      if (power > strongest && !isHum(frames.hz(frame, line), power))
        [hz, strongest] = [frames.hz(frame, line), power];
    }
    if (hz > 0) moments.push({ frame, at: frames.secondsOf(frame), octave: Math.log2(hz / frequencyHz) });
  }
  let best = { count: 0, speed: 1, start: 0 };
  for (const speed of SPEEDS) {
    const counts = new Map<number, number>();
    for (const { at, octave } of moments) {
      const start = at - (octave - Math.log2(speed)) / (octavesPerSecond * speed);
      const bin = Math.round(start / BIN_SECONDS);
      const count = (counts.get(bin) ?? 0) + 1;
      counts.set(bin, count);
      if (count > best.count) best = { count, speed, start: bin * BIN_SECONDS };
    }
  }
  const onLine = moments.filter(({ at, octave }) => {
    const start = at - (octave - Math.log2(best.speed)) / (octavesPerSecond * best.speed);
    return (
      Math.abs(start - best.start) < NEAR_SECONDS &&
      at > best.start - NEAR_SECONDS &&
      at < best.start + seconds / best.speed + NEAR_SECONDS
    );
  });
  const expected = seconds / best.speed / frames.secondsPerFrame;
  if (onLine.length < ENOUGH * expected) return null;

  // the line through those moments says more exactly when it began, and how fast the tape ran
  const mean = (of: (moment: (typeof moments)[number]) => number) =>
    onLine.reduce((total, moment) => total + of(moment), 0) / onLine.length;
  const [middle, height] = [mean(({ at }) => at), mean(({ octave }) => octave)];
  const slope =
    mean(({ at, octave }) => (at - middle) * (octave - height)) / mean(({ at }) => (at - middle) ** 2);
  const speed = slope / octavesPerSecond;
  if (Math.abs(speed - 1) > 0.09) return null;
  const begins = middle - (height - Math.log2(speed)) / slope;
  const ends = begins + seconds / speed;
  const startSeconds = Math.max(begins, onLine[0].at - 0.1, 0);
  const endSeconds = Math.min(ends, onLine.at(-1)!.at + 0.1);
  const levels = (side: "left" | "right") => {
    const powers = onLine.map(({ frame }) => frames.power(frame)[side]).sort((a, b) => a - b);
    return powerDb(powers[powers.length >> 1]);
  };
  return {
    kind: "sweep",
    beginsSeconds: begins,
    startSeconds,
    endSeconds,
    frequencyHz: frequencyHz * speed,
    toFrequencyHz: toFrequencyHz * speed,
    leftDb: levels("left"),
    rightDb: levels("right"),
  };
}
