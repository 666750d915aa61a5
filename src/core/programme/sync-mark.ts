/**
 * The mark in front of a segment: a reference tone, four short tones that each stand for a digit from 0 to 7, and
 * the reference again. Digits are ratios to the reference, a minor second and more apart, so that neither a wrong
 * tape speed nor flutter touches them; the first names the sequence, two the segment, the last checks them. All of
 * it lies between 1 and 3 kHz, where every machine plays.
 */
export const REFERENCE_HZ = 1000;
export const REFERENCE_SECONDS = 0.15;
export const DIGIT_SECONDS = 0.09;
export const DIGITS = 4;
export const RADIX = 8;
const LOWEST_RATIO = 1.25;
export const DIGIT_STEP = 1.13;
/** Mark and the silence after it. */
export const MARK_SECONDS = 2 * REFERENCE_SECONDS + DIGITS * DIGIT_SECONDS + 0.14;

export interface Slot {
  startSeconds: number;
  seconds: number;
  frequencyHz: number;
}

export const digitRatio = (digit: number): number => LOWEST_RATIO * DIGIT_STEP ** digit;

/** The digit that a ratio to the reference stands for, with how far off it lies in steps. */
export function digitOf(ratio: number): { digit: number; off: number } {
  const steps = Math.log(ratio / LOWEST_RATIO) / Math.log(DIGIT_STEP);
  const digit = Math.round(steps) + 0; // never −0
  return { digit, off: Math.abs(steps - digit) };
}

export const checkDigit = (sequence: number, high: number, low: number): number =>
  (3 * sequence + 5 * high + 7 * low + 2) % RADIX;

/** The tones of the mark in front of segment `index` of a sequence whose digit is `sequence`. */
export function markSlots(sequence: number, index: number): Slot[] {
  const high = Math.floor(index / RADIX);
  const low = index % RADIX;
  const digits = [sequence, high, low, checkDigit(sequence, high, low)];
  const slots: Slot[] = [{ startSeconds: 0, seconds: REFERENCE_SECONDS, frequencyHz: REFERENCE_HZ }];
  for (const digit of digits) {
    const { startSeconds, seconds } = slots.at(-1)!;
    slots.push({
      startSeconds: startSeconds + seconds,
      seconds: DIGIT_SECONDS,
      frequencyHz: REFERENCE_HZ * digitRatio(digit),
    });
  }
  slots.push({
    startSeconds: REFERENCE_SECONDS + DIGITS * DIGIT_SECONDS,
    seconds: REFERENCE_SECONDS,
    frequencyHz: REFERENCE_HZ,
  });
  return slots;
}
