/** How exact a machine of each kind is expected to be: house defaults, changed per machine where needed. */
export const TOLERANCE_CLASSES = {
  studio: { name: "studio", speedErrorPercent: 0.2, weightedPeakFlutterPercent: 0.08 },
  hifi: { name: "high fidelity", speedErrorPercent: 0.5, weightedPeakFlutterPercent: 0.15 },
  portable: { name: "portable", speedErrorPercent: 1, weightedPeakFlutterPercent: 0.4 },
  toy: { name: "toy, dictation", speedErrorPercent: 2, weightedPeakFlutterPercent: 0.8 },
} as const;

export type ToleranceClass = keyof typeof TOLERANCE_CLASSES;
