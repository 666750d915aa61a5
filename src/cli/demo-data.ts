import { mkdir, writeFile } from "node:fs/promises";
import { layBench } from "@/core/alignment/lay-bench";
import { stationById } from "@/core/alignment/registry";
import { speedTone } from "@/core/reference/speed-tone";
import { azimuth } from "@/core/stations/azimuth";
import { flutterReadings } from "@/core/stations/flutter";
import { level } from "@/core/stations/level";
import type { LogContext } from "@/core/stations/log-context";
import { response } from "@/core/stations/response";
import { speedReadings } from "@/core/stations/speed";
import type { Adjustment } from "@/core/records/adjustment";
import type { Job } from "@/core/records/job";
import type { Phase, Reading } from "@/core/records/reading";
import type { StationId } from "@/core/stations";
import { readBundle, writeBundle } from "@/core/formats/job-bundle";
import { PracticeDeck } from "@/core/simulator/practice-deck";
import { PRACTICE_FULL_SCALE, practiceMachine } from "@/core/simulator/practice-machines";
import type { TransportParameters } from "@/core/simulator/transport-parameters";
import { TransportMeter } from "@/core/measure/transport-meter";
import { DEMO_TAPES } from "@/core/reference/demo-tapes";
import { measureBands } from "@/core/recordings/measure-bands";
import { LivePlayback } from "@/core/live/live-playback";
import { soundInMemory } from "@/core/formats/sound-file";
import { DEMO_BLANKS } from "@/core/practice/demo-blanks";
import { blankTape, practiceTape, sequenceInput } from "@/core/practice/practice-tape";
import { LiveListening } from "@/core/live/live-listening";
import { PRESETS } from "@/core/signals/presets";
import type { Heard } from "@/core/stations/heard";
import { recordLevel } from "@/core/stations/record-level";
import { slotOf } from "@/core/simulator/practice-slots";
import { timeConstants, type ReferenceTape } from "@/core/reference/reference-tape";
import { usualFormat } from "@/core/standards/track-formats";
import { joined } from "@/core/dsp/joined";
import { DEMO_MACHINES } from "@/core/practice/demo-machines";

/*
 * Writes the demo workshop: jobs at different points of their route. Every reading in it is measured by the
 * engine from the sound of a practice machine whose trimmer was really turned.
 */

const OUT = "public/demo";
const SAMPLE_RATE_HZ = 48000;
const BAND_SECONDS = 3;
const readings: Reading[] = [];
const adjustments: Adjustment[] = [];
const jobs: Job[] = [];
let counter = 0;
const newId = () => `demo-${String(++counter).padStart(4, "0")}`;

const NOTHING_HEARD: Omit<Heard, "source"> = {
  nominalHz: null,
  fullScale: PRACTICE_FULL_SCALE,
  speed: null,
  flutter: null,
  playback: null,
  comparison: null,
  returned: null,
  problems: [],
};

/** A job on a practice machine; the clock only moves forward, a few minutes a step. */
class DemoJob {
  private readonly deck: PracticeDeck;
  private readonly tape;
  private minutes = 0;

  constructor(
    private readonly job: Job,
    settings: Partial<TransportParameters>,
    seed: number,
  ) {
    jobs.push(job);
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
    if (station === "speed") readings.push(...speedReadings(meter.speed(0).result!, context));
    else readings.push(...flutterReadings(meter.flutter(0).result!, context));
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
      readings.push(...logged);
    }
    return this;
  }

  /** Records a level tone, hears source and tape, and logs what came back. */
  recordLevel(phase: Phase): this {
    const { speedCmPerS } = this.job;
    const tone = PRESETS.find(({ id }) => id === "level-tone")!;
    this.deck.load(blankTape(speedCmPerS));
    this.deck.setInput(sequenceInput(tone, SAMPLE_RATE_HZ));
    const live = new LiveListening({
      sampleRateHz: SAMPLE_RATE_HZ,
      channelCount: 2,
      tape: this.tape,
      speedFactor: 1,
      nominalHz: 3150,
      evidenceSeconds: 0,
    });
    let comparison: Heard["comparison"] = null;
    const hear = (monitor: "source" | "tape", seconds: number) => {
      this.deck.monitor = monitor;
      for (let i = 0; i < 10 * seconds; i++) {
        live.push(this.deck.render(SAMPLE_RATE_HZ / 10));
        comparison = live.result(false, null, true).comparison ?? comparison;
      }
    };
    this.deck.press("record");
    hear("source", 5);
    hear("tape", 6);
    const bench = this.bench(this.tape, { ...NOTHING_HEARD, comparison });
    const context = this.context(phase, this.tape);
    const circumstances = { recordingOn: this.job.blankTapes![0].id };
    const logged = recordLevel.readings(bench).toLog({ ...context, channel: "both", circumstances });
    if (typeof logged === "string") throw new Error(`${recordLevel.name}: ${logged}`);
    readings.push(...logged);
    return this;
  }

  private bench(tape: ReferenceTape, heard: Omit<Heard, "source">) {
    const machine = DEMO_MACHINES.find(({ id }) => id === this.job.machineId)!;
    return layBench()({
      records: { job: this.job, machine, readings: [], adjustments: [] },
      tape,
      heard: { ...heard, source: { kind: "practice", name: machine.name } },
      circumstances: {},
      prior: [],
      peak: null,
      readFrom: null,
    });
  }

  private context(phase: Phase, tape: ReferenceTape): LogContext {
    return {
      newId,
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
    adjustments.push({
      id: newId(),
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

  private now(): string {
    this.minutes += 2;
    this.job.updatedAt = new Date(Date.parse(this.job.createdAt) + this.minutes * 60_000).toISOString();
    return this.job.updatedAt;
  }
}

const allDone = (...stations: StationId[]): Job["done"] =>
  Object.fromEntries(stations.map((id) => [id, [...stationById(id)!.checks]]));

function job(
  fields: Pick<Job, "number" | "machineId" | "tapeId" | "speedCmPerS" | "complaint" | "createdAt"> &
    Partial<Job>,
): Job {
  return {
    id: `demo-job-${fields.number}`,
    notes: "",
    done: {},
    waiting: null,
    finishedAt: null,
    updatedAt: fields.createdAt,
    ...fields,
  };
}

new DemoJob(
  job({
    number: "0412",
    machineId: "tarnvik-t-2",
    tapeId: "ssa-03",
    speedCmPerS: 19.05,
    otherSpeeds: [{ speedCmPerS: 38.1, tapeId: "ssa-04" }],
    complaint: "Runs slow; voices sound tired.",
    createdAt: "2026-11-19T10:02:00.000Z",
    done: allDone("intake", "service", "path", "clean"),
  }),
  { "speed.errorPercent": -1.6 },
  412,
)
  .log("speed", "as found")
  .log("flutter", "as found")
  .turn("speed-19", 0.25)
  .log("speed", "working")
  .turn("speed-19", 0.5)
  .log("speed", "working");

const thoroughly = new DemoJob(
  job({
    number: "0409",
    machineId: "ellesby-c-3h",
    tapeId: "ssa-01",
    speedCmPerS: 4.76,
    complaint: "Half a tone sharp after its last service.",
    notes: "Owner wants it ready for the winter interviews.",
    blankTapes: DEMO_BLANKS.slice(0, 2).map(({ id, name }) => ({ id, name })),
    createdAt: "2026-11-16T09:15:00.000Z",
    done: allDone("intake", "service", "path", "clean"),
  }),
  {
    "speed.errorPercent": 2.9,
    "head.azimuthArcMinutes": 3,
    "head.weaveArcMinutes": 0.06,
    "playback.leftT2ErrorPercent": -14,
    "record.leftDb": -1.6,
    "record.rightDb": 0.9,
  },
  409,
)
  .log("speed", "as found")
  .log("flutter", "as found")
  .turn("speed", -0.125)
  .log("speed", "working")
  .turn("speed", -0.36)
  .log("speed", "as left")
  .log("flutter", "as left");
await thoroughly.align("as found");
await thoroughly
  .turn("azimuth", -0.085)
  .turn("level-right", 0.06)
  .turn("equaliser-left", 0.24)
  .align("as left");
thoroughly
  .recordLevel("as found")
  .turn("record-level-left-i", 0.21)
  .turn("record-level-right-i", -0.12)
  .recordLevel("as left");
thoroughly.finish();

jobs.push(
  job({
    number: "0415",
    machineId: "ellesby-c-1r",
    tapeId: "ssa-01",
    speedCmPerS: 4.76,
    complaint: "Chews tape in reverse, and pianos wobble.",
    createdAt: "2026-11-21T14:30:00.000Z",
  }),
);

new DemoJob(
  job({
    number: "0398",
    machineId: "marrow-field-7",
    tapeId: "ssa-01",
    speedCmPerS: 4.76,
    complaint: "Wavers, worse on batteries.",
    notes: "Old belt is tacky and has a flat where it sat on the motor pulley.",
    createdAt: "2026-11-12T08:40:00.000Z",
    done: {
      ...allDone("intake"),
      service: [stationById("service")!.checks[1]],
    },
    waiting: { for: "belt 71 mm", until: "2026-11-30", after: "service" },
  }),
  { "speed.errorPercent": -1.3, "belt.lumpPercent": 1.1, "wander.percent": 0.12 },
  398,
)
  .log("speed", "as found")
  .log("flutter", "as found");

const bundle = writeBundle(
  {
    jobs,
    machines: DEMO_MACHINES,
    tapes: [...DEMO_TAPES],
    blanks: [...DEMO_BLANKS],
    readings,
    adjustments,
    runs: [],
    watches: [],
  },
  "2026-11-22T08:00:00.000Z",
);
readBundle(bundle); // throws unless the application will take it
await mkdir(OUT, { recursive: true });
await writeFile(`${OUT}/workshop.unzel.json`, bundle);
console.error(`Wrote ${jobs.length} jobs with ${readings.length} readings to ${OUT}.`);
