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
  /** Of a recording played back; null for machines that nothing is asked of. */
  recordResponse: Corridor | null;
  /** How near to where its school would leave it the bias is expected, dB. */
  biasDb: number;
  /** Third harmonic at 0 level; null where nothing is asked. */
  thirdPercent: number | null;
  /** Least depth that a tone of 1 kHz is erased by. */
  eraseDb: number;
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
    recordResponse: corridor(2, 60, 15_000),
    biasDb: 0.5,
    thirdPercent: 1,
    eraseDb: 70,
  },
  hifi: {
    name: "high fidelity",
    speedErrorPercent: 0.5,
    weightedPeakFlutterPercent: 0.15,
    azimuthDegrees: 30,
    belowPeakDb: 0.5,
    balanceDb: 1,
    response: corridor(2, 60, 12_500),
    recordResponse: corridor(3, 60, 12_500),
    biasDb: 1,
    thirdPercent: 1,
    eraseDb: 60,
  },
  portable: {
    name: "portable",
    speedErrorPercent: 1,
    weightedPeakFlutterPercent: 0.4,
    azimuthDegrees: 60,
    belowPeakDb: 1,
    balanceDb: 2,
    response: corridor(3, 125, 8000),
    recordResponse: corridor(4, 125, 8000),
    biasDb: 1.5,
    thirdPercent: 3,
    eraseDb: 50,
  },
  toy: {
    name: "toy, dictation",
    speedErrorPercent: 2,
    weightedPeakFlutterPercent: 0.8,
    azimuthDegrees: null,
    belowPeakDb: 1,
    balanceDb: null,
    response: corridor(4, 250, 5000),
    recordResponse: null,
    biasDb: 2,
    thirdPercent: null,
    eraseDb: 40,
  },
} as const satisfies Record<string, Tolerances>;

export type ToleranceClass = keyof typeof TOLERANCE_CLASSES;
