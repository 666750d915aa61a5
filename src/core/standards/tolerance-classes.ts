/** What a playback or record response has to stay within, and over which frequencies. */
export interface Corridor {
  db: number;
  fromHz: number;
  toHz: number;
}

export interface Tolerances {
  name: string;
  speedErrorPercent: number;
  weightedPeakFlutterPercent: number;
  /** Phase between the channels at 10 kHz; null where only the loudest point counts. */
  azimuthDegrees: number | null;
  /** How far the treble may stay below its loudest point, where there is one channel. */
  belowPeakDb: number;
  /** Of the channels against each other, and of each against the operating level; null where nothing is asked. */
  balanceDb: number | null;
  response: Corridor;
}

const corridor = (db: number, fromHz: number, toHz: number): Corridor => ({ db, fromHz, toHz });

/** How exact a machine of each kind is expected to be: house defaults, changed per machine where needed. */
export const TOLERANCE_CLASSES = {
  studio: {
    name: "studio",
    speedErrorPercent: 0.2,
    weightedPeakFlutterPercent: 0.08,
    azimuthDegrees: 15,
    belowPeakDb: 0.3,
    balanceDb: 0.5,
    response: corridor(1, 60, 15_000),
  },
  hifi: {
    name: "high fidelity",
    speedErrorPercent: 0.5,
    weightedPeakFlutterPercent: 0.15,
    azimuthDegrees: 30,
    belowPeakDb: 0.5,
    balanceDb: 1,
    response: corridor(2, 60, 12_500),
  },
  portable: {
    name: "portable",
    speedErrorPercent: 1,
    weightedPeakFlutterPercent: 0.4,
    azimuthDegrees: 60,
    belowPeakDb: 1,
    balanceDb: 2,
    response: corridor(3, 125, 8000),
  },
  toy: {
    name: "toy, dictation",
    speedErrorPercent: 2,
    weightedPeakFlutterPercent: 0.8,
    azimuthDegrees: null,
    belowPeakDb: 1,
    balanceDb: null,
    response: corridor(4, 250, 5000),
  },
} as const satisfies Record<string, Tolerances>;

export type ToleranceClass = keyof typeof TOLERANCE_CLASSES;
