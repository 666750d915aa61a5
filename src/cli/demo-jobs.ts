import { stationById } from "@/core/alignment/registry";
import { bias } from "@/core/stations/bias";
import { distortion } from "@/core/stations/distortion";
import { recordResponse } from "@/core/stations/record-response";
import type { Job } from "@/core/records/job";
import type { StationId } from "@/core/stations";
import { DEMO_BLANKS } from "@/core/practice/demo-blanks";
import { recordLevel } from "@/core/stations/record-level";
import { DEMO_MACHINES } from "@/core/practice/demo-machines";
import { DemoJob, type DemoBook } from "./demo-job";
import { demoTrials } from "./demo-workshop";

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

/** In the middle of the work: its speed is being set. */
export function slowReelMachine(book: DemoBook): void {
  new DemoJob(
    book,
    job({
      number: "0412",
      machineId: "tarnvik-t-2",
      tapeId: "ssa-03",
      speedCmPerS: 19.05,
      otherSpeeds: [{ speedCmPerS: 38.1, tapeId: "ssa-04" }],
      complaint: "Runs slow; voices sound tired.",
      symptoms: ["slow"],
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
}

/** Aligned, recorded on two tapes, and finished. */
export async function sharpDeck(book: DemoBook): Promise<void> {
  const thoroughly = new DemoJob(
    book,
    job({
      number: "0409",
      machineId: "ellesby-c-3h",
      tapeId: "ssa-01",
      speedCmPerS: 4.76,
      complaint: "Half a tone sharp after its last service.",
      notes: "Owner wants it ready for the winter interviews.",
      blankTapes: DEMO_BLANKS.slice(0, 2).map(({ id, name }) => ({ id, name })),
      createdAt: "2026-11-16T09:15:00.000Z",
      functionTrials: demoTrials(DEMO_MACHINES.find(({ id }) => id === "ellesby-c-3h")!),
      done: allDone("intake", "service", "path", "clean", "listening"),
    }),
    {
      "speed.errorPercent": 2.9,
      "head.azimuthArcMinutes": 3,
      "head.weaveArcMinutes": 0.06,
      "playback.leftT2ErrorPercent": -14,
      "record.leftDb": -1.6,
      "record.rightDb": 0.9,
      "bias.leftDb": -1.7,
      "bias.rightDb": 1.2,
      "record.leftTrebleDb": 1.4,
      "record.rightTrebleDb": 0.6,
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
  for (const blank of DEMO_BLANKS.slice(0, 2)) {
    await thoroughly.record(distortion, blank, "as found");
    for (const station of [bias, recordLevel, recordResponse]) await thoroughly.setRecord(station, blank);
    await thoroughly.record(distortion, blank, "as left");
    await thoroughly.recordErase(blank, "as left");
    await thoroughly.recordFront(blank, "as left");
  }
  thoroughly.watchRecording(DEMO_BLANKS[0], "as left");
  thoroughly.finish();
}

/** Waits for its parts; nothing was measured yet. */
export function chewedTapes(book: DemoBook): void {
  book.jobs.push(
    job({
      number: "0415",
      machineId: "ellesby-c-1r",
      tapeId: "ssa-01",
      speedCmPerS: 4.76,
      complaint: "Chews tape in reverse, and pianos wobble.",
      symptoms: ["eats tape", "wavers"],
      cameWith: "mains lead, one tape with a loop drawn out of it",
      contact: "transfer room, ext. 31",
      wantedBy: "2026-12-18",
      createdAt: "2026-11-21T14:30:00.000Z",
    }),
  );
}

/** Taken apart; heard as it came in. */
export function waveringPortable(book: DemoBook): void {
  new DemoJob(
    book,
    job({
      number: "0398",
      machineId: "marrow-field-7",
      tapeId: "ssa-01",
      speedCmPerS: 4.76,
      complaint: "Wavers, worse on batteries.",
      symptoms: ["wavers"],
      wantedBy: "2026-12-04",
      notes: "Old belt is tacky and has a flat where it sat on the motor pulley.",
      createdAt: "2026-11-12T08:40:00.000Z",
      done: {
        ...allDone("intake"),
        service: [stationById("service")!.checks[1]],
      },
    }),
    { "speed.errorPercent": -1.3, "belt.lumpPercent": 1.1, "wander.percent": 0.12 },
    398,
  )
    .log("speed", "as found")
    .log("flutter", "as found");
}
