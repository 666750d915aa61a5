import { powerOf } from "@/core/dsp/decibels";
import { LINES_PER_FRAME, type ToneFrames } from "./tone-frames";

const MAINS = [50, 60];
const MAINS_TOLERANCE = 0.006;
/** Hum swells and sinks by so much; what is stronger is something else. */
const HUM_MARGIN = powerOf(5);
/** A line at a mains frequency that sounds beside another in so many frames is hum. */
const HUM_FRAMES = 12;

/** The harmonic of the mains, up to the eighth, that a frequency can be; null when it is none. */
const mainsOf = (hz: number): number | null => {
  for (const mains of MAINS) {
    const harmonic = Math.round(hz / mains);
    const place = harmonic * mains;
    if (harmonic >= 1 && harmonic <= 8 && Math.abs(hz - place) < Math.max(0.6, MAINS_TOLERANCE * place))
      return place;
  }
  return null;
};

/** Usual power of each mains line of a recording, by its frequency. */
export type HumLines = Map<number, number>;

/** The mains lines that sound beside something stronger: bands play one tone at a time, so the other is hum. */
export function humLines(frames: ToneFrames): HumLines {
  const beside = new Map<number, number[]>();
  for (let frame = 0; frame < frames.length; frame++)
    for (let line = 0; line < LINES_PER_FRAME; line++) {
      const hz = frames.hz(frame, line);
      const place = mainsOf(hz);
      if (place === null) continue;
      const power = frames.linePower(frame, line);
      if (!strongerBeside(frames, frame, hz, power)) continue;
      const powers = beside.get(place);
      if (powers) powers.push(power);
      else beside.set(place, [power]);
    }
  return new Map(
    [...beside]
      .filter(([, powers]) => powers.length >= HUM_FRAMES)
      .map(([place, powers]) => [place, powers.sort((a, b) => a - b)[powers.length >> 1]]),
  );
}

function strongerBeside(frames: ToneFrames, frame: number, hz: number, power: number): boolean {
  for (let line = 0; line < LINES_PER_FRAME; line++) {
    const other = frames.hz(frame, line);
    if (
      frames.linePower(frame, line) > 4 * power &&
      Math.abs(other / hz - 1) > 0.04 &&
      mainsOf(other) === null
    )
      return true;
  }
  return false;
}

/** Whether a line of that power is no more than the hum that is always there. */
export function isHum(hz: number, power: number, hum: HumLines): boolean {
  if (hum.size === 0) return false;
  const place = mainsOf(hz);
  const usual = place === null ? undefined : hum.get(place);
  return usual !== undefined && power < HUM_MARGIN * usual;
}
