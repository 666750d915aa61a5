import { layBench } from "@/core/alignment/lay-bench";
import { CLOSED_LOGBOOK, logStep, type LogEvent, type Logbook } from "@/core/alignment/logbook";
import { MEASURING } from "@/core/alignment/registry";
import { readingVerdict } from "@/core/alignment/station-state";
import { advisePeak } from "@/core/guidance/loudest-point";
import type { TurnAdvice } from "@/core/guidance/turn-guidance";
import type { Verdict } from "@/core/judging/verdict";
import { beforeTurn, heardLive, heardSince, type HeardSoFar } from "@/core/live/heard-live";
import type { ListeningResult } from "@/core/live/listening-result";
import { LiveListening } from "@/core/live/live-listening";
import { NOTHING_HEARD_YET, type Heard } from "@/core/stations/heard";
import type { PlaybackNumbers } from "@/core/playback/playback-numbers";
import { DEMO_MACHINES } from "@/core/practice/demo-machines";
import { practiceTape } from "@/core/practice/practice-tape";
import type { Adjuster } from "@/core/records/machine";
import type { Circumstances } from "@/core/records/reading";
import { PRESETS } from "@/core/signals/presets";
import type { Sequence } from "@/core/signals/sequence";
import type { JobRecords } from "@/core/records/job-records";
import type { Phase } from "@/core/records/reading";
import type { ReferenceTape } from "@/core/reference/reference-tape";
import { PracticeDeck } from "@/core/simulator/practice-deck";
import { PRACTICE_FULL_SCALE, practiceMachine } from "@/core/simulator/practice-machines";
import { slotOf } from "@/core/simulator/practice-slots";
import type { TransportParameters } from "@/core/simulator/transport-parameters";
import type { MeasuringStationId } from "@/core/stations";
import { levelsOfSearch } from "@/core/stations/azimuth-search";
import type { OnTheBench } from "@/core/stations/on-the-bench";
import type { MeasuringStation } from "@/core/stations/station";
import { aJob } from "./records";

/** Enough for tones to 12.5 kHz, in two thirds of the time that the usual 48 kHz take. */
const USUAL_RATE_HZ = 32_000;
/** The bench of the page looks at each step; this one has less time. */
const LOOKS_EVERY = 2;
const MOST_TURNS = 14;
/** Between the bands of a tape. */
const GAP = 1;
/** So long a band plays before it is known and settled. */
const INTO_SECONDS = 6;

const stationOf = (id: MeasuringStationId): MeasuringStation => MEASURING.find((one) => one.id === id)!;

export interface BenchOptions {
  /** That may be played; the presets when left out. */
  sequences?: readonly Sequence[];
  /** Of a tape that is hurried through, what takes long is made anew less often. */
  pace?: number;
  sampleRateHz?: number;
}

/**
 * A technician at the bench of a practice machine who does what the turn card says and nothing else: plays the tape,
 * logs as found, turns by the card, says so, waits, until it says to leave it there. What is kept is what the logbook
 * of the bench keeps.
 */
export class PlaybackBench {
  turns = 0;
  readonly deck: PracticeDeck;
  protected readonly live: LiveListening;
  protected readonly records: JobRecords;
  private station: MeasuringStationId = "azimuth";
  protected result: ListeningResult | null = null;
  protected soFar: HeardSoFar = NOTHING_HEARD_YET;
  private logbook: Logbook = CLOSED_LOGBOOK;
  private readonly lay = layBench();
  protected circumstances: Circumstances = {};
  protected readonly sequences: readonly Sequence[];
  protected readonly sampleRateHz: number;
  /** A tenth of a second. */
  protected readonly tenth: number;
  private clock = Date.UTC(2026, 10, 20, 10);
  private nextId = 0;

  constructor(
    machineId: string,
    protected readonly tape: ReferenceTape,
    settings: Partial<TransportParameters>,
    seed: number,
    { sequences = PRESETS, pace = 1, sampleRateHz = USUAL_RATE_HZ }: BenchOptions = {},
  ) {
    this.sequences = sequences;
    this.sampleRateHz = sampleRateHz;
    this.tenth = sampleRateHz / 10;
    const parameters = { ...practiceMachine(machineId).transport, ...settings };
    this.deck = new PracticeDeck({ parameters, sampleRateHz, tape: practiceTape(tape), seed });
    const machine = DEMO_MACHINES.find(({ id }) => id === machineId)!;
    this.live = new LiveListening({
      sampleRateHz,
      channelCount: 2,
      tape,
      speedFactor: 1,
      nominalHz: 3150,
      evidenceSeconds: 0,
      pace,
      sequences,
      tracks: machine.tracks,
    });
    const job = aJob({ machineId, speedCmPerS: tape.speedCmPerS, tapeId: tape.id });
    this.records = { job, machine, readings: [], adjustments: [] };
  }

  /** Goes to a station of the bench. */
  goTo(station: MeasuringStationId): void {
    this.station = station;
  }

  /** Winds to just before a band and plays, into the beginning of a later one where that is told. */
  playFrom(band: number, into = band): void {
    const { bands, speedCmPerS } = this.tape;
    const start = (index: number) =>
      bands.slice(0, index).reduce((sum, { seconds }) => sum + seconds + GAP, 0);
    this.deck.load(practiceTape({ ...this.tape, speedCmPerS }));
    this.deck.press("wind");
    while (this.deck.status.positionSeconds < start(band) - GAP / 2) this.deck.render(this.tenth / 40);
    this.deck.press("play");
    this.listen(start(into) - start(band));
    this.listen(INTO_SECONDS);
  }

  listen(seconds: number): void {
    const steps = Math.round(10 * seconds);
    for (let i = 1; i <= steps; i++) {
      this.live.push(this.deck.render(this.tenth));
      this.clock += 100;
      if (i % LOOKS_EVERY !== 0 && i < steps) continue;
      const { flutter, role, follows, sequence } = stationOf(this.station).hears;
      this.live.wantSequence(sequence);
      this.live.listenForQuiet(stationOf(this.station).hears.quiet?.(this.circumstances) ?? null);
      this.result = this.live.result(flutter, role, follows);
      this.soFar = heardSince(this.soFar, this.result);
      this.step({ kind: "heard", marks: this.result.marks });
    }
  }

  get heard(): Heard | null {
    return this.onTheBench(stationOf(this.station)).heard;
  }

  get numbers(): PlaybackNumbers | null {
    return this.onTheBench(stationOf(this.station)).numbers;
  }

  /** Logs what the station would log; returns the sentence when it refuses. */
  log(station: MeasuringStationId, phase: Phase): string | null {
    this.station = station;
    this.clock += 1;
    return this.step({ kind: "log", phase });
  }

  /** Says that work of the machine's list was done. */
  protected say(work: string): void {
    const adjuster = this.records.machine.adjusters.find(({ id }) => id === work);
    this.clock += 1;
    if (adjuster) this.step({ kind: "turned", adjuster, turns: null, atStop: false });
  }

  repair(work: string): void {
    this.deck.repair(work);
    this.live.mark();
    this.passOver();
  }

  /** Another tape is in the machine: nothing that was heard is of it. */
  protected forget(): void {
    this.soFar = { ...this.soFar, comparison: null, returned: null };
  }

  /** What was heard before something was turned is settled no more. */
  private passOver(): void {
    const heard = this.heard && beforeTurn(this.heard);
    this.soFar = heard ?? NOTHING_HEARD_YET;
  }

  /** Turns one adjuster as the card says until it is content. */
  set(station: MeasuringStationId, adjusterId: string): TurnAdvice["kind"] {
    this.station = station;
    const adjuster = this.adjusterOf(adjusterId);
    const slot = this.slotOf(adjusterId);
    for (let i = 0; i < MOST_TURNS; i++) {
      const { advice } = stationOf(station).advise(
        this.onTheBench(stationOf(station), adjusterId),
        adjusterId,
      );
      // the card asks for the ladder again
      if (advice.kind === "unclear") return "wait";
      if (advice.kind === "wait") {
        this.listen(1);
        continue;
      }
      if (advice.kind !== "turn" && advice.kind !== "trial") return advice.kind;
      this.turn(adjuster, slot, advice.turns);
      this.listen(4.5);
    }
    return "wait";
  }

  protected adjusterOf(adjusterId: string): Adjuster {
    return this.records.machine.adjusters.find(({ id }) => id === adjusterId)!;
  }

  slotOf(adjusterId: string): number {
    return slotOf(this.adjusterOf(adjusterId), this.records.machine.adjusters)!;
  }

  /** A hand turns in steps of a degree, a little at a time, and says so. */
  protected turn(adjuster: Adjuster, slot: number, turns: number): void {
    const degrees = Math.round(360 * turns) || Math.sign(turns);
    for (let step = 0; step < 8; step++) {
      this.deck.trimmers[slot].turn(degrees / 360 / 8);
      this.listen(0.1);
    }
    this.clock += 1;
    this.step({ kind: "turned", adjuster, turns: degrees / 360, atStop: false });
    this.step({ kind: "told", marks: this.live.mark() });
    this.passOver();
    this.turns++;
  }

  /** The verdicts on what decides at a station, as logged last. */
  verdicts(id: MeasuringStationId): Array<Verdict | null> {
    const { machine, readings } = this.records;
    const deciding: readonly string[] = stationOf(id).deciding(machine);
    const last = readings.filter((r) => r.station === id && deciding.includes(r.quantity)).at(-1);
    return readings
      .filter((r) => r.at === last?.at && r.station === id && deciding.includes(r.quantity))
      .map((reading) => readingVerdict(reading, machine));
  }

  /** What stands on the bench at a station. */
  laid(id: MeasuringStationId): OnTheBench {
    return this.onTheBench(stationOf(id));
  }

  protected onTheBench(station: MeasuringStation, chosenId: string | null = null): OnTheBench {
    const from = {
      source: { kind: "practice" as const, name: "practice" },
      clockPercent: 0,
      fullScale: PRACTICE_FULL_SCALE,
    };
    const bench = this.lay({
      records: { ...this.records },
      tape: this.tape,
      heard: this.result && heardLive(this.result, from, this.soFar),
      circumstances: this.circumstances,
      prior: [],
      peak: null,
      told: null,
      readFrom: null,
      session: 1,
    });
    if (!station.seeksPeak(bench.here.machine)) return bench;
    const adjuster = station.advise(bench, chosenId).adjuster;
    return adjuster ? { ...bench, peak: advisePeak(levelsOfSearch(bench, adjuster.id)) } : bench;
  }

  private step(event: LogEvent): string | null {
    const station = stationOf(this.station);
    const pen = { newId: () => `r${String(this.nextId++).padStart(6, "0")}`, now: this.clock };
    const { logbook, entries, refused } = logStep(
      this.logbook,
      event,
      station,
      this.onTheBench(station),
      pen,
    );
    this.logbook = logbook;
    this.records.readings.push(...entries.readings);
    this.records.adjustments.push(...entries.adjustments);
    return refused;
  }
}
