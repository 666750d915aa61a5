import { begunKernel, NUMBER_BYTES, numbersIn } from "./begun-kernel";
import { besselI0 } from "./kaiser-lowpass";
import { SINC_KERNEL } from "./sinc-kernel";
import type { Samples } from "./signal";

const TAPS = 32;
const PHASES = 512;
const BETA = 10;
const CUTOFF = 0.9;

/**
 * Values between equally spaced samples by a Kaiser-windowed sinc of 32 taps: what lies below a third
 * of the sample rate comes through within 0.01 dB, images and interpolation noise stay 95 dB down. `read(g)` gives sample g.
 */
export function interpolate(read: (index: number) => number, at: number): number {
  const first = Math.floor(at) - TAPS / 2 + 1;
  for (let j = 0; j < TAPS; j++) around[j] = read(first + j);
  return interpolateIn(around, at - first);
}

const around = new Float64Array(TAPS);

/**
 * The same for samples that all lie in one array: both rows of taps that the place lies between, and then what lies between
 * their sums. Sums that do not wait for one another are twice as fast.
 */
export function interpolateIn(samples: Samples, at: number): number {
  const whole = Math.floor(at);
  const position = (at - whole) * PHASES;
  const phase = Math.floor(position);
  const low = phase * TAPS;
  const high = low + TAPS;
  const first = whole - TAPS / 2 + 1;
  let [a, b, c, d] = [0, 0, 0, 0];
  let [e, f, g, h] = [0, 0, 0, 0];
  for (let j = 0; j < TAPS; j += 4) {
    const p = samples[first + j];
    const q = samples[first + j + 1];
    const r = samples[first + j + 2];
    const s = samples[first + j + 3];
    a += table[low + j] * p;
    b += table[low + j + 1] * q;
    c += table[low + j + 2] * r;
    d += table[low + j + 3] * s;
    e += table[high + j] * p;
    f += table[high + j + 1] * q;
    g += table[high + j + 2] * r;
    h += table[high + j + 3] * s;
  }
  const lower = a + b + (c + d);
  return lower + (position - phase) * (e + f + (g + h) - lower);
}

/** Samples that must exist after the place that is read. */
export const INTERPOLATOR_REACH = TAPS / 2;

interface Kernel {
  between(samples: number, rows: number, at: number, count: number, out: number): void;
}
const kernel = begunKernel<Kernel>(SINC_KERNEL);

/**
 * The same at many places of one array, all of them at least `INTERPOLATOR_REACH` within it.
 * @param at counted in samples, in any order, not far from one another
 * @param out as long as `at`
 */
export function interpolateMany(samples: Samples, at: Float64Array, out: Float64Array): void {
  if (at.length === 0) return;
  let [lowest, highest] = [at[0], at[0]];
  for (const place of at) {
    if (place < lowest) lowest = place;
    if (place > highest) highest = place;
  }
  const first = Math.floor(lowest) - TAPS / 2 + 1;
  const length = Math.floor(highest) + TAPS / 2 + 1 - first;
  const { memory, between } = kernel();
  // one after the other: taps, samples, places, what comes out
  const x = table.length;
  const places = x + length;
  const results = places + at.length;
  const numbers = numbersIn(memory, results + at.length);
  // memory that grows keeps what is in it
  if (!hasTable) numbers.set(table);
  hasTable = true;
  const there = samples.subarray(first, first + length);
  numbers.set(there, x);
  // what an earlier call left behind is nobody's sound
  numbers.fill(0, x + there.length, x + length);
  for (let i = 0; i < at.length; i++) numbers[places + i] = at[i] - first;
  between(x * NUMBER_BYTES, 0, places * NUMBER_BYTES, at.length, results * NUMBER_BYTES);
  out.set(numbers.subarray(results, results + at.length));
}

const table = rowsOfTaps();
let hasTable = false;

function rowsOfTaps(): Float64Array {
  const rows = new Float64Array((PHASES + 1) * TAPS);
  for (let p = 0; p <= PHASES; p++) {
    let sum = 0;
    for (let j = 0; j < TAPS; j++) {
      const x = j - TAPS / 2 + 1 - p / PHASES;
      const edge = 1 - (x / (TAPS / 2)) ** 2;
      const window = edge <= 0 ? 0 : besselI0(BETA * Math.sqrt(edge)) / besselI0(BETA);
      const angle = Math.PI * CUTOFF * x;
      rows[p * TAPS + j] = window * CUTOFF * (angle === 0 ? 1 : Math.sin(angle) / angle);
      sum += rows[p * TAPS + j];
    }
    for (let j = 0; j < TAPS; j++) rows[p * TAPS + j] /= sum;
  }
  return rows;
}
