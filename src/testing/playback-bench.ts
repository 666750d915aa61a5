import { decidingQuantities, readingVerdict } from "@/core/alignment/station-state";
import { advisePlayback, quantityToSet, toSet } from "@/core/alignment/playback-advice";
import { playbackNumbers, type PlaybackNumbers } from "@/core/alignment/playback-numbers";
import { playbackReadings } from "@/core/alignment/playback-station-readings";
import type { LogContext } from "@/core/alignment/log-reading";
import {
  inForce,
  type Adjustment,
  type JobRecords,
  type Phase,
  type Reading,
  type StationId,
} from "@/core/alignment/records";
import type { TurnAdvice } from "@/core/alignment/turn-guidance";
import type { Verdict } from "@/core/alignment/verdict";
import { LiveListening } from "@/core/listen/live-listening";
import type { PlaybackNow } from "@/core/listen/playback-now";
import { PracticeDeck } from "@/core/machine/practice-deck";
import { PRACTICE_FULL_SCALE, practiceMachine } from "@/core/machine/practice-machines";
import { slotOf } from "@/core/machine/practice-slots";
import type { TransportParameters } from "@/core/machine/transport-parameters";
import { DEMO_MACHINES } from "@/core/practice/demo-machines";
import { practiceTape } from "@/core/practice/practice-tape";
import type { ReferenceTape } from "@/core/reference/reference-tape";
import { aJob } from "./records";

const RATE = 48000;
const STEP = RATE / 10;
const MOST_TURNS = 14;
/** Between the bands of a tape. */
const GAP = 1;
/** So long a band plays before it is known and settled. */
const INTO_SECONDS = 6;

type Station = Extract<StationId, "azimuth" | "level" | "response">;

/**
 * A technician at the bench of a practice machine who does what the turn card says and nothing else: plays the tape,
 * logs as found, turns by the card, says so, waits, until it says to leave it there.
 */
export class PlaybackBench {
  turns = 0;
  private readonly deck: PracticeDeck;
  private readonly live: LiveListening;
  private readonly records: JobRecords;
  private station: Station = "azimuth";
  private now: PlaybackNow | null = null;
  private clock = Date.UTC(2026, 10, 20, 10);
  private nextId = 0;

  constructor(
    machineId: string,
    private readonly tape: ReferenceTape,
    settings: Partial<TransportParameters>,
    seed: number,
  ) {
    const parameters = { ...practiceMachine(machineId).transport, ...settings };
    this.deck = new PracticeDeck({ parameters, sampleRateHz: RATE, tape: practiceTape(tape), seed });
    const machine = DEMO_MACHINES.find(({ id }) => id === machineId)!;
    this.live = new LiveListening({
      sampleRateHz: RATE,
      channelCount: 2,
      tape,
      speedFactor: 1,
      nominalHz: 3150,
      evidenceSeconds: 0,
      tracks: machine.tracks,
    });
    const job = aJob({ speedCmPerS: tape.speedCmPerS, tapeId: tape.id });
    this.records = { job, machine, readings: [], adjustments: [] };
  }

  /** Goes to a station of the bench. */
  goTo(station: Station): void {
    this.station = station;
  }

  /** Winds to just before a band and plays, into the beginning of a later one where that is told. */
  playFrom(band: number, into = band): void {
    const { bands, speedCmPerS } = this.tape;
    const start = (index: number) =>
      bands.slice(0, index).reduce((sum, { seconds }) => sum + seconds + GAP, 0);
    this.deck.load(practiceTape({ ...this.tape, speedCmPerS }));
    this.deck.press("wind");
    while (this.deck.status.positionSeconds < start(band) - GAP / 2) this.deck.render(STEP / 40);
    this.deck.press("play");
    this.listen(start(into) - start(band));
    this.listen(INTO_SECONDS);
  }

  listen(seconds: number): void {
    for (let i = 0; i < Math.round(10 * seconds); i++) {
      this.live.push(this.deck.render(STEP));
      this.clock += 100;
      this.now = this.live.result(false, this.station).playback ?? this.now;
    }
  }

  get numbers(): PlaybackNumbers | null {
    const { machine } = this.records;
    return this.now && playbackNumbers({ tape: this.tape, machine }, this.now, PRACTICE_FULL_SCALE);
  }

  /** Logs what the station would log; returns the sentence when it refuses. */
  log(station: Station, phase: Phase): string | null {
    const readings = playbackReadings(station, this.records.machine, this.numbers).toLog(this.context(phase));
    if (typeof readings === "string") return readings;
    this.records.readings.push(...readings);
    return null;
  }

  repair(work: string): void {
    this.deck.repair(work);
    this.live.mark();
  }

  /** Turns one adjuster as the card says until it is content. */
  set(station: Station, adjusterId: string): TurnAdvice["kind"] {
    const { machine } = this.records;
    const adjuster = machine.adjusters.find(({ id }) => id === adjusterId)!;
    const slot = slotOf(adjuster, machine.adjusters)!;
    for (let i = 0; i < MOST_TURNS; i++) {
      const at = toSet(this.records, station, adjuster, this.numbers);
      const advice = advisePlayback(this.records, adjuster, quantityToSet(station, this.numbers), at);
      // the card asks for the ladder again
      if (station === "azimuth" && this.numbers?.now.phase?.counted === false) return "wait";
      if (advice.kind === "wait") {
        this.listen(1);
        continue;
      }
      if (advice.kind !== "turn" && advice.kind !== "trial") return advice.kind;
      // a hand turns in steps of a degree, a little at a time
      const degrees = Math.round(360 * advice.turns) || Math.sign(advice.turns);
      for (let step = 0; step < 8; step++) {
        this.deck.trimmers[slot].turn(degrees / 360 / 8);
        this.listen(0.1);
      }
      this.keep(
        playbackReadings(station, machine, this.numbers).beforeTurn(this.context("working")),
        station,
      );
      this.clock += 1;
      this.records.adjustments.push(this.turned(station, adjusterId, degrees / 360));
      this.live.mark();
      this.turns++;
      this.listen(4.5);
      const after = playbackReadings(station, machine, this.numbers).afterTurn(this.context("working"));
      this.records.readings.push(...(after ?? []));
    }
    return "wait";
  }

  private keep(before: Reading[] | null, station: Station): void {
    const lastTurn = inForce(this.records.adjustments).at(-1)?.at ?? "";
    const known = this.records.readings.some((r) => r.at > lastTurn && r.station === station);
    if (before && !known) this.records.readings.push(...before);
  }

  /** The verdicts on what decides at a station, as logged last. */
  verdicts(station: Station): Array<Verdict | null> {
    const { machine, readings } = this.records;
    const deciding = decidingQuantities(station, machine);
    const last = readings.filter((r) => r.station === station && deciding.includes(r.quantity)).at(-1);
    return readings
      .filter((r) => r.at === last?.at && r.station === station && deciding.includes(r.quantity))
      .map((reading) => readingVerdict(reading, machine));
  }

  private context(phase: Phase): LogContext {
    this.clock += 1;
    return {
      newId: () => `r${this.nextId++}`,
      jobId: this.records.job.id,
      channel: "both",
      tapeId: this.tape.id,
      tapeUncertaintyPercent: 0.05,
      nominalHz: 3150,
      speedCmPerS: this.tape.speedCmPerS,
      phase,
      at: new Date(this.clock).toISOString(),
      source: { kind: "practice", name: "practice" },
    };
  }

  private turned(station: Station, adjusterId: string, turns: number): Adjustment {
    return {
      id: `a${this.nextId++}`,
      jobId: this.records.job.id,
      station,
      adjusterId,
      turns,
      at: new Date((this.clock += 1)).toISOString(),
      note: "",
      supersedes: null,
    };
  }
}
