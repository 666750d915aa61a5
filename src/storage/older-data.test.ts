import "fake-indexeddb/auto";
import { readFileSync } from "node:fs";
import Dexie from "dexie";
import { beforeEach, describe, expect, it } from "vitest";
import { routeOf } from "@/core/alignment/registry";
import { sheetOf } from "@/core/alignment/sheet";
import { stationState } from "@/core/alignment/station-state";
import { readBundle } from "@/core/formats/job-bundle";
import { adjustmentSchema } from "@/core/records/adjustment";
import { jobSchema } from "@/core/records/job";
import type { JobRecords } from "@/core/records/job-records";
import { machineSchema } from "@/core/records/machine";
import { readingSchema } from "@/core/records/reading";
import { referenceTapeSchema } from "@/core/reference/reference-tape";
import { importBundle } from "./bundles";
import { UnzelDatabase, database } from "./database";

/** Exported before the stations became modules of their own. */
const BUNDLE = readFileSync(new URL("fixtures/before-station-modules.unzel.json", import.meta.url), "utf8");

/** What the version that wrote it said of its jobs. */
const STATES: Record<string, Record<string, string>> = {
  "0412": { speed: "found", flutter: "stale", azimuth: "blank", level: "blank", response: "blank" },
  "0409": {
    speed: "settled",
    flutter: "settled",
    azimuth: "settled",
    level: "settled",
    response: "settled",
  },
};
const ROWS: Record<string, Record<string, number>> = {
  "0412": { speed: 1, flutter: 10, azimuth: 0, level: 0, response: 0 },
  "0409": { speed: 1, flutter: 10, azimuth: 4, level: 3, response: 2 },
};

async function recordsIn(store: UnzelDatabase): Promise<JobRecords[]> {
  const jobs = await store.jobs.toArray();
  return Promise.all(
    jobs.map(async (job) => ({
      job,
      machine: (await store.machines.get(job.machineId))!,
      readings: await store.readings.where("jobId").equals(job.id).toArray(),
      adjustments: await store.adjustments.where("jobId").equals(job.id).toArray(),
    })),
  );
}

function expectAsItWas(all: JobRecords[]) {
  expect(all.map(({ job }) => job.number).sort()).toEqual(["0409", "0412"]);
  for (const records of all) {
    const { number } = records.job;
    const states = Object.fromEntries(
      routeOf(records).map((station) => [station.id, stationState(records, station)]),
    );
    expect(states).toMatchObject(STATES[number]);
    const rows: Record<string, number> = {};
    for (const { station, rows: own } of sheetOf(records).stations)
      rows[station.id] = (rows[station.id] ?? 0) + own.length;
    expect(rows).toMatchObject(ROWS[number]);
  }
}

beforeEach(async () => {
  await Promise.all(database.tables.map((table) => table.clear()));
});

describe("what an older version wrote", () => {
  it("a bundle is read, and says of its jobs what it said then", async () => {
    const content = readBundle(BUNDLE);
    const outcome = await importBundle(BUNDLE);
    expect(outcome.newReadings).toBe(content.readings.length);
    expectAsItWas(await recordsIn(database));
  });

  it("a database is opened, brought up to date, and says the same", async () => {
    const content = readBundle(BUNDLE);
    const older = new Dexie("older");
    older.version(2).stores({
      jobs: "id, number, machineId, updatedAt",
      machines: "id, name",
      tapes: "id, name",
      readings: "id, jobId, [jobId+at]",
      adjustments: "id, jobId, [jobId+at]",
      drafts: "id",
      flags: "id",
      settings: "id",
      calibrations: "deviceId",
      recordings: "id, jobId, at",
      sequences: "id, name",
      tapeSeconds: "id, tapeId",
    });
    const { jobs, machines, tapes, readings, adjustments } = content;
    // machines had neither parts nor tracks then
    const bare = machines.map((machine) => ({ ...machine, parts: undefined, tracks: undefined }));
    for (const [name, rows] of Object.entries({ jobs, machines: bare, tapes, readings, adjustments }))
      await older.table(name).bulkAdd(rows);
    older.close();

    const now = new UnzelDatabase("older");
    const all = await recordsIn(now);
    expectAsItWas(all);
    for (const machine of await now.machines.toArray())
      expect(machineSchema.parse(machine)).toMatchObject({ parts: [], tracks: null });
    for (const [schema, table] of [
      [jobSchema, now.jobs],
      [referenceTapeSchema, now.tapes],
      [readingSchema, now.readings],
      [adjustmentSchema, now.adjustments],
    ] as const)
      for (const row of await table.toArray()) expect(schema.parse(row)).toMatchObject({ id: row.id });
    now.close();
  });
});
