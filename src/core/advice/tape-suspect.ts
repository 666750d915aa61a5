import { median } from "@/core/dsp/quantile";

/** A response that was logged with a reference tape. */
export interface TapeCurve {
  machineId: string;
  machineName: string;
  points: Array<{ frequencyHz: number; levelDb: number; uncertaintyDb: number }>;
}

/** A place where several machines agree against a tape. */
export interface TapeSuspicion {
  frequencyHz: number;
  /** What they have in common beside what their neighbours show, dB. */
  db: number;
  machines: string[];
}

const FEWEST_MACHINES = 3;
/** So far a band has to stand out of its neighbours on every machine. */
const STANDS_OUT_DB = 0.8;
const AGREE_WITHIN_DB = 0.7;
const SAME_BAND = 0.02;

/**
 * Bands that stand out of their neighbours alike on three machines or more: then it is the tape, not the machines. A
 * fault of a machine bends several bands together, so each band is taken against the line through the bands beside it.
 */
export function suspectBands(curves: TapeCurve[]): TapeSuspicion[] {
  const [worst] = standingOut(curves).sort((a, b) => Math.abs(b.db) - Math.abs(a.db));
  if (!worst) return [];
  // its neighbours stand out only because it does
  const rest = curves.map((curve) => ({
    ...curve,
    points: curve.points.filter(
      ({ frequencyHz }) => Math.abs(frequencyHz / worst.frequencyHz - 1) >= SAME_BAND,
    ),
  }));
  return [worst, ...suspectBands(rest)].sort((a, b) => a.frequencyHz - b.frequencyHz);
}

function standingOut(curves: TapeCurve[]): TapeSuspicion[] {
  const steps = curves.flatMap(({ machineId, machineName, points }) => {
    const sorted = points.toSorted((a, b) => a.frequencyHz - b.frequencyHz);
    return sorted.slice(1, -1).map((point, i) => {
      const [below, above] = [sorted[i], sorted[i + 2]];
      const share =
        Math.log(point.frequencyHz / below.frequencyHz) / Math.log(above.frequencyHz / below.frequencyHz);
      const line = below.levelDb + share * (above.levelDb - below.levelDb);
      return { machineId, machineName, frequencyHz: point.frequencyHz, db: point.levelDb - line };
    });
  });
  const frequencies = [...new Set(steps.map(({ frequencyHz }) => frequencyHz))].sort((a, b) => a - b);
  return frequencies.flatMap((frequencyHz): TapeSuspicion[] => {
    const here = steps.filter((step) => Math.abs(step.frequencyHz / frequencyHz - 1) < SAME_BAND);
    const byMachine = [...new Set(here.map(({ machineId }) => machineId))].map((id) => {
      const own = here.filter(({ machineId }) => machineId === id);
      return { name: own[0].machineName, db: median(own.map(({ db }) => db)) };
    });
    if (byMachine.length < FEWEST_MACHINES) return [];
    const common = median(byMachine.map(({ db }) => db));
    const agree = byMachine.every(
      ({ db }) => db * common > 0 && Math.abs(db) > STANDS_OUT_DB && Math.abs(db - common) < AGREE_WITHIN_DB,
    );
    return agree ? [{ frequencyHz, db: common, machines: byMachine.map(({ name }) => name) }] : [];
  });
}
