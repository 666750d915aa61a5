import type { TapeType } from "@/core/standards/tape-types";
import type { ParameterPath, TransportParameters } from "./transport-parameters";

export const DECK_KEYS = ["play", "reverse", "stop", "wind", "rewind", "record", "record-reverse"] as const;
export type DeckKey = (typeof DECK_KEYS)[number];

/** In which direction the tape runs past the heads. */
export type Way = "forwards" | "reverse";

/** Whether a key runs the tape past the heads, the other way round, or with the record heads on. */
const WHAT_KEYS_DO: Record<DeckKey, { runs: boolean; reverses: boolean; records: boolean }> = {
  play: { runs: true, reverses: false, records: false },
  reverse: { runs: true, reverses: true, records: false },
  stop: { runs: false, reverses: false, records: false },
  wind: { runs: false, reverses: false, records: false },
  rewind: { runs: false, reverses: false, records: false },
  record: { runs: true, reverses: false, records: true },
  "record-reverse": { runs: true, reverses: true, records: true },
};
export const runsTape = (key: DeckKey): boolean => WHAT_KEYS_DO[key].runs;
/** Plays or records the side that faces away. */
export const reverses = (key: DeckKey): boolean => WHAT_KEYS_DO[key].reverses;
export const records = (key: DeckKey): boolean => WHAT_KEYS_DO[key].records;

export interface DeckStatus {
  key: DeckKey;
  tapeId: string;
  /** Side that faces the heads: 0 is A. */
  side: 0 | 1;
  /** Seconds of tape at its own speed that have passed the heads on this side. */
  positionSeconds: number;
  lengthSeconds: number;
  /** What it gives out while it records, three heads only. */
  monitor: "source" | "tape";
  /** The type of tape that its switch stands at; null while it feels the shell by itself. */
  tapeSwitch: TapeType | null;
  switches: DeckSwitches;
  /** Since the record key was pressed last, and how warm that and before has made the oscillator, seconds. */
  recordingSeconds: number;
  warmSeconds: number;
  /** What its meters show, dB re 0, left and right. */
  meterDb: [number, number];
  /** Turns of the take-up reel since the counter was last set to nought. */
  counter: number;
}

/** What can be switched on and off on the front of a machine that has it. */
export interface DeckSwitches {
  reduction: boolean;
  multiplex: boolean;
  headroom: boolean;
}

export const ALL_OFF: DeckSwitches = { reduction: false, multiplex: false, headroom: false };

/** Which parameter says that a machine has a switch. */
const FITTED: Record<keyof DeckSwitches, ParameterPath> = {
  reduction: "reduction.fitted",
  multiplex: "multiplex.cornerHz",
  headroom: "headroom.biasDb",
};

/** The switches that a machine has. */
export const switchesOf = (parameters: TransportParameters): Array<keyof DeckSwitches> =>
  (Object.keys(FITTED) as Array<keyof DeckSwitches>).filter((name) => parameters[FITTED[name]] !== 0);
