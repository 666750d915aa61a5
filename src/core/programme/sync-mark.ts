/**
 * The mark in front of a segment: a reference tone, four or five short tones that each stand for a digit from 0 to 7,
 * and the reference again. Digits are ratios to the reference, a minor second and more apart, so that neither a wrong
 * tape speed nor flutter touches them; the first names the sequence, two the segment, one the pass where a sequence is
 * gone through several times, the last checks them. All of it lies between 1 and 3 kHz, where every machine plays.
 */
export const REFERENCE_HZ = 1000;
export const REFERENCE_SECONDS = 0.15;
export const DIGIT_SECONDS = 0.09;
/** Digits of a mark without a pass, and with one. */
export const DIGITS = 4;
export const DIGITS_WITH_PASS = 5;
export const RADIX = 8;
const LOWEST_RATIO = 1.25;
export const DIGIT_STEP = 1.13;
/** Mark and the silence after it, the same for both kinds: the fifth digit takes its time from the silence. */
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

/** What a mark says. */
export interface MarkWords {
  /** Which of eight kinds of sequence. */
  sequence: number;
  segment: number;
  /** From 1 to 8; null in a sequence that is gone through once. */
  pass: number | null;
}

export const MOST_PASSES = RADIX;

/** The digits of a mark, the check digit last. */
export function markDigits({ sequence, segment, pass }: MarkWords): number[] {
  const digits = [
    sequence,
    Math.floor(segment / RADIX),
    segment % RADIX,
    ...(pass === null ? [] : [pass - 1]),
  ];
  return [...digits, checkDigit(digits)];
}

/** What digits say; null when the last does not check the others. */
export function markWords(digits: readonly number[]): MarkWords | null {
  if (digits.at(-1) !== checkDigit(digits.slice(0, -1))) return null;
  const [sequence, high, low, pass] = digits;
  return {
    sequence,
    segment: RADIX * high + low,
    pass: digits.length === DIGITS_WITH_PASS ? pass + 1 : null,
  };
}

const WEIGHTS = [3, 5, 7, 3];

/** Any single digit that is wrong, and most pairs that changed places, are noticed. */
const checkDigit = (digits: readonly number[]): number =>
  digits.reduce((sum, digit, i) => sum + WEIGHTS[i] * digit, 2) % RADIX;

/** The tones of a mark. */
export function markSlots(words: MarkWords): Slot[] {
  const slots: Slot[] = [{ startSeconds: 0, seconds: REFERENCE_SECONDS, frequencyHz: REFERENCE_HZ }];
  const then = (seconds: number, frequencyHz: number) => {
    const last = slots.at(-1)!;
    slots.push({ startSeconds: last.startSeconds + last.seconds, seconds, frequencyHz });
  };
  for (const digit of markDigits(words)) then(DIGIT_SECONDS, REFERENCE_HZ * digitRatio(digit));
  then(REFERENCE_SECONDS, REFERENCE_HZ);
  return slots;
}
