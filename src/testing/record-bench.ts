import { MEASURING } from "@/core/alignment/registry";
import { blankTape, practiceTape, sequenceInput } from "@/core/practice/practice-tape";
import type { BlankTape } from "@/core/records/blank-tape";
import type { BiasSchool } from "@/core/records/job";
import type { JobRecords } from "@/core/records/job-records";
import type { FrontSwitch } from "@/core/records/machine";
import type { Circumstances } from "@/core/records/reading";
import type { ReferenceTape } from "@/core/reference/reference-tape";
import { PRESETS } from "@/core/signals/presets";
import type { Sequence } from "@/core/signals/sequence";
import { timelineOf } from "@/core/signals/timeline";
import type { TransportParameters } from "@/core/simulator/transport-parameters";
import type { MeasuringStationId } from "@/core/stations";
import type { MeasuringStation } from "@/core/stations/station";
import { PlaybackBench, type BenchOptions } from "./playback-bench";

const TAPE: ReferenceTape = {
  format: "unzel-reference-tape",
  version: 1,
  id: "level",
  name: "level",
  speedCmPerS: 4.76,
  frequencyUncertaintyPercent: 0.05,
  bands: [{ kind: "tone", role: "level", frequencyHz: 315, levelDb: 0, seconds: 60 }],
};
/** Until the last sound of a pass has been measured, at most. */
const AFTER_SECONDS = 6;
const OTHER_SIDE_SECONDS = 12;

/** A technician at the record stations: records the station's sequence, hears it come back, turns by the card. */
export class RecordBench extends PlaybackBench {
  private blank: BlankTape;

  constructor(
    machineId: string,
    blanks: BlankTape | readonly BlankTape[],
    settings: Partial<TransportParameters>,
    seed: number,
    options?: BenchOptions,
  ) {
    super(machineId, TAPE, settings, seed, options);
    const all = [blanks].flat();
    this.records.job.blankTapes = all.map(({ id, name }) => ({ id, name }));
    this.records.blanks = all;
    this.blank = all[0];
    this.on(this.blank);
    this.deck.load(practiceTape(TAPE));
  }

  /** Goes on with another tape to record on. */
  on(blank: BlankTape): void {
    this.blank = blank;
    this.circumstances = { recordingOn: blank.id };
    this.deck.tapeSwitch = blank.type;
    this.live.clearPlayback();
    this.forget();
  }

  /** Records the sequence of a station once, hearing source or tape of a machine with three heads. */
  record(station: MeasuringStationId, monitor: "source" | "tape", over: Sequence | null = null): void {
    this.goTo(station);
    const sequence = this.sequenceOf(station);
    const short = { ...sequence, leaderSeconds: 0.5 };
    this.deck.load(blankTape(TAPE.speedCmPerS, { blank: this.blank }));
    if (over) {
      // what is to be erased is recorded first, and nobody listens
      this.deck.setInput(sequenceInput(over, this.sampleRateHz));
      this.deck.press("record");
      this.deck.render(Math.round((timelineOf(short).seconds + AFTER_SECONDS) * this.sampleRateHz));
      this.toStart();
    }
    this.deck.monitor = monitor;
    this.send(short);
  }

  private send(sequence: Sequence): void {
    this.deck.setInput(sequenceInput(sequence, this.sampleRateHz));
    this.deck.press("record");
    this.listenToPass(timelineOf(sequence).seconds);
  }

  /** Listens for as long as a pass lasts, and on until all of it has been measured. */
  private listenToPass(seconds: number): void {
    const passes = () => this.soFar.returned?.passes ?? [];
    const before = passes().filter(({ whole }) => whole).length;
    this.listen(seconds);
    for (let s = 0; s < AFTER_SECONDS && passes().filter(({ whole }) => whole).length <= before; s++)
      this.listen(1);
  }

  /** Sends what a station is watched by, steadily: what goes in is heard first, then what comes off the tape. */
  watch(station: MeasuringStationId, inTheMachine = this.blank): void {
    this.goTo(station);
    const { steady } = this.stationOf(station).hears;
    const tones = PRESETS.find(({ id }) => id === steady)!;
    this.deck.load(blankTape(TAPE.speedCmPerS, { blank: inTheMachine }));
    this.deck.setInput(sequenceInput(tones, this.sampleRateHz));
    this.deck.monitor = "source";
    this.deck.press("record");
    this.listen(4);
    this.deck.monitor = "tape";
    this.listen(4.5);
  }

  /** Works the switches on the front, and says so. */
  switchOn(...on: FrontSwitch[]): void {
    const is = (one: FrontSwitch) => on.includes(one);
    this.deck.switches = {
      reduction: is("reduction"),
      multiplex: is("multiplex"),
      headroom: is("headroom"),
    };
    this.circumstances = { ...this.circumstances, switchedOn: on };
    this.live.clearPlayback();
    this.forget();
  }

  /** Does work on the machine at a station, and says so. */
  work(station: MeasuringStationId, work: string): void {
    this.goTo(station);
    this.say(work);
    this.repair(work);
  }

  /** Turns a screw by so much, as it was said elsewhere than on its own card. */
  turnBy(station: MeasuringStationId, adjusterId: string, turns: number): void {
    this.goTo(station);
    this.turn(this.adjusterOf(adjusterId), this.slotOf(adjusterId), turns);
  }

  /** Lets a station's sequence come back, source and tape, or recorded, rewound and played. */
  hear(station: MeasuringStationId): void {
    if (this.records.machine.monitorsTape) {
      this.record(station, "tape");
      return;
    }
    this.record(station, "source");
    this.play(timelineOf(this.sequenceOf(station)).seconds);
  }

  /** The same with what goes in heard first. */
  hearBoth(station: MeasuringStationId): void {
    if (this.records.machine.monitorsTape) this.record(station, "source");
    this.hear(station);
  }

  /** Whether it is set while its tones are heard off the tape. */
  canWatch(station: MeasuringStationId): boolean {
    return this.records.machine.monitorsTape === true && this.stationOf(station).hears.steady !== null;
  }

  stationOf(id: MeasuringStationId): MeasuringStation {
    return MEASURING.find((one) => one.id === id)!;
  }

  sequenceOf(station: MeasuringStationId): Sequence {
    const { sequence } = this.stationOf(station).hears;
    return this.sequences.find(({ id }) => id === sequence)!;
  }

  /** Records the station's sequence once more over the same place. */
  recordAgain(station: MeasuringStationId): void {
    this.goTo(station);
    const short = { ...this.sequenceOf(station), leaderSeconds: 0.5 };
    this.toStart();
    this.live.interrupt();
    this.live.clearPlayback();
    this.forget();
    this.send(short);
  }

  /** A blanking test: an old tone, and from a place on nothing recorded over it, heard off the tape or afterwards. */
  testBlanking(old: Sequence): void {
    this.goTo("erase");
    this.circumstances = { ...this.circumstances, eraseOf: "blanking" };
    this.deck.load(blankTape(TAPE.speedCmPerS, { blank: this.blank }));
    this.deck.setInput(sequenceInput(old, this.sampleRateHz));
    this.deck.press("record");
    this.deck.render(13 * this.sampleRateHz);
    this.toStart();
    this.deck.setInput(null);
    const { monitorsTape } = this.records.machine;
    if (!monitorsTape) {
      this.deck.press("play");
      this.deck.render(5 * this.sampleRateHz);
      this.deck.press("record");
      this.deck.render(7 * this.sampleRateHz);
      this.toStart();
    }
    this.live.beginBlanking();
    this.deck.press("play");
    this.listen(5);
    if (monitorsTape) this.deck.press("record");
    this.listen(6.5);
  }

  /** Records the station's sequence once over an old tone, and hears it come off the tape; the other way in reverse. */
  recordOver(station: MeasuringStationId, old: Sequence, side: Circumstances["side"]): void {
    this.goTo(station);
    this.circumstances = { ...this.circumstances, ...(side && { side }), toneWasOn: this.blank.id };
    const [play, record] =
      side === "B" ? (["reverse", "record-reverse"] as const) : (["play", "record"] as const);
    const sequence = { ...this.sequenceOf(station), leaderSeconds: 0.5 };
    const seconds = timelineOf(sequence).seconds + AFTER_SECONDS;
    const toStart = () => {
      this.live.interrupt();
      if (side === "B") this.toEnd();
      else this.toStart();
    };
    this.deck.load(blankTape(TAPE.speedCmPerS, { blank: this.blank }));
    toStart();
    this.deck.setInput(sequenceInput(old, this.sampleRateHz));
    this.deck.press(record);
    this.deck.render(Math.round(seconds * this.sampleRateHz));
    toStart();
    this.deck.monitor = "tape";
    this.deck.setInput(sequenceInput(sequence, this.sampleRateHz));
    this.deck.press(record);
    this.listenToPass(timelineOf(sequence).seconds);
    if (this.records.machine.monitorsTape) return;
    toStart();
    this.deck.press(play);
    this.listenToPass(timelineOf(sequence).seconds);
  }

  /** Watches a recording of two tones over an old one for so long, off the tape or afterwards. */
  watchRecording(old: Sequence, seconds: number): void {
    this.goTo("oscillator");
    const tones = PRESETS.find(({ id }) => id === this.stationOf("oscillator").hears.steady)!;
    const record = (sequence: Sequence) => {
      this.toStart();
      this.deck.setInput(sequenceInput({ ...sequence, leaderSeconds: 0 }, this.sampleRateHz));
      this.deck.press("record");
    };
    this.deck.load(blankTape(TAPE.speedCmPerS, { blank: this.blank }));
    record(old);
    this.deck.render(Math.round((seconds + AFTER_SECONDS) * this.sampleRateHz));
    this.deck.press("stop");
    while (this.deck.status.warmSeconds > 0) this.deck.render(this.sampleRateHz);
    this.deck.monitor = "tape";
    record(tones);
    this.live.interrupt();
    if (!this.records.machine.monitorsTape) {
      this.deck.render(Math.round((seconds + AFTER_SECONDS) * this.sampleRateHz));
      this.toStart();
      this.deck.press("play");
    }
    this.live.watchRecording(true);
    this.listen(seconds);
    this.live.watchRecording(false);
    this.deck.press("stop");
  }

  /** Records tones on the other side, and plays a blank place of this one beside them. */
  hearOtherSide(): void {
    this.goTo("noise");
    const tones = PRESETS.find(({ id }) => id === "other-side-tones")!;
    this.deck.load(blankTape(TAPE.speedCmPerS, { blank: this.blank }));
    this.deck.turnSide();
    this.toStart();
    this.deck.setInput(sequenceInput({ ...tones, leaderSeconds: 0 }, this.sampleRateHz));
    this.deck.press("record");
    this.deck.render(OTHER_SIDE_SECONDS * this.sampleRateHz);
    this.deck.turnSide();
    this.live.interrupt();
    this.deck.press("play");
    this.listen(OTHER_SIDE_SECONDS - 1);
  }

  /** What is kept of the job. */
  get kept(): JobRecords {
    return this.records;
  }

  private toEnd(): void {
    this.deck.press("wind");
    while (this.deck.status.key !== "stop") this.deck.render(this.tenth);
  }

  private toStart(): void {
    this.deck.press("rewind");
    while (this.deck.status.positionSeconds > 0) this.deck.render(this.tenth);
  }

  /** Says that what is erased was erased before. */
  sayErasedAgain(): void {
    this.circumstances = { ...this.circumstances, eraseOf: "again" };
  }

  /** Says that the tone to be erased was on this tape. */
  sayToneWasOn(): void {
    this.circumstances = { ...this.circumstances, toneWasOn: this.blank.id };
  }

  /** Says what noise is told of next. */
  sayNoiseOf(noiseOf: Circumstances["noiseOf"]): void {
    this.circumstances = { ...this.circumstances, noiseOf };
    this.live.forgetQuiet();
    this.soFar = { ...this.soFar, quiet: null };
  }

  /** Sets bias by another school from now on. Returns whether it was another. */
  chooseSchool(biasSchool: BiasSchool): boolean {
    const { job } = this.records;
    this.records.job = { ...job, biasSchool };
    return job.biasSchool !== biasSchool;
  }

  /** Looks that it is the tape that was said. */
  haveLooked(): void {
    const { job } = this.records;
    this.records.job = { ...job, blankTapes: job.blankTapes?.map((blank) => ({ ...blank, seen: true })) };
  }

  /** Rewinds a machine with two heads and plays what was recorded. */
  play(seconds: number): void {
    this.toStart();
    this.live.interrupt();
    this.deck.press("play");
    this.listenToPass(seconds);
  }

  /** Turns one bias screw as the card says, a pass off tape after each turn. Returns how the card ended. */
  setByPasses(station: MeasuringStationId, adjusterId: string, most: number, hear: () => void): string {
    const adjuster = this.adjusterOf(adjusterId);
    const slot = this.slotOf(adjusterId);
    const setting = this.stationOf(station);
    for (let i = 0; i <= most; i++) {
      const { advice } = setting.advise(this.onTheBench(setting, adjusterId), adjusterId);
      if (advice.kind !== "turn" && advice.kind !== "trial") return advice.kind;
      if (i === most) return "more turns";
      this.turn(adjuster, slot, advice.turns);
      hear();
    }
    return "more turns";
  }
}
