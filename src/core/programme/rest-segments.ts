import { powerDb as db } from "@/core/dsp/decibels";
import type { HeardSegment } from "./heard-segment";
import { isHum, type HumLines } from "./hum-lines";
import { LINES_PER_FRAME, OCTAVES_FROM_HZ, sumOf as sum, type ToneFrames } from "./tone-frames";

const SILENCE_BELOW_LOUDEST_DB = 30;
const SHORTEST_NOISE_SECONDS = 1;
const NOISE_SCATTER_DB = 2.5;

/** Noise and silence in what the tones leave over, half a second at a time. */
export function restSegments(frames: ToneFrames, tones: HeardSegment[], hum: HumLines): HeardSegment[] {
  const power = besideHum(frames, hum);
  const size = Math.round(0.5 / frames.secondsPerFrame);
  const loudest = Math.max(-60, ...tones.map(({ leftDb, rightDb }) => Math.max(leftDb, rightDb)));
  const found: HeardSegment[] = [];
  const taken = (seconds: number) =>
    tones.some((tone) => seconds > tone.startSeconds - 0.1 && seconds < tone.endSeconds + 0.1);
  let at = 0;
  while (at + size <= frames.length) {
    if (taken(frames.secondsOf(at)) || taken(frames.secondsOf(at + size))) {
      at++;
      continue;
    }
    const kind = kindOfRest(frames, power, at, size, loudest);
    if (kind === null) {
      at += size >> 1;
      continue;
    }
    let end = at + size;
    while (
      end + size <= frames.length &&
      !taken(frames.secondsOf(end + size)) &&
      kindOfRest(frames, power, end, size, loudest) === kind &&
      Math.abs(meanDb(power, end, size) - meanDb(power, at, size)) < 4
    )
      end += size;
    const segment = restOf(kind, frames, power, at, end);
    if (segment.endSeconds - segment.startSeconds >= SHORTEST_NOISE_SECONDS) found.push(segment);
    at = end;
  }
  return found;
}

type PowerAt = (frame: number) => { left: number; right: number };

/** Power of a frame on each channel without the hum in it. */
function besideHum(frames: ToneFrames, hum: HumLines): PowerAt {
  return (frame) => {
    const rest = frames.power(frame);
    const all = sum(rest);
    for (let line = 0; line < LINES_PER_FRAME; line++)
      if (isHum(frames.hz(frame, line), frames.linePower(frame, line), hum)) {
        const { left, right } = frames.peak(frame, line);
        rest.left -= left;
        rest.right -= right;
      }
    // the windows of hum and whole are not the same: never more exact than a hundredth
    const floor = all / 200;
    return { left: Math.max(floor, rest.left), right: Math.max(floor, rest.right) };
  };
}

function meanPower(power: PowerAt, from: number, count: number): { left: number; right: number } {
  const total = { left: 0, right: 0 };
  for (let i = from; i < from + count; i++) {
    const { left, right } = power(i);
    total.left += left / count;
    total.right += right / count;
  }
  return total;
}

const meanDb = (power: PowerAt, from: number, count: number) => db(sum(meanPower(power, from, count)));

function kindOfRest(
  frames: ToneFrames,
  power: PowerAt,
  from: number,
  count: number,
  loudestDb: number,
): "noise" | "silence" | null {
  if (meanDb(power, from, count) < loudestDb - SILENCE_BELOW_LOUDEST_DB) return "silence";
  for (let octave = 1; octave < OCTAVES_FROM_HZ.length - 1; octave++) {
    const levels = Array.from({ length: Math.floor(count / 4) }, (_, i) => {
      let total = 0;
      for (let f = 0; f < 4; f++) total += frames.octavePower(from + 4 * i + f, octave);
      return db(total);
    });
    const mean = levels.reduce((a, b) => a + b, 0) / levels.length;
    const scatter = Math.sqrt(levels.reduce((a, level) => a + (level - mean) ** 2, 0) / levels.length);
    if (scatter > NOISE_SCATTER_DB) return null;
    if (mean < meanDb(power, from, count) - 30) return null;
  }
  return "noise";
}

function restOf(
  kind: "noise" | "silence",
  frames: ToneFrames,
  power: PowerAt,
  from: number,
  to: number,
): HeardSegment {
  const mean = meanPower(power, from, to - from);
  const all = sum(mean);
  const at = (frame: number) =>
    frame < 0 || frame >= frames.length ? (kind === "noise" ? 0 : Infinity) : sum(power(frame)) / all;
  const inside = (value: number) => (kind === "noise" ? value > 0.4 && value < 3 : value < 4);
  let [start, end] = [from, to - 1];
  for (let steps = 0; steps < 40 && inside(at(start - 1)); steps++) start--;
  for (let steps = 0; steps < 40 && inside(at(end + 1)); steps++) end++;
  return {
    kind,
    startSeconds: Math.max(0, frames.secondsOf(start)),
    endSeconds: frames.secondsOf(end),
    frequencyHz: 0,
    toFrequencyHz: 0,
    leftDb: db(mean.left),
    rightDb: db(mean.right),
  };
}
