import { amplitudeOf } from "@/core/dsp/decibels";
import type { TapeType } from "@/core/standards/tape-types";
import {
  records,
  reverses,
  runsTape,
  switchesOf,
  type DeckKey,
  type DeckStatus,
  type DeckSwitches,
} from "./deck-status";
import { LevelMeters } from "./level-meters";
import { LoadedTape } from "./loaded-tape";
import { NoiseReduction } from "./noise-reduction";
import { Oscillator } from "./oscillator";
import { OwnNoise } from "./own-noise";
import { PlaybackFilters } from "./playback-filters";
import { PlaybackHead } from "./playback-head";
import { PlaybackSide } from "./playback-side";
import { repaired } from "./practice-repairs";
import { RecordHead } from "./record-head";
import { RecordSide } from "./record-side";
import { silentStereo, type Stereo } from "./stereo";
import { endlessTone, type Tape } from "./tape";
import { Transport } from "./transport";
import type { TransportParameters } from "./transport-parameters";
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
export type RecordInput = (frames: number) => Stereo;

/** As much as one transform of the amplifiers' filters takes. */
const BLOCK = 1536;
/** The line stages before the tape are quieter than its playback by so much. */
const SOURCE_NOISE_DB = -20;
/** A sine at its 0 comes in so high. */
const ZERO_IN_DBFS = -12;

/**
 * A practice machine with a tape in it: keys, transport, head and amplifier of both channels, noise and hum. The
 * same seed, keys and turns give the same sound. While recording, a two-head machine gives out what goes in; a
 * three-head machine gives out the tape.
 */
export class PracticeDeck {
  readonly transport: Transport;
  private loaded: LoadedTape;
  private key: DeckKey = "stop";
  /** What can be turned on the playback side. */
  readonly playback: PlaybackSide;
  private readonly head: PlaybackHead;
  private filters: PlaybackFilters;
  /** Null while it does not record. */
  private recordHead: RecordHead | null = null;
  private input: RecordInput | null = null;
  /** What a machine with three heads gives out while it records. */
  monitor: "source" | "tape" = "tape";
  private readonly noise: OwnNoise;
  private readonly recordSide: RecordSide;
  private readonly oscillator: Oscillator;
  /** Null while it is switched off. */
  private reduction: NoiseReduction | null = null;
  private recordingSeconds = 0;
  private readonly meters: LevelMeters;

  private readonly options: PracticeDeckOptions;

  constructor(options: PracticeDeckOptions) {
    const p = { ...options.parameters };
    const { sampleRateHz, seed = 1, tape, toneHz = 3150 } = options;
    this.options = { ...options, parameters: p };
    this.transport = new Transport(p, sampleRateHz, seed);
    this.playback = new PlaybackSide(p, seed);
    this.head = new PlaybackHead(p, this.playback, sampleRateHz);
    this.recordSide = new RecordSide(p, sampleRateHz);
    this.oscillator = new Oscillator(p);
    this.noise = new OwnNoise(p, sampleRateHz, seed + 0x5eed);
    this.meters = new LevelMeters(p, sampleRateHz);
    this.loaded = new LoadedTape(
      tape ?? endlessTone(toneHz, p.speedCmPerS, p["playback.t1Microseconds"], p["playback.t2Microseconds"]),
      p,
    );
    this.filters = this.newFilters();
    if (!tape) {
      this.loaded.positionSeconds = 1;
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
    const { key, loaded, monitor, tapeSwitch, switches, recordingSeconds } = this;
    return {
      key,
      tapeId: loaded.tape.id,
      side: loaded.side,
      positionSeconds: loaded.positionSeconds,
      lengthSeconds: loaded.tape.seconds,
      meterDb: this.meters.db,
      counter: loaded.counter,
      monitor,
      tapeSwitch,
      switches,
      recordingSeconds,
      warmSeconds: this.oscillator.warmSeconds,
    };
  }

  load(tape: Tape): void {
    this.press("stop");
    this.loaded = new LoadedTape(tape, this.options.parameters);
    this.filters = this.newFilters();
  }

  /** Takes the tape out and puts it in with the other side to the heads. */
  turnSide(): void {
    this.press("stop");
    this.loaded.turn();
  }

  /** Stands where it was left: at a place of its side, as warm as it was. */
  standAt(positionSeconds: number, warmSeconds: number): void {
    this.loaded.positionSeconds = positionSeconds;
    this.oscillator.warmSeconds = warmSeconds;
  }

  resetCounter(): void {
    this.loaded.resetCounter();
  }

  /** What is recorded when record is pressed; null records silence. */
  setInput(input: RecordInput | null): void {
    this.input = input;
  }

  /** Presses a key. Reverse is for machines that have it, and plays or records the side that faces away. */
  press(key: DeckKey): void {
    if (reverses(key) && !this.options.parameters["deck.autoReverse"]) return;
    this.recordHead?.stop();
    this.recordHead = null;
    this.key = key;
    const { loaded } = this;
    if (runsTape(key)) {
      const reverse = reverses(key);
      this.transport.way = { reverse, sideB: (loaded.side === 1) !== reverse };
      this.transport.tapeMm = 1000 * loaded.passedMetres;
      this.transport.start();
    }
    if (records(key)) {
      const { tape } = loaded;
      this.recordingSeconds = 0;
      this.recordHead = new RecordHead(tape.sides[loaded.playedSide(key)], this.recordSide.delayFrames);
      this.recordSide.load(tape.formula);
    }
  }

  /** The next `frames` samples of left and right, full scale = ±1. */
  render(frames: number): Stereo {
    const [left, right] = silentStereo(frames);
    for (let at = 0; at < frames; at += BLOCK) {
      const count = Math.min(BLOCK, frames - at);
      const [l, r] = this.renderBlock(count);
      left.set(l, at);
      right.set(r, at);
    }
    return [left, right];
  }

  private renderBlock(frames: number): Stereo {
    const { parameters: p, sampleRateHz } = this.options;
    const seconds = frames / sampleRateHz;
    this.oscillator.pass(seconds, records(this.key));
    if (records(this.key)) this.recordingSeconds += seconds;
    const gainOf = (c: 0 | 1) =>
      amplitudeOf(p[c === 0 ? "output.leftDb" : "output.rightDb"] + this.playback.gainDb(c));
    const gains = [gainOf(0), gainOf(1)] as const;
    const { source, picked } = this.pass(frames);
    const played = this.filters.push(picked);
    // while it records its meters show what goes in, otherwise what comes off the tape
    if (source) this.meters.show(source, amplitudeOf(-ZERO_IN_DBFS));
    else this.meters.show(played, 1);
    this.noise.amplify(played, gains);
    // it stands behind the playback level trimmers, where 0 is what it should be
    const zeros = [amplitudeOf(p["output.leftDb"]), amplitudeOf(p["output.rightDb"])] as const;
    const out = this.reduction?.decoded(played, zeros) ?? played;
    return source && this.givesSource ? monitored(source, out) : out;
  }

  /** Lets the tape pass by: what goes in, null while it does not record, and what the playback head picks up. */
  private pass(frames: number): { source: Stereo | null; picked: Stereo } {
    const { loaded, options } = this;
    const { sampleRateHz } = options;
    if (!runsTape(this.key)) {
      const seconds = frames / sampleRateHz;
      if (this.key !== "stop" && !loaded.wind(this.key === "wind", seconds)) this.key = "stop";
      this.transport.rest(seconds);
      return { source: null, picked: silentStereo(frames) };
    }
    // where it is takes the place of how fast it goes, one after the other
    const places = new Float64Array(frames);
    this.transport.run(places);
    if (!loaded.move(this.key, places, sampleRateHz)) this.press("stop");
    return this.recordHead
      ? this.record(this.recordHead, places)
      : { source: null, picked: this.read(places) };
  }

  /** While it records it gives out what goes in: with two heads always, with three by its monitor. */
  private get givesSource(): boolean {
    return this.options.parameters["deck.heads"] < 3 || this.monitor === "source";
  }

  private read(places: Float64Array): Stereo {
    const { tape } = this.loaded;
    const side = this.loaded.playedSide(this.key);
    return this.head.read({ tape, side, reverse: reverses(this.key) }, places);
  }

  /** Records what goes in, and reads it behind the record head where there is a head for that. */
  private record(head: RecordHead, places: Float64Array): { source: Stereo; picked: Stereo } {
    const { tape } = this.loaded;
    const source = this.input?.(places.length) ?? silentStereo(places.length);
    const flux = this.recordSide.push(
      this.reduction?.encoded(source, amplitudeOf(ZERO_IN_DBFS)) ?? source,
      this.oscillator.amplitudeDb,
    );
    head.push(
      flux,
      places,
      amplitudeOf(-this.oscillator.eraseDepthDb(tape.formula.type, reverses(this.key))),
    );
    if (this.givesSource) return { source, picked: silentStereo(places.length) };
    const behind = this.options.parameters["deck.headDistanceMm"] / (10 * tape.speedCmPerS);
    return { source, picked: this.read(places.map((place) => place - behind)) };
  }

  private newFilters(): PlaybackFilters {
    const { sampleRateHz, parameters } = this.options;
    const settingsOf = (channel: 0 | 1): TransportParameters => ({
      ...parameters,
      "head.azimuthArcMinutes": this.playback.tiltArcMinutes(reverses(this.key)),
      "playback.t2Microseconds": this.playback.t2Microseconds(channel),
    });
    return new PlaybackFilters(settingsOf, this.loaded.tape, sampleRateHz);
  }
}

/** What goes in comes out, beside the machine's own noise and hum; the playback side has no part in it. */
function monitored(source: Stereo, own: Stereo): Stereo {
  const beside = amplitudeOf(SOURCE_NOISE_DB);
  const heard = (c: 0 | 1) => source[c].map((v, i) => v + beside * own[c][i]);
  return [heard(0), heard(1)];
}
