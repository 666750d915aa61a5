import { amplitudeOf, powerDb } from "@/core/dsp/decibels";
import { joined } from "@/core/dsp/joined";
import { SeededRandom } from "@/core/dsp/seeded-random";
import type { TapeType } from "@/core/standards/tape-types";
import { azimuthDelay } from "./playback-gain";
import {
  records,
  reverses,
  runsTape,
  switchesOf,
  type DeckKey,
  type DeckStatus,
  type DeckSwitches,
} from "./deck-status";
import { PlaybackFilter } from "./playback-filter";
import { PlaybackSide } from "./playback-side";
import { endlessTone, type Tape, type TapeSide } from "./tape";
import { RecordSide } from "./record-side";
import { TapeRecorder } from "./tape-recorder";
import { Transport } from "./transport";
import { repaired } from "./practice-repairs";
import type { TransportParameters } from "./transport-parameters";
import { NoiseReduction } from "./noise-reduction";
import { Oscillator } from "./oscillator";
import type { Trimmer } from "./trimmer";

export interface PracticeDeckOptions {
  parameters: TransportParameters;
  sampleRateHz: number;
  seed?: number;
  /** The tape that is in the machine; stopped at its start. */
  tape?: Tape;
  /** Instead of a tape: a tone without an end at this frequency, playing at once. */
  toneHz?: number;
}

/** The next block of what is to be recorded, full scale = ±1. */
export type RecordInput = (frames: number) => [Float64Array, Float64Array];

/** Winding passes so many times the tape of playing. */
const WIND_SPEED = 40;
/** As much as one transform of the amplifiers' filters takes. */
const BLOCK = 1536;
/** The line stages before the tape are quieter than its playback by so much. */
const SOURCE_NOISE_DB = -20;
const MAGNETISED_HISS_DB = 5;
/** A sine at its 0 comes in so high. */
const ZERO_IN_DBFS = -12;
const METER_SECONDS = 0.2;
/** What comes from beside and is fainter is not there. */
const LEAST_HEARD_DB = -100;
const FARTHER_DB = 15;
const LOWEST_METER_DB = -40;

/**
 * A practice machine with a tape in it: keys, transport, head and amplifier of both channels, noise and hum. The
 * same seed, keys and turns give the same sound. While recording, a two-head machine gives out what goes in; a
 * three-head machine gives out the tape.
 */
export class PracticeDeck {
  readonly transport: Transport;
  private tape: Tape;
  private key: DeckKey = "stop";
  private side: 0 | 1 = 0;
  /** Seconds of tape on the left of the heads, as side A counts. */
  private place = 0;
  private counterZero = 0;
  /** What can be turned on the playback side. */
  readonly playback: PlaybackSide;
  private filters: [PlaybackFilter, PlaybackFilter];
  /** What each filter was made for. */
  private tuned: [string, string] = ["", ""];
  private recorder: TapeRecorder | null = null;
  private input: RecordInput | null = null;
  /** What a machine with three heads gives out while it records. */
  monitor: "source" | "tape" = "tape";
  private readonly random: SeededRandom;
  private readonly recordSide: RecordSide;
  private readonly oscillator: Oscillator;
  /** Null while it is switched off. */
  private reduction: NoiseReduction | null = null;
  /** Places on the side that the record side's delay still holds back. */
  private waiting = new Float64Array(0);
  /** What goes in while it records. */
  private source: [Float64Array, Float64Array] | null = null;
  private humPhase = 0;
  private recordingSeconds = 0;
  /** Mean square of what its meters are shown, re a sine at 0. */
  private readonly metered: [number, number] = [0, 0];

  private readonly options: PracticeDeckOptions;

  constructor(options: PracticeDeckOptions) {
    const p = { ...options.parameters };
    const { sampleRateHz, seed = 1, tape, toneHz = 3150 } = options;
    this.options = { ...options, parameters: p };
    this.transport = new Transport(p, sampleRateHz, seed);
    this.playback = new PlaybackSide(p, seed);
    this.recordSide = new RecordSide(p, sampleRateHz);
    this.oscillator = new Oscillator(p);
    this.random = new SeededRandom(seed + 0x5eed);
    this.tape =
      tape ?? endlessTone(toneHz, p.speedCmPerS, p["playback.t1Microseconds"], p["playback.t2Microseconds"]);
    this.filters = this.newFilters();
    if (!tape) {
      this.place = 1;
      this.key = "play";
    }
  }

  /** Everything that turns, in the order of `practice-slots`. */
  get trimmers(): readonly Trimmer[] {
    const { azimuthScrews, levelTrimmers, equaliserTrimmers } = this.playback;
    return [
      ...this.transport.trimmers,
      ...azimuthScrews,
      ...levelTrimmers,
      ...equaliserTrimmers,
      ...this.recordSide.trimmers,
      ...this.recordSide.knobs,
    ];
  }

  get tapeSwitch(): TapeType | null {
    return this.recordSide.tapeSwitch;
  }

  set tapeSwitch(type: TapeType | null) {
    this.recordSide.tapeSwitch = type;
  }

  get switches(): DeckSwitches {
    const { multiplex, headroom } = this.recordSide;
    return { reduction: this.reduction !== null, multiplex, headroom };
  }

  /** Works its switches; one that a machine does not have stays off. */
  set switches(wanted: DeckSwitches) {
    const { parameters } = this.options;
    const has = switchesOf(parameters);
    this.recordSide.multiplex = wanted.multiplex && has.includes("multiplex");
    this.recordSide.headroom = wanted.headroom && has.includes("headroom");
    const reduces = wanted.reduction && has.includes("reduction");
    if (reduces !== (this.reduction !== null)) this.reduction = reduces ? this.newReduction() : null;
  }

  /** Does work that mends what is wrong; other work changes nothing. */
  repair(work: string): void {
    const { parameters } = this.options;
    Object.assign(parameters, repaired(work, parameters));
    if (this.reduction) this.reduction = this.newReduction();
  }

  private newReduction(): NoiseReduction {
    const { parameters, sampleRateHz } = this.options;
    return new NoiseReduction(parameters, sampleRateHz);
  }

  get status(): DeckStatus {
    const { key, side } = this;
    const { id: tapeId, seconds: lengthSeconds } = this.tape;
    const positionSeconds = this.along(this.place);
    const counter = this.turns() - this.counterZero;
    const { parameters: p } = this.options;
    const meterDb = this.metered.map((power, c) =>
      Math.max(LOWEST_METER_DB, powerDb(power) + p[c === 0 ? "meter.leftDb" : "meter.rightDb"]),
    ) as [number, number];
    return {
      key,
      tapeId,
      side,
      positionSeconds,
      lengthSeconds,
      meterDb,
      counter,
      monitor: this.monitor,
      tapeSwitch: this.tapeSwitch,
      switches: this.switches,
      recordingSeconds: this.recordingSeconds,
      warmSeconds: this.oscillator.warmSeconds,
    };
  }

  load(tape: Tape): void {
    this.press("stop");
    this.tape = tape;
    this.filters = this.newFilters();
    this.side = 0;
    this.place = 0;
    this.resetCounter();
  }

  /** Takes the tape out and puts it in with the other side to the heads. */
  turnSide(): void {
    this.press("stop");
    this.side = this.side === 0 ? 1 : 0;
  }

  /** Stands where it was left: at a place of its side, as warm as it was. */
  standAt(positionSeconds: number, warmSeconds: number): void {
    this.place = this.along(positionSeconds);
    this.oscillator.warmSeconds = warmSeconds;
  }

  resetCounter(): void {
    this.counterZero = this.turns();
  }

  /** What is recorded when record is pressed; null records silence. */
  setInput(input: RecordInput | null): void {
    this.input = input;
  }

  /** Presses a key. Reverse is for machines that have it, and plays or records the side that faces away. */
  press(key: DeckKey): void {
    if (reverses(key) && !this.options.parameters["deck.autoReverse"]) return;
    this.recorder?.stop();
    this.recorder = null;
    this.key = key;
    if (runsTape(key)) {
      const reverse = reverses(key);
      this.transport.way = { reverse, sideB: (this.side === 1) !== reverse };
      this.transport.tapeMm = 1000 * this.metres(this.along(this.place));
      this.transport.start();
    }
    if (records(key)) {
      this.recordingSeconds = 0;
      this.recorder = new TapeRecorder(this.tape.sides[this.playedSide]);
      this.recordSide.load(this.tape.formula);
      this.waiting = new Float64Array(0);
    }
  }

  /** The next `frames` samples of left and right, full scale = ±1. */
  render(frames: number): [Float64Array, Float64Array] {
    const left = new Float64Array(frames);
    const right = new Float64Array(frames);
    for (let at = 0; at < frames; at += BLOCK) {
      const count = Math.min(BLOCK, frames - at);
      const [l, r] = this.renderBlock(count);
      left.set(l, at);
      right.set(r, at);
    }
    return [left, right];
  }

  private renderBlock(frames: number): [Float64Array, Float64Array] {
    const { parameters: p, sampleRateHz } = this.options;
    this.oscillator.pass(frames / sampleRateHz, records(this.key));
    if (records(this.key)) this.recordingSeconds += frames / sampleRateHz;
    this.source = null;
    let left: Float64Array = new Float64Array(frames);
    let right: Float64Array = new Float64Array(frames);
    const [leftGain, rightGain] = ([0, 1] as const).map((c) =>
      amplitudeOf(p[c === 0 ? "output.leftDb" : "output.rightDb"] + this.playback.gainDb(c)),
    );
    if (!runsTape(this.key)) {
      this.wind(frames / sampleRateHz);
      this.transport.rest(frames / sampleRateHz);
    } else {
      const places = this.move(frames);
      if (records(this.key)) [left, right] = this.record(places);
      else this.read(places, left, right);
    }
    this.retune();
    left = this.filters[0].push(left);
    right = this.filters[1].push(right);
    if (this.source) this.meter(this.source, amplitudeOf(-ZERO_IN_DBFS));
    else this.meter([left, right], 1);

    // a magnetised head hisses
    const noise = amplitudeOf(p["noise.db"] + MAGNETISED_HISS_DB * p["head.magnetised"]);
    const hum = amplitudeOf(p["hum.db"]);
    const humStep = (2 * Math.PI * p["hum.frequencyHz"]) / sampleRateHz;
    let [re, im] = [Math.cos(this.humPhase), Math.sin(this.humPhase)];
    const [stepRe, stepIm] = [Math.cos(humStep), Math.sin(humStep)];
    this.humPhase = (this.humPhase + frames * humStep) % (2 * Math.PI);
    for (let i = 0; i < frames; i++) {
      const before = re;
      re = re * stepRe - im * stepIm;
      im = before * stepIm + im * stepRe;
      const mains = hum * im;
      left[i] = leftGain * left[i] + mains + noise * this.random.normal();
      right[i] = rightGain * right[i] + mains + noise * this.random.normal();
    }
    // it stands behind the playback level trimmers, where 0 is what it should be
    const zeros = [amplitudeOf(p["output.leftDb"]), amplitudeOf(p["output.rightDb"])] as const;
    if (this.reduction) [left, right] = this.reduction.decoded([left, right], zeros);
    return this.source && records(this.key) && this.givesSource
      ? this.monitored(this.source, left, right)
      : [left, right];
  }

  /** While it records it gives out what goes in: with two heads always, with three by its monitor. */
  private get givesSource(): boolean {
    return this.options.parameters["deck.heads"] < 3 || this.monitor === "source";
  }

  /** While it records its meters show what goes in, otherwise what comes off the tape. */
  private meter(shown: readonly [Float64Array, Float64Array], gain: number): void {
    const share = Math.min(1, shown[0].length / this.options.sampleRateHz / METER_SECONDS);
    shown.forEach((x, c) => {
      let sum = 0;
      for (let i = 0; i < x.length; i++) sum += x[i] * x[i];
      const power = (2 * gain * gain * sum) / x.length;
      this.metered[c] += share * (power - this.metered[c]);
    });
  }

  /** What goes in comes out, beside the machine's own noise and hum; the playback side has no part in it. */
  private monitored(
    source: [Float64Array, Float64Array],
    left: Float64Array,
    right: Float64Array,
  ): [Float64Array, Float64Array] {
    const beside = amplitudeOf(SOURCE_NOISE_DB);
    return [source[0].map((v, i) => v + beside * left[i]), source[1].map((v, i) => v + beside * right[i])];
  }

  /** Moves the tape sample by sample, and gives the place on the side that is played for each. */
  private move(frames: number): Float64Array {
    const { parameters: p, sampleRateHz } = this.options;
    // the tape's own seconds pass faster on a machine that runs it at a higher speed
    const step = p.speedCmPerS / this.tape.speedCmPerS / sampleRateHz;
    const way = this.forwards ? 1 : -1;
    const fromItsEnd = reverses(this.key) !== (this.side === 1);
    const { transport } = this;
    const { seconds } = this.tape;
    const places = new Float64Array(frames);
    // where it is takes the place of how fast it goes, one after the other
    transport.run(places);
    let { place } = this;
    for (let i = 0; i < frames; i++) {
      place += way * step * places[i];
      places[i] = fromItsEnd ? seconds - place : place;
    }
    this.place = place;
    if (this.place < 0 || this.place > this.tape.seconds) this.press("stop");
    return places;
  }

  private read(places: Float64Array, left: Float64Array, right: Float64Array): void {
    const side = this.tape.sides[this.playedSide];
    const ratio = this.options.parameters.speedCmPerS / this.tape.speedCmPerS;
    const reverse = reverses(this.key);
    const delay = () => azimuthDelay(this.options.parameters, this.playback.wovenArcMinutes(reverse)) * ratio;
    const from = delay();
    this.playback.pass(places.length / this.options.sampleRateHz);
    readInto(side, 0, places, 0, 0, left);
    readInto(side, 1, places, from, delay(), right);
    this.addOtherSide(places, left, right);
    const acrossDb = this.options.parameters["head.crosstalkDb"];
    if (acrossDb < LEAST_HEARD_DB) return;
    const across = amplitudeOf(acrossDb);
    for (let i = 0; i < left.length; i++) {
      const [l, r] = [left[i], right[i]];
      left[i] += across * r;
      right[i] += across * l;
    }
  }

  /** Tracks of the other direction that the head stands over beside its own: they run backwards. */
  private addOtherSide(places: Float64Array, left: Float64Array, right: Float64Array): void {
    const db = this.options.parameters["head.otherSideDb"];
    const other = this.tape.sides[this.playedSide === 0 ? 1 : 0];
    if (db < LEAST_HEARD_DB || other.isEmpty) return;
    // the right tracks are next to each other in the middle of the tape
    const near = amplitudeOf(db);
    const far = amplitudeOf(db - FARTHER_DB);
    const theirs = places.map((place) => this.tape.seconds - place);
    const heard = new Float64Array(places.length);
    other.readMany(1, theirs, heard);
    for (let i = 0; i < heard.length; i++) right[i] += near * heard[i];
    other.readMany(0, theirs, heard);
    for (let i = 0; i < heard.length; i++) left[i] += far * heard[i];
  }

  private record(places: Float64Array): [Float64Array, Float64Array] {
    const p = this.options.parameters;
    const frames = places.length;
    const silence: [Float64Array, Float64Array] = [new Float64Array(frames), new Float64Array(frames)];
    const [inLeft, inRight] = this.input?.(frames) ?? silence;
    this.write([inLeft, inRight], places);
    this.source = [inLeft, inRight];
    if (this.givesSource) return silence;
    const behind = p["deck.headDistanceMm"] / (10 * this.tape.speedCmPerS);
    const [left, right] = silence;
    this.read(
      places.map((place) => place - behind),
      left,
      right,
    );
    return [left, right];
  }

  /** Puts what goes in on the tape, each sample where it passed the head. */
  private write(input: readonly [Float64Array, Float64Array], places: Float64Array): void {
    if (!this.recorder) return;
    const flux = this.recordSide.push(
      this.reduction?.encoded(input, amplitudeOf(ZERO_IN_DBFS)) ?? input,
      this.oscillator.amplitudeDb,
    );
    const all = joined(this.waiting, places);
    // the first samples that come out went in before the key was pressed
    const late = Math.max(0, Math.min(places.length, this.recordSide.delayFrames - this.waiting.length));
    const due = all.subarray(0, places.length - late);
    this.waiting = all.slice(due.length);
    const [left, right] = flux.map((x) => x.slice(late));
    const residue = amplitudeOf(-this.oscillator.eraseDepthDb(this.tape.formula.type, reverses(this.key)));
    if (due.length > 0) this.recorder.push(left, right, due, residue);
  }

  private wind(seconds: number): void {
    if (this.key === "stop") return;
    const onwards = (this.key === "wind") === (this.side === 0);
    this.place += (onwards ? 1 : -1) * WIND_SPEED * seconds;
    const held = Math.max(0, Math.min(this.tape.seconds, this.place));
    if (held !== this.place) this.key = "stop";
    this.place = held;
  }

  /** Whether side A's own order runs forwards past the heads. */
  private get forwards(): boolean {
    return (this.side === 0) !== reverses(this.key);
  }

  private get playedSide(): 0 | 1 {
    return reverses(this.key) ? (this.side === 0 ? 1 : 0) : this.side;
  }

  /** Seconds from the start of the side that faces the heads. */
  private along(place: number): number {
    return this.side === 0 ? place : this.tape.seconds - place;
  }

  private metres(seconds: number): number {
    return (seconds * this.tape.speedCmPerS) / 100;
  }

  private turns(): number {
    const p = this.options.parameters;
    const hub = p["reel.hubRadiusMm"];
    const thickness = p["tape.thicknessMicrometres"] / 1000;
    const area = (thickness * 1000 * this.metres(this.along(this.place))) / Math.PI;
    return (Math.sqrt(hub * hub + area) - hub) / thickness;
  }

  private newFilters(): [PlaybackFilter, PlaybackFilter] {
    const make = (c: 0 | 1) => {
      const settings = this.settingsOf(c);
      this.tuned[c] = keyOf(settings);
      return new PlaybackFilter(settings, this.tape, this.options.sampleRateHz);
    };
    const filters: [PlaybackFilter, PlaybackFilter] = [make(0), make(1)];
    this.matchDelays(filters);
    return filters;
  }

  /** Gives the filters what was turned since the last block. */
  private retune(): void {
    this.filters.forEach((filter, c) => {
      const settings = this.settingsOf(c as 0 | 1);
      if (keyOf(settings) === this.tuned[c]) return;
      this.tuned[c] = keyOf(settings);
      filter.retune(settings);
    });
    this.matchDelays(this.filters);
  }

  /** A filter in one channel alone would make that channel later than the other. */
  private matchDelays(filters: [PlaybackFilter, PlaybackFilter]): void {
    if (filters[0].delays === filters[1].delays) return;
    filters.forEach((filter, c) => {
      if (!filter.delays) filter.retune(this.settingsOf(c as 0 | 1), true);
    });
  }

  /** The parameters of a channel with its screws and trimmers as they stand. */
  private settingsOf(channel: 0 | 1): TransportParameters {
    return {
      ...this.options.parameters,
      "head.azimuthArcMinutes": this.playback.tiltArcMinutes(reverses(this.key)),
      "playback.t2Microseconds": this.playback.t2Microseconds(channel),
    };
  }
}

const RETUNED = [
  "head.azimuthArcMinutes",
  "playback.t2Microseconds",
  "head.spacingMicrometres",
  "head.gapMicrometres",
  "head.resonanceHz",
] as const;

const keyOf = (settings: TransportParameters): string =>
  RETUNED.map((name) => settings[name].toFixed(2)).join(" ");

/** Reads a track so many seconds late, the lateness going evenly from one value to the other. */
function readInto(
  side: TapeSide,
  track: 0 | 1,
  places: Float64Array,
  laterFrom: number,
  laterTo: number,
  out: Float64Array,
): void {
  const step = (laterTo - laterFrom) / places.length;
  const late = new Float64Array(places.length);
  for (let i = 0; i < late.length; i++) late[i] = places[i] - laterFrom - i * step;
  side.readMany(track, late, out);
}
