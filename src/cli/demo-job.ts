import { layBench } from "@/core/alignment/lay-bench";
import { saidAt } from "@/core/alignment/logbook";
import { speedTone } from "@/core/reference/speed-tone";
import type { BlankTape } from "@/core/records/blank-tape";
import type { Sequence } from "@/core/signals/sequence";
import { timelineOf } from "@/core/signals/timeline";
import { azimuth } from "@/core/stations/azimuth";
import { erase } from "@/core/stations/erase";
import { noise } from "@/core/stations/noise";
import { oscillator } from "@/core/stations/oscillator";
import { reduction } from "@/core/stations/reduction";
import { settings } from "@/core/stations/settings";
import { RecordingWatch, WATCHED_TONES } from "@/core/live/recording-watch";
import type { FrontSwitch } from "@/core/records/machine";
import type { OnTheBench } from "@/core/stations/on-the-bench";
import type { MeasuringStation } from "@/core/stations/station";
import { flutterReadings } from "@/core/stations/flutter";
import { level } from "@/core/stations/level";
import type { LogContext } from "@/core/stations/log-context";
import { response } from "@/core/stations/response";
import { speedReadings } from "@/core/stations/speed";
import type { Adjustment } from "@/core/records/adjustment";
import type { Job } from "@/core/records/job";
import type { Circumstances, Phase, Reading } from "@/core/records/reading";
import { PracticeDeck } from "@/core/simulator/practice-deck";
import { ALL_OFF } from "@/core/simulator/deck-status";
import { PRACTICE_FULL_SCALE, practiceMachine } from "@/core/simulator/practice-machines";
import type { TransportParameters } from "@/core/simulator/transport-parameters";
import { TransportMeter } from "@/core/measure/transport-meter";
import { DEMO_TAPES } from "@/core/reference/demo-tapes";
import { measureBands } from "@/core/recordings/measure-bands";
import { LivePlayback } from "@/core/live/live-playback";
import { soundInMemory, type SoundFile } from "@/core/formats/sound-file";
import { DEMO_BLANKS } from "@/core/practice/demo-blanks";
import { blankTape, practiceTape, sequenceInput } from "@/core/practice/practice-tape";
import { SourceAndTapeFollower } from "@/core/playback/source-and-tape";
import { measureReturned } from "@/core/recordings/measure-returned";
import type { PassNow } from "@/core/returned/heard-pass";
import { PRESETS } from "@/core/signals/presets";
import { shortSequences } from "@/core/practice/short-sequences";
import { NOTHING_HEARD_YET, type Heard } from "@/core/stations/heard";
import { slotOf } from "@/core/simulator/practice-slots";
import { timeConstants, type ReferenceTape } from "@/core/reference/reference-tape";
import { usualFormat } from "@/core/standards/track-formats";
import { joined } from "@/core/dsp/joined";
import { DEMO_MACHINES } from "@/core/practice/demo-machines";

const SAMPLE_RATE_HZ = 48000;
const BAND_SECONDS = 3;

const NOTHING_HEARD: Omit<Heard, "source"> = { ...NOTHING_HEARD_YET, fullScale: PRACTICE_FULL_SCALE };

/** The record stations' sequences with shorter sounds, so that the workshop is made in a minute or two. */
const SHORT_SEQUENCES = shortSequences(2);
const TONE_HZ = 315;
const MOST_TURNS = 3;

/** What has been written of all demo jobs so far. */
export interface DemoBook {
  readonly jobs: Job[];
  readonly readings: Reading[];
  readonly adjustments: Adjustment[];
  /** So many names were given. */
  ids: number;
}

export const emptyBook = (): DemoBook => ({ jobs: [], readings: [], adjustments: [], ids: 0 });

/** A job on a practice machine; the clock only moves forward, a few minutes a step. */
export class DemoJob {
  private readonly deck: PracticeDeck;
  private readonly tape;
  private minutes = 0;
  /** What goes in does not depend on what is turned: heard once for each sequence. */
  private readonly sources = new Map<string, PassNow>();

  constructor(
    private readonly book: DemoBook,
    private readonly job: Job,
    settings: Partial<TransportParameters>,
    seed: number,
  ) {
    book.jobs.push(job);
    this.tape = DEMO_TAPES.find(({ id }) => id === job.tapeId)!;
    this.deck = new PracticeDeck({
      parameters: { ...practiceMachine(job.machineId).transport, ...settings },
      toneHz: speedTone(this.tape)!.frequencyHz,
      sampleRateHz: SAMPLE_RATE_HZ,
      seed,
    });
    this.deck.render(2 * SAMPLE_RATE_HZ);
  }

  log(station: "speed" | "flutter", phase: Phase): this {
    const nominalHz = speedTone(this.tape)!.frequencyHz;
    const meter = new TransportMeter(SAMPLE_RATE_HZ, 2, nominalHz);
    const seconds = station === "speed" ? 8 : 24;
    for (let i = 0; i < seconds; i++) meter.push(this.deck.render(SAMPLE_RATE_HZ));
    const context = this.context(phase, this.tape);
    if (station === "speed") this.book.readings.push(...speedReadings(meter.speed(0).result!, context));
    else this.book.readings.push(...flutterReadings(meter.flutter(0).result!, context));
    return this;
  }

  /** Plays a full alignment tape through and logs azimuth, level and response from it. */
  async align(phase: Phase): Promise<this> {
    const whole = DEMO_TAPES.find(({ id }) => id === "ssa-10")!;
    // the first seconds of each band are enough
    const tape = { ...whole, bands: whole.bands.map((band) => ({ ...band, seconds: BAND_SECONDS })) };
    const machine = DEMO_MACHINES.find(({ id }) => id === this.job.machineId)!;
    this.deck.load(practiceTape(tape));
    this.deck.press("play");
    const seconds = this.deck.status.lengthSeconds + 2;
    const blocks = Array.from({ length: Math.ceil(seconds) }, () => this.deck.render(SAMPLE_RATE_HZ));
    const channels = [0, 1].map((c) => Float32Array.from(joined(...blocks.map((block) => block[c]))));
    const heard = await measureBands(soundInMemory(channels, SAMPLE_RATE_HZ), tape);
    const { speedCmPerS } = this.job;
    const now = new LivePlayback({
      sampleRateHz: SAMPLE_RATE_HZ,
      tape,
      speedFactor: 1,
      tracks: machine.tracks ?? usualFormat(speedCmPerS),
      speedCmPerS,
      equalisation: timeConstants(tape.equalisation, speedCmPerS),
    }).take(heard);
    const bench = this.bench(tape, { ...NOTHING_HEARD, playback: now });
    for (const station of [azimuth, level, response]) {
      const logged = station.readings(bench).toLog({ ...this.context(phase, tape), channel: "both" });
      if (typeof logged === "string") throw new Error(`${station.name}: ${logged}`);
      this.book.readings.push(...logged);
    }
    return this;
  }

  /** Sound of the machine while it records a sequence on a blank tape. */
  private recording(
    sequence: Sequence,
    blank: BlankTape,
    monitor: "source" | "tape",
    seconds: number,
    over: Sequence | null = null,
  ): SoundFile {
    this.deck.load(blankTape(this.job.speedCmPerS, { blank }));
    if (over) {
      this.deck.setInput(sequenceInput(over, SAMPLE_RATE_HZ));
      this.deck.press("record");
      this.deck.render(Math.round(seconds * SAMPLE_RATE_HZ));
      this.deck.press("rewind");
      while (this.deck.status.positionSeconds > 0) this.deck.render(SAMPLE_RATE_HZ / 10);
    }
    this.deck.setInput(sequenceInput(sequence, SAMPLE_RATE_HZ));
    this.deck.monitor = monitor;
    this.deck.press("record");
    const heard = this.deck.render(Math.round(seconds * SAMPLE_RATE_HZ)).map((x) => Float32Array.from(x));
    this.deck.press("stop");
    return soundInMemory(heard, SAMPLE_RATE_HZ);
  }

  /** Records a station's sequence on a blank tape and hears it off the tape, beside what goes in. */
  private async recorded(
    station: MeasuringStation,
    blank: BlankTape,
    { withSource = true, ...said }: { withSource?: boolean } & Circumstances = {},
  ): Promise<OnTheBench> {
    const sequence = SHORT_SEQUENCES.find(({ id }) => id === station.hears.sequence)!;
    const seconds = timelineOf(sequence).seconds + 1;
    // what a station wants recorded beforehand, where that is not followed, is there to be erased
    const over =
      station.hears.follows === null ? PRESETS.find(({ id }) => id === station.hears.steady) : null;
    const pass = async (hears: "source" | "tape"): Promise<PassNow> => {
      const sound = this.recording(sequence, blank, hears, seconds, (hears === "tape" && over) || null);
      const { passes } = await measureReturned(sound, sequence);
      const ends = { startSeconds: 0, endSeconds: seconds, sequenceId: sequence.id };
      return { ...passes[0], ...ends, whole: true, hears, told: 0 };
    };
    if (withSource) this.sources.set(sequence.id, this.sources.get(sequence.id) ?? (await pass("source")));
    const source = this.sources.get(sequence.id);
    const passes = [...(source ? [source] : []), await pass("tape")];
    const returned = { sequenceId: sequence.id, passes, told: 0, nowSeconds: seconds };
    const circumstances = { ...said, recordingOn: blank.id, ...(over && { toneWasOn: blank.id }) };
    return this.bench(this.tape, { ...NOTHING_HEARD, returned }, circumstances);
  }

  /** Records a level tone and hears source and tape one after the other. */
  private async compared(blank: BlankTape): Promise<OnTheBench> {
    const tone = PRESETS.find(({ id }) => id === "level-tone")!;
    const follower = new SourceAndTapeFollower(SAMPLE_RATE_HZ);
    let comparison: Heard["comparison"] = null;
    let at = 0;
    for (const monitor of ["source", "tape"] as const) {
      const kept: Float32Array[] = [];
      for await (const [left, right] of this.recording(tone, blank, monitor, 7).blocks(7 * SAMPLE_RATE_HZ))
        kept.push(Float32Array.from(left), Float32Array.from(right));
      // after the start of the machine, twice a second
      for (let seconds = 3.5; seconds <= 7; seconds += 0.5) {
        const until = Math.round(seconds * SAMPLE_RATE_HZ);
        comparison = follower.update(at + seconds, [TONE_HZ], () =>
          kept.map((x) => x.subarray(SAMPLE_RATE_HZ, until)),
        );
      }
      at += 7;
    }
    return this.bench(this.tape, { ...NOTHING_HEARD, comparison }, { recordingOn: blank.id });
  }

  /** Records the erase sequence over a tone once, and logs what both stations make of it. */
  async recordErase(blank: BlankTape, phase: Phase): Promise<void> {
    const bench = await this.recorded(erase, blank);
    for (const station of [erase, noise]) this.logRecorded(station, bench, phase);
  }

  /** Records what a tape is like, and what the switches on the front do on it; the front is kept for the owner's card. */
  async recordFront(blank: BlankTape, phase: Phase): Promise<void> {
    this.logRecorded(settings, await this.recorded(settings, blank, { withSource: false }), phase);
    const tried: FrontSwitch[][] = [[], ["reduction"]];
    for (const switchedOn of tried) {
      this.deck.switches = { ...ALL_OFF, reduction: switchedOn.includes("reduction") };
      const said = { withSource: false, switchedOn };
      this.logRecorded(reduction, await this.recorded(reduction, blank, said), phase);
    }
    this.deck.switches = ALL_OFF;
    const front = {
      at: this.now(),
      knobs: { "knob-bias": 0, "knob-level": 0 },
      words: `Tape switch ${blank.type}, noise reduction as the recording wants it.`,
    };
    this.job.blankTapes = this.job.blankTapes!.map((one) => (one.id === blank.id ? { ...one, front } : one));
  }

  /** Watches a recording for two minutes and a little. */
  watchRecording(blank: BlankTape, phase: Phase): void {
    const watch = new RecordingWatch(SAMPLE_RATE_HZ, 2, WATCHED_TONES);
    this.deck.load(blankTape(this.job.speedCmPerS, { blank }));
    const tones = PRESETS.find(({ id }) => id === "bias-tones")!;
    this.deck.setInput(sequenceInput(tones, SAMPLE_RATE_HZ));
    this.deck.monitor = "tape";
    this.deck.press("record");
    for (let second = 0; second < 124; second++) watch.push(this.deck.render(SAMPLE_RATE_HZ));
    this.deck.press("stop");
    watch.hears("tape");
    const heard = { ...NOTHING_HEARD, recording: watch.result };
    this.logRecorded(oscillator, this.bench(this.tape, heard), phase);
  }

  /** Records and logs a record station on a blank tape, and gives what stands on the bench then. */
  async record(station: MeasuringStation, blank: BlankTape, phase: Phase): Promise<OnTheBench> {
    const compares = station.hears.what === "source and tape";
    const bench = await (compares ? this.compared(blank) : this.recorded(station, blank));
    this.logRecorded(station, bench, phase);
    return this.bench(this.tape, bench.heard!, bench.circumstances);
  }

  private logRecorded(station: MeasuringStation, bench: OnTheBench, phase: Phase): void {
    const { circumstances } = bench;
    const context = {
      ...this.context(phase, this.tape),
      channel: "both",
      circumstances: saidAt(station, circumstances),
    };
    const logged = station.readings(bench).toLog(context);
    if (typeof logged === "string") throw new Error(`${station.name}: ${logged}`);
    this.book.readings.push(...logged);
  }

  /** Turns what sets a record station as its card says, both channels and then a recording, until it is content. */
  async setRecord(station: MeasuringStation, blank: BlankTape): Promise<void> {
    let bench = await this.record(station, blank, "as found");
    for (let i = 0; i < MOST_TURNS; i++) {
      const turns = station.advise(bench, null).adjusters.flatMap(({ id }) => {
        const { advice } = station.advise(bench, id);
        return advice.kind === "turn" || advice.kind === "trial" ? [{ id, turns: advice.turns }] : [];
      });
      if (turns.length === 0) break;
      for (const { id, turns: by } of turns) this.turn(id, Math.round(360 * by) / 360);
      bench = await this.record(station, blank, "working");
    }
    this.logRecorded(station, bench, "as left");
  }

  private bench(tape: ReferenceTape, heard: Omit<Heard, "source">, circumstances: Circumstances = {}) {
    const machine = DEMO_MACHINES.find(({ id }) => id === this.job.machineId)!;
    const mine = <T extends { jobId: string }>(all: T[]) => all.filter(({ jobId }) => jobId === this.job.id);
    return layBench()({
      records: {
        job: this.job,
        machine,
        blanks: DEMO_BLANKS,
        readings: mine(this.book.readings),
        adjustments: mine(this.book.adjustments),
      },
      tape,
      heard: { ...heard, source: { kind: "practice", name: machine.name } },
      circumstances,
      prior: [],
      peak: null,
      told: null,
      readFrom: null,
      session: 1,
    });
  }

  private context(phase: Phase, tape: ReferenceTape): LogContext {
    return {
      newId: () => this.newId(),
      jobId: this.job.id,
      channel: "left",
      tapeId: tape.id,
      tapeUncertaintyPercent: tape.frequencyUncertaintyPercent,
      nominalHz: speedTone(tape)!.frequencyHz,
      speedCmPerS: this.job.speedCmPerS,
      phase,
      at: this.now(),
      source: { kind: "practice", name: practiceMachine(this.job.machineId).name },
    };
  }

  turn(adjusterId: string, turns: number): this {
    const { adjusters } = DEMO_MACHINES.find(({ id }) => id === this.job.machineId)!;
    const adjuster = adjusters.find(({ id }) => id === adjusterId)!;
    const turned = this.deck.trimmers[slotOf(adjuster, adjusters)!].turn(turns);
    this.book.adjustments.push({
      id: this.newId(),
      jobId: this.job.id,
      station: adjuster.sets,
      adjusterId,
      turns: turned,
      at: this.now(),
      note: "",
      supersedes: null,
    });
    this.deck.render(SAMPLE_RATE_HZ);
    return this;
  }

  finish(): void {
    this.job.finishedAt = this.now();
  }

  private newId(): string {
    return `demo-${String(++this.book.ids).padStart(4, "0")}`;
  }

  private now(): string {
    this.minutes += 2;
    this.job.updatedAt = new Date(Date.parse(this.job.createdAt) + this.minutes * 60_000).toISOString();
    return this.job.updatedAt;
  }
}
