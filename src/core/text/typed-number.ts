/** Units and signs that people put around a number, as Unzel itself prints them. */
const UNIT = /(?:cm\/s|\/min|nWb\/m|dBFS|dBu|dBm?|kHz|Hz|mH|pF|k?Ω|µs|µm|mm|min|cents?|°|′|%|s|m)$/i;

/**
 * What was typed, or copied from a screen of Unzel, as a number: comma or point, a true minus or a hyphen, a plus, thin
 * spaces, a unit behind it. NaN for everything else, and for nothing.
 */
export function typedNumber(text: string): number {
  const plain = text
    .replace(/[\s\u2009\u202f\u00a0]/g, "")
    .replace(/[−–]/g, "-")
    .replace(UNIT, "")
    .replace(",", ".");
  return /^[+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?$/i.test(plain) ? Number(plain) : NaN;
}

/** The same, undefined for a field that was left empty. */
export const typedOrNothing = (text: string | undefined): number | undefined =>
  text === undefined || text.trim() === "" ? undefined : typedNumber(text);

/** Every text of a form as a number. */
export const typedNumbers = <Key extends string>(form: Record<Key, string>): Record<Key, number> =>
  Object.fromEntries(Object.entries<string>(form).map(([key, text]) => [key, typedNumber(text)])) as Record<
    Key,
    number
  >;
