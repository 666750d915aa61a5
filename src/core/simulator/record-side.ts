import { amplitudeOf } from "@/core/dsp/decibels";
import { FastFir } from "@/core/dsp/fast-fir";
import { digitalSection, prewarp, SectionFilter } from "@/core/dsp/filter-section";
import { BIAS_OVER_TYPE_I_DB, TAPE_TYPES, type TapeType } from "@/core/standards/tape-types";
import { HALF_TAPS, tapsFor } from "./gain-taps";
import { ordinary, sensitivityDb, thirdShare, trebleShelfDb, type TapeFormula } from "./tape-formula";
import type { TransportParameters } from "./transport-parameters";
import { Trimmer } from "./trimmer";

/** What is turned on the record side, for each channel. */
export const RECORD_TRIMMERS = ["record-level", "bias", "record-response"] as const;
export type RecordTrimmer = (typeof RECORD_TRIMMERS)[number];

type Pair = [Float64Array, Float64Array];

/** Treble saturates earlier than the middle: it meets the tape lifted so far. */
const LIFT_FROM_HZ = 3000;
const LIFT_TO_HZ = 9000;
/** Where low bias makes the tape deaf to small signals, and how deaf 4 dB below that. */
const DEAF_BELOW_DB = -2;
const DEAF = 0.004;
/** A magnetised head leans the wave by so much of the reference level. */
const LEAN = 0.35;
/** What failing capacitors of a record amplifier add of the second harmonic, beside the third. */
const SECOND_SHARE = 0.3;
const LEAST_LINEAR = 1e-4;

/** How the record side of a channel stands for the tape in the machine. */
interface Standing {
  /** Bias re what this tape wants, dB. */
  biasDb: number;
  trebleDb: number;
  gain: number;
}

/**
 * The record amplifiers, bias and the tape's own transfer: from what goes in to the flux of each track, re the reference
 * level. Trimmers for each channel, for every type of tape and for each type. Delays by `delayFrames`.
 */
export class RecordSide {
  /** By `recordSlot`. */
  readonly trimmers: readonly Trimmer[];
  readonly delayFrames = HALF_TAPS;
  private formula: TapeFormula = ordinary("I");
  /** The type that its switch stands at; null for a machine that feels the shell. */
  tapeSwitch: TapeType | null = null;
  private readonly channels: [Channel, Channel];

  constructor(
    private readonly parameters: TransportParameters,
    private readonly sampleRateHz: number,
  ) {
    const { "trimmer.backlashTurns": backlash, "trimmer.rangeTurns": range } = parameters;
    this.trimmers = Array.from({ length: RECORD_SLOTS }, () => new Trimmer(backlash, range));
    this.channels = [new Channel(sampleRateHz), new Channel(sampleRateHz)];
  }

  /** Another tape is recorded on, from its beginning. */
  load(formula: TapeFormula): void {
    this.formula = formula;
    this.channels[0] = new Channel(this.sampleRateHz);
    this.channels[1] = new Channel(this.sampleRateHz);
  }

  /** As much flux of both tracks as went in. */
  push(input: readonly [Float64Array, Float64Array]): Pair {
    const { parameters: p } = this;
    return [0, 1].map((c) => {
      const channel = c as 0 | 1;
      const standing = this.standing(channel);
      return this.channels[c].push(input[c], standing, p["speedCmPerS"], {
        amplifierThird: p["record.amplifierThirdPercent"] / 100,
        lean: LEAN * p["head.magnetised"],
      });
    }) as Pair;
  }

  standing(channel: 0 | 1): Standing {
    const { parameters: p, formula } = this;
    const left = channel === 0;
    const set = this.tapeSwitch ?? formula.type;
    const turned = (what: RecordTrimmer) =>
      this.trimmers[recordSlot(what, channel, null)].spindleTurns +
      this.trimmers[recordSlot(what, channel, set)].spindleTurns;
    const own = OWN_TYPES[set];
    const biasDb =
      p[left ? "bias.leftDb" : "bias.rightDb"] +
      (own ? p[`${own}.biasDb`] : 0) +
      p["bias.dbPerTurn"] * turned("bias") +
      ((BIAS_OVER_TYPE_I_DB[set] ?? 0) - (BIAS_OVER_TYPE_I_DB[formula.type] ?? 0)) -
      formula.biasDb;
    const trebleDb =
      p[left ? "record.leftTrebleDb" : "record.rightTrebleDb"] +
      (own ? p[`${own}.trebleDb`] : 0) +
      p["record.trebleDbPerTurn"] * turned("record-response") +
      formula.trebleDb;
    const levelDb =
      p[left ? "record.leftDb" : "record.rightDb"] +
      (own ? p[`${own}.levelDb`] : 0) +
      p["record.levelDbPerTurn"] * turned("record-level") +
      formula.sensitivityDb -
      p[left ? "output.leftDb" : "output.rightDb"];
    return { biasDb, trebleDb, gain: amplitudeOf(levelDb) };
  }
}

/** Types of tape that a machine has settings of its own for, which may be off by themselves. */
const OWN_TYPES = {
  I: "typeI",
  II: "typeII",
  III: null,
  IV: "typeIV",
  "open reel": null,
} as const satisfies Record<TapeType, string | null>;

const TYPES: ReadonlyArray<TapeType | null> = [null, ...TAPE_TYPES];

/** Which of the trimmers sets what on a channel, for every type of tape (null) or for one. */
export function recordSlot(what: RecordTrimmer, channel: 0 | 1, type: TapeType | null): number {
  const place = TYPES.indexOf(type);
  return 2 * (RECORD_TRIMMERS.length * place + RECORD_TRIMMERS.indexOf(what)) + channel;
}
export const RECORD_SLOTS = 2 * RECORD_TRIMMERS.length * TYPES.length;

interface Wrong {
  amplifierThird: number;
  lean: number;
}

class Channel {
  private response: FastFir;
  private tuned = "";
  private readonly history = new Float64Array(2 * HALF_TAPS);
  private readonly lift: SectionFilter;
  private readonly drop: SectionFilter;

  constructor(private readonly sampleRateHz: number) {
    const [zero, pole] = [LIFT_FROM_HZ, LIFT_TO_HZ].map((hz) => prewarp(hz, sampleRateHz));
    const shelf = (numerator: number, denominator: number) =>
      new SectionFilter(
        digitalSection(
          { numerator: [0, 1 / numerator, 1], denominator: [0, 1 / denominator, 1] },
          sampleRateHz,
        ),
      );
    this.lift = shelf(zero, pole);
    this.drop = shelf(pole, zero);
    this.response = new FastFir(
      tapsFor(() => 1, sampleRateHz),
      this.history,
    );
  }

  push(input: Float64Array, { biasDb, trebleDb, gain }: Standing, speedCmPerS: number, wrong: Wrong) {
    const amplified = input.map((v) => gain * v);
    if (wrong.amplifierThird > LEAST_LINEAR) bend(amplified, wrong.amplifierThird);
    this.tune(biasDb, trebleDb, speedCmPerS);
    const kept = Math.min(amplified.length, this.history.length);
    this.history.copyWithin(0, kept);
    this.history.set(amplified.subarray(amplified.length - kept), this.history.length - kept);
    const out = this.response.push(amplified);
    this.lift.push(out);
    magnetise(out, biasDb, wrong.lean);
    this.drop.push(out);
    return out;
  }

  private tune(biasDb: number, trebleDb: number, speedCmPerS: number): void {
    const key = `${biasDb.toFixed(3)} ${trebleDb.toFixed(3)}`;
    if (key === this.tuned) return;
    this.tuned = key;
    const gain = (hz: number) =>
      amplitudeOf(sensitivityDb(biasDb, hz, speedCmPerS) + trebleShelfDb(trebleDb, hz));
    this.response = new FastFir(tapsFor(gain, this.sampleRateHz), this.history);
  }
}

/** An amplifier that runs out of current: odd and even terms of its own. */
function bend(x: Float64Array, third: number): void {
  const limit = limitFor(third);
  const even = 2 * SECOND_SHARE * third;
  for (let i = 0; i < x.length; i++) {
    const bent = limit * Math.tanh(x[i] / limit);
    x[i] = bent + even * bent * bent;
  }
}

/** The third harmonic of a middle tone lies a little higher than the tone, where the lift begins: it comes out lower. */
const THIRD_DROPS = 1.05;

/** The level at which a tanh has to saturate to give a share of third harmonic at the reference level: A²/12s². */
const limitFor = (third: number): number => Math.sqrt(1 / (12 * third));

/** The tape's own transfer: it saturates smoothly, and is deaf to small signals when its bias is far too low. */
function magnetise(x: Float64Array, biasDb: number, lean: number): void {
  const limit = limitFor(THIRD_DROPS * thirdShare(biasDb));
  const under = Math.max(0, DEAF_BELOW_DB - biasDb) / 4;
  const deaf = DEAF * under * under;
  const still = limit * Math.tanh(lean / limit);
  for (let i = 0; i < x.length; i++) {
    const heard = deaf > LEAST_LINEAR ? x[i] - 0.5 * deaf * Math.tanh(x[i] / deaf) : x[i];
    x[i] = limit * Math.tanh((heard + lean) / limit) - still;
  }
}
