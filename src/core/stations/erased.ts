import type { ReturnedNow } from "@/core/returned/heard-pass";
import type { ReturnedChannel } from "@/core/returned/returned";
import { ZERO_DBFS } from "@/core/returned/returned";
import type { Machine } from "@/core/records/machine";
import { channelNames, heardOn } from "./channels";
import type { OnTheBench } from "./on-the-bench";
import { recordedHere, type Recorded } from "./recorded";

/** What a pass of the erase sequence tells of a channel. */
export interface Erased {
  channel: string;
  /** By how much the tone went down; at least that where noise hides what is left. Null where it was not heard. */
  depth: { db: number; uncertaintyDb: number; hidden: boolean } | null;
  /** Level of a tone at 0, dBFS; null where it was not heard. */
  zeroDbfs: number | null;
  /** Noise and hum of the silence re what comes back at 0; null where 0 was not heard, or the silence was too short. */
  noise: { flatDb: number; aDb: number; itu468Db: number } | null;
  /** None where 0 was not heard. */
  hum: Array<{ frequencyHz: number; levelDb: number }>;
  /** What comes across from the other channel, re that; null where no more than chance does, or with one channel. */
  crosstalkDb: number | null;
  crosstalkUncertaintyDb: number;
  /** The same at 10 kHz. */
  crosstalkHighDb: number | null;
  crosstalkHighUncertaintyDb: number;
}

/** Tones of the sequence from here on tell what comes across in the treble. */
const HIGH_HZ = 5000;

/** ± of a noise level over some seconds, dB. */
export const NOISE_UNCERTAINTY_DB = 0.3;

/** Each channel of the last pass, and why nothing can be said of it; null when it can. */
export interface ErasedHere {
  channels: Erased[];
  lacks: string | null;
  agoSeconds: number;
}

/** @param missing what a station misses in the channels of a pass, in a sentence; null for nothing */
export function erasedHere(
  bench: OnTheBench,
  missing: (channels: readonly Erased[]) => string | null,
): ErasedHere {
  const { recorded, lacks } = recordedHere(bench);
  const last = recorded.at(-1);
  if (!last) return { channels: [], lacks, agoSeconds: 0 };
  const channels = erasedOf(last, bench.here.machine.channels);
  return { channels, lacks: lacks ?? missing(channels), agoSeconds: last.agoSeconds };
}

/** At which a tone at 0 came back in the last whole pass off the tape since which nothing was turned, dBFS by channel; null without one. */
export function zerosOf(returned: ReturnedNow | null): number[] | null {
  const pass = returned?.passes.findLast(
    ({ whole, hears, told }) => whole && hears === "tape" && told === returned.told,
  );
  if (!pass) return null;
  const zeros = erasedOf({ pass }, 2).flatMap(({ zeroDbfs }) => zeroDbfs ?? []);
  return zeros.length > 0 ? zeros : null;
}

/** Erase depth, noise and separation of each channel, from one pass of the erase sequence. */
export function erasedOf({ pass }: Pick<Recorded, "pass">, channels: Machine["channels"]): Erased[] {
  const all = (c: number): ReturnedChannel[] =>
    pass.segments.flatMap((one) => heardOn(one.channels, c) ?? []);
  return channelNames(channels).flatMap((channel, c): Erased[] => {
    const own = all(c);
    const silence = own.find((one) => one.kind === "silence");
    if (silence?.kind !== "silence") return [];
    const sines = own.flatMap((one) => (one.kind === "sine" ? [one] : []));
    const tones = sines.filter(({ frequencyHz }) => frequencyHz < HIGH_HZ);
    const acrossHigh = sines.find(({ frequencyHz, levelDb }) => frequencyHz >= HIGH_HZ && levelDb === null);
    // the tone at 0 on this channel alone, or with one channel the last
    const atZero = tones.findLast(({ levelDb }) => levelDb !== null);
    const across = tones.find(({ levelDb }) => levelDb === null);
    const zeroDbfs = tones.length > 1 && atZero?.levelDb != null ? ZERO_DBFS + atZero.levelDb : null;
    const { residualDb, residualMeasurable, residualUncertaintyDb, noise, hum } = silence;
    return [
      {
        channel,
        zeroDbfs,
        depth:
          residualDb === null
            ? null
            : { db: -residualDb, uncertaintyDb: residualUncertaintyDb ?? 0, hidden: !residualMeasurable },
        noise:
          noise && zeroDbfs !== null
            ? {
                flatDb: noise.flatDbfs - zeroDbfs,
                aDb: noise.aDbfs - zeroDbfs,
                itu468Db: noise.itu468Dbfs - zeroDbfs,
              }
            : null,
        hum:
          zeroDbfs === null
            ? []
            : hum.map(({ frequencyHz, levelDb }) => ({ frequencyHz, levelDb: levelDb - zeroDbfs })),
        crosstalkDb: across?.crosstalkDb ?? null,
        crosstalkUncertaintyDb: across?.uncertaintyDb ?? 0,
        crosstalkHighDb: acrossHigh?.crosstalkDb ?? null,
        crosstalkHighUncertaintyDb: acrossHigh?.uncertaintyDb ?? 0,
      },
    ];
  });
}
