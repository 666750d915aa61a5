import { together, type DropOut } from "./drop-outs";

/** Drop-outs of a steady tone in a channel, and for how long it was heard. */
export interface ChannelDropOuts {
  channel: string;
  events: DropOut[];
  /** Of tone that was heard. */
  seconds: number;
}

/** Drop-outs of a tape put together: how many a minute, of each channel and in both at once. */
export interface DropOutRates {
  perMinute: Array<{ channel: string; perMinute: number }>;
  bothPerMinute: number;
  /** By depth and length, each channel counted by itself. */
  table: Array<{ depth: string; counts: number[] }>;
}

export const LENGTHS: ReadonlyArray<{ says: string; upTo: number }> = [
  { says: "under 10 ms", upTo: 0.01 },
  { says: "10 to 50 ms", upTo: 0.05 },
  { says: "over 50 ms", upTo: Infinity },
];
const DEPTHS: ReadonlyArray<{ says: string; upTo: number }> = [
  { says: "6 to 10 dB", upTo: 10 },
  { says: "10 to 20 dB", upTo: 20 },
  { says: "over 20 dB", upTo: Infinity },
];

/** @returns null where a channel was not heard, or none was */
export function dropOutRates(heard: readonly ChannelDropOuts[]): DropOutRates | null {
  if (heard.length === 0 || heard.some(({ seconds }) => seconds <= 0)) return null;
  const rate = (count: number, seconds: number) => (60 * count) / seconds;
  const all = heard.flatMap(({ events }) => events);
  const inBand = (value: number, bands: typeof LENGTHS) => bands.findIndex(({ upTo }) => value < upTo);
  return {
    perMinute: heard.map(({ channel, events, seconds }) => ({
      channel,
      perMinute: rate(events.length, seconds),
    })),
    bothPerMinute: heard.length < 2 ? 0 : rate(together(heard[0].events, heard[1].events), heard[0].seconds),
    table: DEPTHS.map(({ says }, d) => ({
      depth: says,
      counts: LENGTHS.map(
        (_, l) =>
          all.filter(
            ({ depthDb, seconds }) => inBand(depthDb, DEPTHS) === d && inBand(seconds, LENGTHS) === l,
          ).length,
      ),
    })),
  };
}

/** The same place of a tape, played twice. */
const SAME_PLACE_SECONDS = 0.03;
const FEWEST_TOLD = 3;

/**
 * Whose the flicker is, from two goes at the same stretch of tape: what comes back at the same places is the tape's own,
 * what comes elsewhere is the machine's. Null where there are too few to tell.
 */
export function whoseFlicker(
  once: readonly DropOut[],
  again: readonly DropOut[],
): { whose: "the tape's" | "the machine's" | "both"; same: number; of: number } | null {
  const of = Math.max(once.length, again.length);
  if (of < FEWEST_TOLD) return null;
  const same = once.filter((a) =>
    again.some((b) => Math.abs(a.atSeconds - b.atSeconds) < SAME_PLACE_SECONDS),
  ).length;
  const share = same / of;
  return { whose: share > 0.7 ? "the tape's" : share < 0.3 ? "the machine's" : "both", same, of };
}
