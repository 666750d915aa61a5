export interface WeighedPhase {
  frequencyHz: number;
  phaseDegrees: number;
  /** Standard deviation of the phase. */
  sigmaDegrees: number;
}

export interface DelayFit {
  delaySeconds: number;
  /** Standard deviation. */
  sigmaSeconds: number;
  chiSquare: number;
}

/** Steps of the search, in cycles of the highest tone. */
const STEP_CYCLES = 1 / 24;

/**
 * Delays within ± `rangeSeconds` that explain phases known up to whole turns, φ = 360°·f·Δt: every local minimum of
 * χ², the best first. Each is refined by weighted least squares with the turns it implies.
 */
export function fitThroughOrigin(phases: WeighedPhase[], rangeSeconds: number): DelayFit[] {
  const step = STEP_CYCLES / Math.max(...phases.map(({ frequencyHz }) => frequencyHz));
  const count = Math.ceil(rangeSeconds / step);
  const chi = (delay: number) =>
    phases.reduce((sum, phase) => sum + (residual(phase, delay) / phase.sigmaDegrees) ** 2, 0);
  const values = Array.from({ length: 2 * count + 1 }, (_, i) => chi((i - count) * step));
  const fits: DelayFit[] = [];
  values.forEach((value, i) => {
    if (value > (values[i - 1] ?? Infinity) || value >= (values[i + 1] ?? Infinity)) return;
    const delaySeconds = refined(phases, (i - count) * step);
    if (Math.abs(delaySeconds) > rangeSeconds + step) return;
    const information = phases.reduce(
      (sum, { frequencyHz, sigmaDegrees }) => sum + ((360 * frequencyHz) / sigmaDegrees) ** 2,
      0,
    );
    fits.push({ delaySeconds, sigmaSeconds: 1 / Math.sqrt(information), chiSquare: chi(delaySeconds) });
  });
  fits.sort((a, b) => a.chiSquare - b.chiSquare);
  return fits.filter(
    (fit, i) => fits.findIndex((one) => Math.abs(one.delaySeconds - fit.delaySeconds) < step) === i,
  );
}

/** Phase less what a delay makes, −180 … 180°. */
const residual = ({ frequencyHz, phaseDegrees }: WeighedPhase, delay: number): number => {
  const off = phaseDegrees - 360 * frequencyHz * delay;
  return off - 360 * Math.round(off / 360);
};

function refined(phases: WeighedPhase[], delay: number): number {
  for (let i = 0; i < 4; i++) {
    let [top, bottom] = [0, 0];
    for (const phase of phases) {
      const slope = 360 * phase.frequencyHz;
      top += (slope * residual(phase, delay)) / phase.sigmaDegrees ** 2;
      bottom += (slope / phase.sigmaDegrees) ** 2;
    }
    delay += top / bottom;
  }
  return delay;
}
