import { fftWorkspace } from "@/core/dsp/fft-workspace";

/** Slowest wow that is reckoned with, in periods of the stretch, and the fastest that a mean does not average away. */
const SLOWEST = 0.35;
const FASTEST = 3;
const RATES = 44;
/** Faster lines are taken out first; so many, down to so little of what is left. */
const LINES = 8;
const FASTEST_LINE = 40;
const WORTH_TAKING = 0.15;
/** What lines are searched in, padded with nought. */
const SEARCH_SIZE = 2048;
/** A wow that is too slow to be seen is reckoned with as if it might be so many times what is seen. */
const UNSEEN = 2;
/** Lines by which the level of slow noise is judged, and by how much it may rise below them. */
const SLOW_LINES = 6;
const REDDER = 3;

/** The mean that the speed would have if it were watched for ever, as far as a stretch of it tells. */
export interface LongMean {
  mean: number;
  variance: number;
}

/**
 * The long mean of evenly spaced values of which a stretch was seen that may be shorter than a turn of the slowest part.
 * Every wow of a rate up to a few turns in the stretch is weighed by how well it explains what was seen, together with a
 * constant and with what noise is left when faster lines are taken out; where slow rates explain it as well as a
 * constant does, the mean is as unsure as they make it. (Sinusoid of unknown rate in noise, amplitudes normally
 * distributed; the rates averaged by their evidence.)
 * @param values at least 16
 */
export function longMean(values: Float64Array): LongMean {
  const n = values.length;
  const rest = withoutFastLines(values);
  const average = rest.reduce((a, b) => a + b, 0) / n;
  const seen = rest.reduce((sum, v) => sum + (v - average) ** 2, 0) / n;
  const white = Math.max(noiseOf(rest), 1e-18);
  const prior = UNSEEN * UNSEEN * Math.max(seen, white);
  const weighed = (noise: number) =>
    Array.from({ length: RATES }, (_, i) =>
      fit(rest, SLOWEST * (FASTEST / SLOWEST) ** (i / (RATES - 1)), noise, prior),
    );
  const likeliest = weighed(white).reduce((a, b) => (b.logEvidence > a.logEvidence ? b : a));
  // real wander is no line: what the likeliest one leaves at slow rates is noise too, and more than the white of it
  const noise = Math.max(white, REDDER * slowLevel(without(rest, likeliest)));
  const fits: Fit[] = weighed(noise);
  // no slow wow at all is one more way to explain it
  fits.push({
    mean: average,
    variance: noise / n,
    logEvidence: plainEvidence(rest, average, noise),
    turns: 0,
    re: 0,
    im: 0,
  });
  const best = Math.max(...fits.map(({ logEvidence }) => logEvidence));
  const weights = fits.map(({ logEvidence }) => Math.exp(logEvidence - best));
  const total = weights.reduce((a, b) => a + b, 0);
  const mean = fits.reduce((sum, one, i) => sum + (weights[i] / total) * one.mean, 0);
  const variance = fits.reduce(
    (sum, one, i) => sum + (weights[i] / total) * (one.variance + (one.mean - mean) ** 2),
    0,
  );
  return { mean, variance };
}

interface Fit extends LongMean {
  logEvidence: number;
  turns: number;
  /** Of the cosine and the sine, counted from the middle. */
  re: number;
  im: number;
}

/** A constant and a sinusoid of `turns` periods in the stretch; the evidence is up to what all have in common. */
function fit(values: Float64Array, turns: number, noise: number, prior: number): Fit {
  const n = values.length;
  let [sc, ss, scc, sss, scs, sy, syc, sys, syy] = [0, 0, 0, 0, 0, 0, 0, 0, 0];
  const [stepC, stepS] = [Math.cos((2 * Math.PI * turns) / n), Math.sin((2 * Math.PI * turns) / n)];
  const first = 2 * Math.PI * turns * (0.5 / n - 0.5);
  let [c, s] = [Math.cos(first), Math.sin(first)];
  for (let i = 0; i < n; i++) {
    const y = values[i];
    sc += c;
    ss += s;
    scc += c * c;
    sss += s * s;
    scs += c * s;
    sy += y;
    syc += y * c;
    sys += y * s;
    syy += y * y;
    const turned = c * stepC - s * stepS;
    s = s * stepC + c * stepS;
    c = turned;
  }
  const r = noise / prior;
  // normal equations, the amplitudes held by their prior: [n sc ss; sc scc+r scs; ss scs sss+r]
  const [a, b, d] = [scc + r, scs, sss + r];
  const det2 = a * d - b * b;
  // the sinusoid eliminated: what is left for the constant
  const [pc, ps] = [(d * sc - b * ss) / det2, (a * ss - b * sc) / det2];
  const information = n - sc * pc - ss * ps;
  const mean = (sy - syc * pc - sys * ps) / information;
  const [zc, zs] = [syc - mean * sc, sys - mean * ss];
  const explained = (d * zc * zc - 2 * b * zc * zs + a * zs * zs) / det2;
  const misfit = syy - 2 * mean * sy + mean * mean * n - explained;
  return {
    mean,
    variance: noise / information,
    logEvidence: -misfit / (2 * noise) - 0.5 * Math.log((det2 / (r * r)) * (information / n)),
    turns,
    re: (d * zc - b * zs) / det2,
    im: (a * zs - b * zc) / det2,
  };
}

const plainEvidence = (values: Float64Array, mean: number, noise: number): number =>
  -values.reduce((sum, v) => sum + (v - mean) ** 2, 0) / (2 * noise);

function without(values: Float64Array, { mean, turns, re, im }: Fit): Float64Array {
  return values.map((v, i) => {
    const angle = 2 * Math.PI * turns * ((i + 0.5) / values.length - 0.5);
    return v - mean - re * Math.cos(angle) - im * Math.sin(angle);
  });
}

/** Power of each value that white noise of the level at the slowest rates would have. */
function slowLevel(values: Float64Array): number {
  let sum = 0;
  for (let turns = 1; turns <= SLOW_LINES; turns++) {
    const { re, im } = line(values, turns, 0);
    sum += re * re + im * im;
  }
  return (values.length * sum) / SLOW_LINES;
}

/** Noise of each value, from what neighbours differ by, which slow wander hardly touches. */
function noiseOf(values: Float64Array): number {
  let sum = 0;
  for (let i = 2; i < values.length; i++) sum += (values[i] - 2 * values[i - 1] + values[i - 2]) ** 2;
  return sum / (6 * (values.length - 2));
}

/** The values without their strongest lines of more than a few periods. */
function withoutFastLines(values: Float64Array): Float64Array {
  const n = values.length;
  const rest = Float64Array.from(values);
  const highest = Math.min(FASTEST_LINE, n / 3);
  const { fft, input, output } = fftWorkspace(SEARCH_SIZE);
  for (let taken = 0; taken < LINES; taken++) {
    const mean = rest.reduce((a, b) => a + b, 0) / n;
    const power = rest.reduce((sum, v) => sum + (v - mean) ** 2, 0) / n;
    input.fill(0);
    rest.forEach((v, i) => (input[i] = v - mean));
    fft.realTransform(output, input);
    let best = { turns: 0, power: 0 };
    const perTurn = SEARCH_SIZE / n;
    for (let k = Math.ceil(FASTEST * perTurn); k <= highest * perTurn; k++) {
      const own = (2 * (output[2 * k] ** 2 + output[2 * k + 1] ** 2)) / (n * n);
      if (own > best.power) best = { turns: k / perTurn, power: own };
    }
    if (!(best.power >= WORTH_TAKING * power)) break;
    const { re, im } = line(rest, best.turns, mean);
    const turn = rotation(best.turns / n);
    for (let i = 0; i < n; i++) {
      rest[i] -= 2 * (re * turn.cos + im * turn.sin);
      turn.step();
    }
  }
  return rest;
}

function line(values: Float64Array, turns: number, mean: number): { re: number; im: number } {
  let [re, im] = [0, 0];
  const n = values.length;
  const turn = rotation(turns / n);
  for (let i = 0; i < n; i++) {
    re += (values[i] - mean) * turn.cos;
    im += (values[i] - mean) * turn.sin;
    turn.step();
  }
  return { re: re / n, im: im / n };
}

/** Cosine and sine of an angle that grows evenly, begun half a step from nought, without a call of either for each step. */
function rotation(turnsPerStep: number) {
  const [c, s] = [Math.cos(2 * Math.PI * turnsPerStep), Math.sin(2 * Math.PI * turnsPerStep)];
  return {
    cos: Math.cos(Math.PI * turnsPerStep),
    sin: Math.sin(Math.PI * turnsPerStep),
    step() {
      const { cos, sin } = this;
      this.cos = cos * c - sin * s;
      this.sin = sin * c + cos * s;
    },
  };
}
