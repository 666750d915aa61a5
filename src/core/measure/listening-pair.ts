import { loudness } from "./loudness";
import { SAME_LIKENESS, samePassage } from "./same-passage";

/** A sound that is to be heard against another. */
export interface HeardSound {
  channels: Float32Array[];
  sampleRateHz: number;
}

/** How two sounds are played against each other. */
export interface ListeningPair {
  /** LUFS of each. */
  loudness: [number, number];
  /** Where each begins, seconds, so that they lie over each other where they are of one passage. */
  fromSeconds: [number, number];
  /** So much both have from there on. */
  seconds: number;
  samePassage: boolean;
}

const LEAST_SECONDS = 3;

/**
 * Lays two recordings over each other for the ear: how loud each is, and where each begins.
 * @throws Error with a sentence where one is silent, or they have too little in common
 */
export function listeningPair(a: HeardSound, b: HeardSound): ListeningPair {
  const loud: [number, number] = [loudness(a.channels, a.sampleRateHz), loudness(b.channels, b.sampleRateHz)];
  if (loud.some((one) => !Number.isFinite(one))) throw new Error("One of them is silent: keep it again.");
  const lies = a.sampleRateHz === b.sampleRateHz ? samePassage(a.channels, b.channels, a.sampleRateHz) : null;
  const same = lies !== null && lies.likeness > SAME_LIKENESS;
  const later = same ? lies.laterSeconds : 0;
  const fromSeconds: [number, number] = [Math.max(0, later), Math.max(0, -later)];
  const length = ({ channels: [x], sampleRateHz }: HeardSound) => x.length / sampleRateHz;
  const seconds = Math.min(length(a) - fromSeconds[0], length(b) - fromSeconds[1]);
  if (seconds < LEAST_SECONDS)
    throw new Error("They have less than three seconds in common: keep longer ones.");
  return { loudness: loud, fromSeconds, seconds, samePassage: same };
}
