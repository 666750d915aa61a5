import type { TonePair } from "@/core/measure/tone-pair";

const BLOCK = 5;
/** A tone that was turned moves by more than this between blocks of half a second; weave of the tape by less. */
const LARGEST_PHASE_STEP_DEGREES = 12;
const LARGEST_LEVEL_STEP_DB = 0.4;

/** How many tenths of a second at the end of a tone belong together: what came before was heard at another setting. */
export function steadyFrames({ channels, pair }: TonePair): number {
  const count = channels[0].track.length;
  const last = [Math.max(0, count - 2 * BLOCK), count] as const;
  const level = channels.map(({ track }) => mean(track, ...last));
  const phase = pair && angle(pair.track, ...last);
  const wander = channels.map(({ spreadDb }) => Math.max(LARGEST_LEVEL_STEP_DB, spreadDb));
  let from = last[0];
  for (; from > 0; from -= BLOCK) {
    const block = [Math.max(0, from - BLOCK), from] as const;
    const moved = channels.some(({ track }, c) => Math.abs(mean(track, ...block) - level[c]) > wander[c]);
    const limit = Math.max(LARGEST_PHASE_STEP_DEGREES, pair?.spreadDegrees ?? 0);
    if (moved || (pair && Math.abs(turned(angle(pair.track, ...block) - phase!)) > limit)) break;
  }
  return count - Math.max(0, from);
}

const mean = (x: Float64Array, from: number, to: number): number =>
  x.subarray(from, to).reduce((sum, one) => sum + one, 0) / Math.max(1, to - from);

/** Mean direction of angles in degrees. */
function angle(x: Float64Array, from: number, to: number): number {
  const part = x.subarray(from, to);
  const radians = Math.PI / 180;
  const [sin, cos] = [Math.sin, Math.cos].map((of) => part.reduce((sum, a) => sum + of(a * radians), 0));
  return Math.atan2(sin, cos) / radians;
}

const turned = (degrees: number): number => degrees - 360 * Math.round(degrees / 360);
