/** Everything that is logged, with its full name. */
export const QUANTITIES = {
  speedError: "Speed error",
  "flutter.weighted.peak": "Weighted peak flutter",
  "flutter.weighted.twoSigma": "Weighted two-sigma flutter",
  "flutter.weighted.rms": "Weighted RMS flutter",
  "flutter.weighted.average": "Weighted average flutter",
  "flutter.unweighted.peak": "Unweighted peak flutter",
  "flutter.unweighted.twoSigma": "Unweighted two-sigma flutter",
  "flutter.unweighted.rms": "Unweighted RMS flutter",
  "flutter.unweighted.average": "Unweighted average flutter",
  "flutter.wow": "Wow, 0.1 to 10 Hz, RMS",
  "flutter.flutter": "Flutter, 10 to 200 Hz, RMS",
  "azimuth.phase": "Azimuth phase at 10 kHz",
  "azimuth.tilt": "Tilt of the gap",
  "azimuth.wander": "Wander of the phase at 10 kHz",
  "azimuth.monoLoss": "Loss of the mono sum at 10 kHz",
  "azimuth.belowPeak": "Treble below its loudest",
  "azimuth.treble": "Level of the treble tone",
  "level.error": "Playback level error",
  "level.balance": "Channel balance",
  "level.meter": "Error of the machine's meter",
  "response.worst": "Largest response error",
  "response.treble": "Treble re reference",
  "response.point": "Response",
} as const;
export type Quantity = keyof typeof QUANTITIES;

export const UNITS = ["%", "°", "dB", "dBFS", "′"] as const;
export type Unit = (typeof UNITS)[number];
/** As they are said aloud. */
export const UNIT_WORDS: Record<Unit, string> = {
  "%": "percent",
  "°": "degrees",
  dB: "decibels",
  dBFS: "decibels re full scale",
  "′": "arc-minutes",
};

/** The unit that a quantity is logged and shown in. */
export function unitOf(quantity: Quantity): Unit {
  if (quantity === "azimuth.phase" || quantity === "azimuth.wander") return "°";
  if (quantity === "azimuth.tilt") return "′";
  if (quantity === "azimuth.treble") return "dBFS";
  return quantity.startsWith("speed") || quantity.startsWith("flutter") ? "%" : "dB";
}

const ONE_SIDED: readonly Quantity[] = ["azimuth.wander", "azimuth.monoLoss", "azimuth.belowPeak"];

/** Whether it can be too high and too low, so that it is shown with its sign and has a window either way of nought. */
export const isSigned = (quantity: Quantity): boolean =>
  !quantity.startsWith("flutter") && !ONE_SIDED.includes(quantity);

/** Decimals that its readings and its limit are worth. */
export const decimalsOf = (quantity: Quantity): number =>
  quantity.startsWith("flutter") ? 3 : unitOf(quantity) === "%" ? 2 : unitOf(quantity) === "dB" ? 2 : 1;
