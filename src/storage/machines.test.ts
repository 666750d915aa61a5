import "fake-indexeddb/auto";
import { beforeEach, describe, expect, it } from "vitest";
import { writeMachineJson } from "@/core/formats/machine-json";
import type { Machine } from "@/core/records/machine";
import { aBundle, aJob, aMachine } from "@/testing/records";
import { exportJob, importBundle } from "./bundles";
import { database } from "./database";
import { changeMachine, deleteMachine, importMachine, saveMachine } from "./machines";
import { takeFromFile } from "./offered-records";
import { deleteRun, keepRun, keepWatch } from "./runs";

const WATCH = {
  id: "w1",
  jobId: "j1",
  at: "2026-01-01T10:00:00.000Z",
  label: "side A",
  startSeconds: 0,
  stepSeconds: 0.5,
  speedPercent: [0.1, null, 0.2],
  flutterPercent: [null, null, 0.05],
  levelDb: [-12, -12, -12],
  events: [{ kind: "slip" as const, atSeconds: 1, seconds: 0.3, percent: -4 }],
  spectra: [[0.1, 0.2]],
  missed: [],
};
const RUN = {
  id: "r1",
  jobId: "j1",
  at: "2026-01-01T10:00:00.000Z",
  label: "run 1",
  seconds: 60,
  totalRmsPercent: 0.1,
  parts: [
    { part: "belt", role: "belt" as const, rateHz: 3.3, peakPercent: 0.5, sharePercent: 93, certainty: 0.97 },
  ],
};

beforeEach(async () => {
  await Promise.all(database.tables.map((table) => table.clear()));
});

describe("machines", () => {
  it("are saved whole or not at all", async () => {
    await saveMachine(aMachine());
    expect(await database.machines.count()).toBe(1);
    await expect(saveMachine(aMachine({ id: "m2", speedsCmPerS: [] }))).rejects.toThrow();
    expect(await database.machines.count()).toBe(1);
  });

  it("are deleted unless a job is about them", async () => {
    await saveMachine(aMachine());
    await database.jobs.add(aJob({ machineId: "m1" }));
    await expect(deleteMachine("m1")).rejects.toThrow(/is about this machine/);
    await database.jobs.clear();
    await deleteMachine("m1");
    expect(await database.machines.count()).toBe(0);
  });

  it("stay as they are when a file has them otherwise, and take of it what is chosen, by what is here then", async () => {
    await saveMachine(aMachine({ notes: "kept" }));
    const parts = [{ name: "capstan", tapeDiameterMm: 2.5, tolerancePercent: 2 }];
    const [one] = aMachine().adjusters;
    const { differing } = await importMachine(writeMachineJson(aMachine({ adjusters: [one], parts })));
    expect(differing).toHaveLength(1);
    expect(differing[0].fields.toSorted()).toEqual(["adjusters", "notes", "parts"]);
    expect(await database.machines.get("m1")).toEqual(aMachine({ notes: "kept" }));
    await changeMachine("m1", () => ({ description: "written meanwhile" }));
    await takeFromFile(differing[0], ["parts"]);
    expect(await database.machines.get("m1")).toEqual(
      aMachine({ notes: "kept", parts, description: "written meanwhile" }),
    );
    // one that is new is added
    expect((await importMachine(writeMachineJson(aMachine({ id: "m2" })))).differing).toEqual([]);
    expect(await database.machines.count()).toBe(2);
    await expect(importMachine("{}")).rejects.toThrow(/not a machine/);
  });
});

describe("runs and watches", () => {
  it("are checked when kept, travel with their job, and can be deleted", async () => {
    const { jobs, machines, tapes, readings } = aBundle();
    await database.jobs.bulkAdd(jobs);
    await database.machines.bulkAdd(machines);
    await database.tapes.bulkAdd(tapes);
    await database.readings.bulkAdd(readings);
    await keepRun(RUN);
    await keepWatch(WATCH);
    await expect(keepRun({ ...RUN, id: "r2", label: "" })).rejects.toThrow();
    const text = await exportJob("j1");
    await Promise.all(database.tables.map((table) => table.clear()));
    await importBundle(text);
    expect(await database.runs.toArray()).toEqual([RUN]);
    expect(await database.watches.toArray()).toEqual([WATCH]);
    await deleteRun("r1");
    expect(await database.runs.count()).toBe(0);
  });
});

it("machines of an older version of the database get an empty list of parts", async () => {
  const old: Partial<Machine> = aMachine();
  delete old.parts;
  delete old.tracks;
  const { default: Dexie } = await import("dexie");
  const before = new Dexie("older");
  before.version(2).stores({ machines: "id, name" });
  await before.table("machines").add(old);
  before.close();
  const { UnzelDatabase } = await import("./database");
  const now = new UnzelDatabase("older");
  expect(await now.machines.get("m1")).toMatchObject({ parts: [], tracks: null });
  now.close();
});
