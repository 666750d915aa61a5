import { SeededRandom } from "@/core/dsp/seeded-random";
import type { HeardSchool } from "@/core/guidance/bias-answers";
import type { BiasPoint, BiasTones } from "@/core/guidance/bias-law";
import { sensitivityDb, thirdShare, trebleShelfDb } from "@/core/simulator/tape-formula";

/**
 * Recorders of several make-ups that share no formula, for asking how often an answer about bias holds. Each gives the
 * playback level of a mid and a high tone minus input, and the third harmonic relative to its tone, all in dB, over bias in
 * dB relative to an arbitrary zero.
 */
export interface Recorder {
  makeUp: string;
  middleDb(biasDb: number): number;
  highDb(biasDb: number): number;
  thirdDb(biasDb: number): number;
}

const TONES: BiasTones = { middleHz: 315, highHz: 10_000, speedCmPerS: 4.76 };

const MAKE_UPS: ReadonlyArray<(random: SeededRandom) => Recorder> = [tabled, layered, rational, lorentzian];

/** The practice machine's own tape, with its treble off and its bias scale moved. */
function tabled(random: SeededRandom): Recorder {
  const [treble, deep] = [1.2 * random.normal(), 1 + 0.1 * random.normal()];
  const level = 2 * random.normal();
  return {
    makeUp: "practice tape",
    middleDb: (b) => level + deep * sensitivityDb(b, 315, 4.76),
    highDb: (b) => level + deep * sensitivityDb(b, 10_000, 4.76) + trebleShelfDb(treble, 10_000),
    thirdDb: (b) => 20 * Math.log10(thirdShare(b)),
  };
}

const LAYERS = 24;
/** Logistic, the share of particles whose switching field is below a field. */
const switched = (field: number, spread: number) => 1 / (1 + Math.exp(-(field - 1) / spread));

/**
 * A coating in layers, each magnetised where the bias field has switched its particles, read with the loss of its depth, and
 * erased again by the tone's own field where the bias is beyond what it needs. The third harmonic is that of the switching
 * curve around the bias field, which changes its sign: a sharp dip above a floor.
 */
function layered(random: SeededRandom): Recorder {
  const [spread, fall] = [between(random, 0.17, 0.26), between(random, 0.3, 0.6)];
  const erasure = between(random, 0.7, 1.3);
  const [equaliserDb, level] = [1.5 * random.normal(), 2 * random.normal()];
  const [depthMiddle, depthHigh] = [0.15, between(random, 2, 3.2)];
  const raw = (b: number, depth: number, self: number) => {
    const field = 1.35 * 10 ** (b / 20);
    let flux = 0;
    let weight = 0;
    for (let i = 0; i < LAYERS; i++) {
      const y = (i + 0.5) / LAYERS;
      const own = field / (1 + fall * y);
      const read = Math.exp(-depth * y);
      const over = Math.max(0, own - 1);
      flux += read * switched(own, spread) * Math.exp(-self * over);
      weight += read;
    }
    return 20 * Math.log10(flux / weight);
  };
  const flat = raw(1.5, depthHigh, 2.1 * erasure) - raw(1.5, depthMiddle, 0.25 * erasure);
  const [dip, floor] = [between(random, 0, 2.5), 10 ** (-between(random, 44, 50) / 20)];
  const [under, over] = [between(random, 0.006, 0.01), between(random, 0.0012, 0.0025)];
  return {
    makeUp: "layered coating",
    middleDb: (b) => level + raw(b, depthMiddle, 0.25 * erasure),
    highDb: (b) => level + equaliserDb - flat + raw(b, depthHigh, 2.1 * erasure),
    thirdDb: (b) => {
      const x = b - dip;
      const signed = x < 0 ? under * (Math.exp(-x / 3.2) - 1) : over * x;
      return 20 * Math.log10(Math.hypot(signed, floor));
    },
  };
}

/** Peaks that fall like a resonance on a decibel scale, and a third harmonic between two straight lines. */
function rational(random: SeededRandom): Recorder {
  const [width, peak] = [between(random, 2.2, 3.8), between(random, -4, -2.2)];
  const high = (b: number) => -4.3 * Math.log1p(((b - peak) / (b > peak ? width : 0.9 * width)) ** 2);
  const [middlePeak, middleWidth] = [between(random, 0, 2), between(random, 7, 10)];
  const middle = (b: number) => -4.3 * Math.log1p(((b - middlePeak) / middleWidth) ** 2);
  const flat = high(0) - middle(0) + 1.5 * random.normal();
  const [dip, below, above, round] = [
    between(random, 0, 2.5),
    between(random, 2, 3.2),
    between(random, 0.6, 1.4),
    between(random, 0.8, 2),
  ];
  const third = between(random, -46, -38);
  return {
    makeUp: "resonance",
    middleDb: middle,
    highDb: (b) => high(b) - flat,
    thirdDb: (b) => {
      const x = b - dip;
      const slope = (above - below) / 2;
      const half = (above + below) / 2;
      return third + slope * x + half * (Math.hypot(x, round) - round);
    },
  };
}

/** Each sensitivity a product of a rise and an exponential loss of field, the third harmonic a shallow cosh. */
function lorentzian(random: SeededRandom): Recorder {
  const [rise, loss] = [between(random, 0.5, 0.8), between(random, 0.3, 0.55)];
  const high = (b: number) =>
    -0.9 * rise * Math.log1p(Math.exp(-(b + 4) / 0.9)) - loss * softplus(b + 3.2) ** 1.5;
  const middle = (b: number) =>
    -1.36 * Math.log1p(Math.exp(-(b + 2.2) / 1.6)) - 0.035 * softplus(b - 0.5) ** 1.8;
  const flat = high(0) - middle(0) + 1.2 * random.normal();
  const [dip, third, wide] = [between(random, 0.3, 2.5), between(random, -45, -37), between(random, 2.6, 4)];
  return {
    makeUp: "soft knee",
    middleDb: middle,
    highDb: (b) => high(b) - flat,
    thirdDb: (b) => third + 6 * Math.log(Math.cosh((b - dip) / (b < dip ? 0.8 * wide : 1.2 * wide))),
  };
}
const softplus = (x: number) => Math.log1p(Math.exp(x));

/** A recorder that was heard at some settings of its screw, and where each method truly stops. */
export interface Trial {
  recorder: Recorder;
  points: BiasPoint[];
  tones: BiasTones;
  overBiasDb: number;
  /** Bias per turn, dB, clockwise positive. */
  dbPerTurn: number;
  /** Turns of the screw at which each method truly stops. */
  truth: Record<HeardSchool, number>;
  /** Whether the settings reach to both sides of where the method stops. */
  spanned: Record<HeardSchool, boolean>;
}

/** One of endlessly many recorders, heard at 3 to 8 settings, evenly spaced or not, in either direction, with noise. */
export function randomTrial(seed: number): Trial {
  const random = new SeededRandom(seed);
  const recorder = MAKE_UPS[seed % MAKE_UPS.length](random);
  const dbPerTurn = (random.uniform() < 0.5 ? -1 : 1) * between(random, 3, 20);
  const overBiasDb = between(random, 1.5, 4);
  const count = 3 + Math.floor(6 * random.uniform());
  const span = between(random, 4.5, 10);
  const from = between(random, -6, -6 + 10 - Math.min(span, 9.5) + 1);
  const even = random.uniform() < 0.5;
  const shares = Array.from({ length: count }, (_, i) =>
    i === 0 ? 0 : i === count - 1 ? 1 : (i + (even ? 0 : between(random, -0.42, 0.42))) / (count - 1),
  );
  const biases = shares.map((share) => from + span * share);
  if (random.uniform() < 0.5) biases.reverse();
  const points = biases.map((b) => ({
    turns: (b - biases[0]) / dbPerTurn,
    middleDb: recorder.middleDb(b) + 0.02 * random.normal(),
    highDb: recorder.highDb(b) + 0.03 * random.normal(),
    thirdDb: recorder.thirdDb(b) + 0.2 * random.normal(),
  }));
  const stops = stopsOf(recorder, overBiasDb);
  const [low, high] = [Math.min(...biases), Math.max(...biases)];
  const turnsAt = (b: number) => (b - biases[0]) / dbPerTurn;
  const between2 = (b: number) => b > low && b < high;
  return {
    recorder,
    points,
    tones: TONES,
    overBiasDb,
    dbPerTurn,
    truth: {
      flatness: turnsAt(stops.flatness),
      "over-bias": turnsAt(stops["over-bias"]),
      "third-harmonic": turnsAt(stops["third-harmonic"]),
    },
    spanned: {
      flatness: between2(stops.flatness),
      "over-bias": between2(stops["over-bias"]) && between2(stops.peak - 0.5),
      "third-harmonic":
        between2(stops["third-harmonic"]) &&
        [low, high].every((b) => recorder.thirdDb(b) > recorder.thirdDb(stops["third-harmonic"]) + 1.5),
    },
  };
}

/** Where each method stops, dB of bias, by walking along the recorder's own curves. */
function stopsOf({ middleDb, highDb, thirdDb }: Recorder, overBiasDb: number) {
  const all = Array.from({ length: 4001 }, (_, i) => -10 + i / 200);
  const high = all.map(highDb);
  const top = high.indexOf(Math.max(...high));
  const third = all.map(thirdDb);
  const after = (is: (i: number) => boolean) => all[all.findIndex((_, i) => i > top && is(i))] ?? NaN;
  return {
    peak: all[top],
    flatness: after((i) => high[i] < middleDb(all[i])),
    "over-bias": after((i) => high[i] < high[top] - overBiasDb),
    "third-harmonic": all[third.indexOf(Math.min(...third))],
  };
}

const between = (random: SeededRandom, low: number, high: number) => low + (high - low) * random.uniform();
