import { amplitudeOf, powerDb } from "@/core/dsp/decibels";
import { FastFir } from "@/core/dsp/fast-fir";
import { digitalSection, prewarp, SectionFilter } from "@/core/dsp/filter-section";
import { BIAS_OVER_TYPE_I_DB, TAPE_TYPES, type TapeType } from "@/core/standards/tape-types";
import { HALF_TAPS, tapsFor } from "./gain-taps";
import type { Stereo } from "./stereo";
import { ordinary, sensitivityDb, thirdShare, trebleShelfDb, type TapeFormula } from "./tape-formula";
import type { TransportParameters } from "./transport-parameters";
import { Trimmer } from "./trimmer";

/** What is turned on the record side, for each channel. */
export const RECORD_TRIMMERS = ["record-level", "bias", "record-response"] as const;
export type RecordTrimmer = (typeof RECORD_TRIMMERS)[number];

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
const KNOB_RANGE_TURNS = 5 / 12;
const WITHOUT_BIAS_DB = -14;
/** The headroom extension begins to lower bias where treble is so loud re 0, and does it in so many steps a dB. */
const EASES_FROM_DB = -14;
const EASES_STEPS = 4;
const MOST_TAPS = 40;
/** As steep as a multiplex filter has to be between 15 and 19 kHz. */
const MULTIPLEX_ORDER = 24;

/** How the record side of a channel stands for the tape in the machine. */
interface Standing {
  /** Bias re what this tape wants, dB. */
  biasDb: number;
  trebleDb: number;
  gain: number;
  /** How far the headroom extension lowers it at the moment. */
  easedDb: number;
}

/**
 * The record amplifiers, bias and the tape's own transfer: from what goes in to the flux of each track, re the reference
 * level. Trimmers for each channel, for every type of tape and for each type. Delays by `delayFrames`.
 */
export class RecordSide {
  /** By `recordSlot`. */
  readonly trimmers: readonly Trimmer[];
  /** Knobs on the front, of bias and of level. */
  readonly knobs: readonly [Trimmer, Trimmer];
  readonly delayFrames = HALF_TAPS;
  /** Its switches: a low-pass against the pilot tone of a tuner, and bias that gives way to loud treble. */
  multiplex = false;
  headroom = false;
  private readonly trebleBefore = [0, 0];
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
    this.knobs = [new Trimmer(0, KNOB_RANGE_TURNS), new Trimmer(0, KNOB_RANGE_TURNS)];
    this.channels = [new Channel(sampleRateHz), new Channel(sampleRateHz)];
  }

  /** Another tape is recorded on, from its beginning. */
  load(formula: TapeFormula): void {
    this.formula = formula;
    this.channels[0] = new Channel(this.sampleRateHz);
    this.channels[1] = new Channel(this.sampleRateHz);
  }

  /**
   * As much flux of both tracks as went in.
   * @param oscillatorDb amplitude of the oscillator re what it should be
   */
  push(input: Readonly<Stereo>, oscillatorDb = 0): Stereo {
    const { parameters: p } = this;
    return [0, 1].map((c) => {
      const channel = c as 0 | 1;
      const stands = this.standing(channel);
      const eased = this.headroom ? this.easeDb(c, input[c], stands.gain) : 0;
      const standing = { ...stands, biasDb: stands.biasDb + oscillatorDb, easedDb: eased };
      return this.channels[c].push(input[c], standing, p["speedCmPerS"], {
        amplifierThird: p["record.amplifierThirdPercent"] / 100,
        lean: LEAN * p["head.magnetised"],
        cornerHz: this.multiplex ? p["multiplex.cornerHz"] : 0,
      });
    }) as Stereo;
  }

  /** By how much the headroom extension lowers bias for the treble of a block, in steps. */
  private easeDb(c: number, input: Float64Array, gain: number): number {
    let power = 0;
    let before = this.trebleBefore[c];
    for (const sample of input) {
      power += (sample - before) ** 2;
      before = sample;
    }
    this.trebleBefore[c] = before;
    // a difference of neighbours rises with frequency: as high as the tone itself at a sixth of the rate
    const trebleDb = powerDb((2 * gain * gain * power) / Math.max(1, input.length));
    const most = this.parameters["headroom.biasDb"];
    const share = Math.max(0, Math.min(1, (trebleDb - EASES_FROM_DB) / -EASES_FROM_DB));
    return Math.round(most * share * EASES_STEPS) / EASES_STEPS;
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
      p["panel.biasDbPerTurn"] * this.knobs[0].spindleTurns +
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
      p["panel.levelDbPerTurn"] * this.knobs[1].spindleTurns +
      formula.sensitivityDb -
      p[left ? "output.leftDb" : "output.rightDb"];
    return { biasDb, trebleDb, gain: amplitudeOf(levelDb), easedDb: 0 };
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

interface Amplifier {
  amplifierThird: number;
  lean: number;
  /** Of its multiplex filter; 0 for none. */
  cornerHz: number;
}

class Channel {
  private response: FastFir;
  private tuned = "";
  /** What was designed before: a headroom extension goes to and fro between a few. */
  private readonly taps = new Map<string, Float64Array>();
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

  push(input: Float64Array, standing: Standing, speedCmPerS: number, amplifier: Amplifier): Float64Array {
    const { biasDb, trebleDb, gain, easedDb } = standing;
    const { amplifierThird, lean, cornerHz } = amplifier;
    const amplified = input.map((v) => gain * v);
    if (amplifierThird > LEAST_LINEAR) bend(amplified, amplifierThird);
    this.tune(biasDb - easedDb, trebleDb, speedCmPerS, cornerHz);
    const kept = Math.min(amplified.length, this.history.length);
    this.history.copyWithin(0, kept);
    this.history.set(amplified.subarray(amplified.length - kept), this.history.length - kept);
    const out = this.response.push(amplified);
    this.lift.push(out);
    magnetise(out, Math.max(WITHOUT_BIAS_DB, biasDb), lean, easedDb);
    this.drop.push(out);
    return out;
  }

  private tune(biasDb: number, trebleDb: number, speedCmPerS: number, cornerHz: number): void {
    const key = `${biasDb.toFixed(3)} ${trebleDb.toFixed(3)} ${cornerHz}`;
    if (key === this.tuned) return;
    this.tuned = key;
    const gain = (hz: number) =>
      multiplexGain(hz, cornerHz) *
      amplitudeOf(sensitivityDb(biasDb, hz, speedCmPerS) + trebleShelfDb(trebleDb, hz));
    const known = this.taps.get(key);
    const taps = known ?? tapsFor(gain, this.sampleRateHz);
    if (!known && this.taps.size < MOST_TAPS) this.taps.set(key, taps);
    this.response = new FastFir(taps, this.history);
  }
}

const multiplexGain = (hz: number, cornerHz: number): number =>
  cornerHz > 0 ? 1 / Math.sqrt(1 + (hz / cornerHz) ** (2 * MULTIPLEX_ORDER)) : 1;

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
function magnetise(x: Float64Array, biasDb: number, lean: number, easedDb: number): void {
  // treble that bias does not erase again while it is recorded saturates later
  const limit = amplitudeOf(easedDb) * limitFor(THIRD_DROPS * thirdShare(biasDb));
  const under = Math.max(0, DEAF_BELOW_DB - biasDb) / 4;
  const deaf = DEAF * under * under;
  const still = limit * Math.tanh(lean / limit);
  for (let i = 0; i < x.length; i++) {
    const heard = deaf > LEAST_LINEAR ? x[i] - 0.5 * deaf * Math.tanh(x[i] / deaf) : x[i];
    x[i] = limit * Math.tanh((heard + lean) / limit) - still;
  }
}
