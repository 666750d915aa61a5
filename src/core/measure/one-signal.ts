import type { Samples } from "@/core/dsp/signal";

/** Two tracks of a tape differ in their noise by far more, share of power. */
const MOST_DIFFERENCE = 1e-7;

/**
 * Whether two channels are one signal, at whatever levels: what of one is left when as much as fits of the other is taken
 * away. Of the second difference, in which hiss weighs more than tones. Two that are both silent are not one signal.
 */
export function isOneSignal(left: Samples, right: Samples): boolean {
  let [ll, rr, lr] = [0, 0, 0];
  for (let i = 2; i < left.length; i++) {
    const l = left[i] - 2 * left[i - 1] + left[i - 2];
    const r = right[i] - 2 * right[i - 1] + right[i - 2];
    ll += l * l;
    rr += r * r;
    lr += l * r;
  }
  return ll > 0 && rr > 0 && 1 - (lr * lr) / (ll * rr) < MOST_DIFFERENCE;
}
