import { sampled } from "./sampled";

const windows = new Map<number, Float64Array>();
/** Who listens uses a few lengths in turn; longer ones than this are used once. */
const MOST_WINDOWS = 8;
const LONGEST_KEPT = 65_536;

/** Hann window of mean 1, kept for the next call of the same length: not to be written to. */
export function hannWindow(length: number): Float64Array {
  const kept = windows.get(length);
  if (kept) return kept;
  const window = sampled(length, (i) => 1 - Math.cos((2 * Math.PI * (i + 0.5)) / length));
  if (windows.size >= MOST_WINDOWS) windows.clear();
  if (length <= LONGEST_KEPT) windows.set(length, window);
  return window;
}
