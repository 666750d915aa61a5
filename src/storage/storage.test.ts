import "fake-indexeddb/auto";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { writeBundle } from "@/core/formats/job-bundle";
import { aBundle, aJob, aMachine, aReading, aTape, anAdjustment } from "@/testing/records";
import { exportJob, importBundle, previewBundle } from "./bundles";
import { SYMPTOMS } from "@/core/workshop/symptoms";
import { takeFromFile } from "./offered-records";
import { database } from "./database";
import { bringBackJob, deletedJobs, deleteJob, letGoOfDeleted } from "./deleted-jobs";
import { dropDraft, readDraft, saveDraft } from "./drafts";
import { prepareFirstVisit } from "./first-visit";
import {
  appendAdjustment,
  appendReadings,
  changeJob,
  changeSymptoms,
  createJob,
  nextJobNumber,
  setCheck,
} from "./jobs";

const text = (content = aBundle()) => writeBundle(content, "2026-11-22T08:00:00.000Z");

beforeEach(async () => {
  await Promise.all(database.tables.map((table) => table.clear()));
});

describe("jobs", () => {
  beforeEach(async () => {
    await database.tapes.add(aTape());
  });

  it("stores a job and its new machine together or not at all", async () => {
    await createJob(aJob(), aMachine());
    await expect(createJob(aJob({ id: "j2", number: "" }), aMachine({ id: "m2" }))).rejects.toThrow();
    expect(await database.machines.count()).toBe(1);
    expect(await database.jobs.count()).toBe(1);
  });

  it("counts on from the largest number", async () => {
    expect(await nextJobNumber()).toBe("0001");
    await createJob(aJob({ number: "0412" }), aMachine());
    await createJob(aJob({ id: "j2", number: "X-7" }), null);
    expect(await nextJobNumber()).toBe("0413");
  });

  it("is not stored where its machine or tape was deleted meanwhile", async () => {
    await expect(createJob(aJob(), null)).rejects.toThrow(/machine was deleted/);
    await expect(createJob(aJob({ tapeId: "gone" }), aMachine())).rejects.toThrow(/tape was deleted/);
    expect(await database.jobs.count()).toBe(0);
    expect(await database.machines.count()).toBe(0);
  });

  it("keeps symptoms that are pressed faster than they are stored", async () => {
    await createJob(aJob(), aMachine());
    await Promise.all(SYMPTOMS.slice(0, 2).map((one) => changeSymptoms("j1", (now) => [...now, one])));
    expect((await database.jobs.get("j1"))!.symptoms).toEqual(SYMPTOMS.slice(0, 2));
  });

  it("takes no change that a backup could not be read back with", async () => {
    await createJob(aJob(), aMachine());
    await expect(changeJob("j1", { complaint: "x".repeat(1_000_001) })).rejects.toThrow(/complaint: at most/);
    expect((await database.jobs.get("j1"))!.complaint).toBe("Runs slow.");
  });

  it("keeps what two tabs change in different fields", async () => {
    await createJob(aJob(), aMachine());
    await Promise.all([
      changeJob("j1", { notes: "from one" }),
      changeJob("j1", { complaint: "from the other" }),
      setCheck("j1", "clean", "a", true),
      setCheck("j1", "clean", "b", true),
    ]);
    const job = await database.jobs.get("j1");
    expect(job).toMatchObject({ notes: "from one", complaint: "from the other" });
    expect(job?.done.clean?.toSorted()).toEqual(["a", "b"]);
    await setCheck("j1", "clean", "a", false);
    expect((await database.jobs.get("j1"))?.done.clean).toEqual(["b"]);
  });

  it("appends readings and never overwrites one", async () => {
    const reading = aReading();
    await appendReadings([reading]);
    await expect(appendReadings([{ ...reading, value: 0 }])).rejects.toThrow();
    expect((await database.readings.get(reading.id))?.value).toBe(-1.62);
  });

  it("refuses a reading that is not one", async () => {
    await expect(appendReadings([{ ...aReading(), value: NaN }])).rejects.toThrow();
    expect(await database.readings.count()).toBe(0);
  });

  it("deletes a job with what belongs to it and nothing else", async () => {
    await createJob(aJob(), aMachine());
    await createJob(aJob({ id: "j2" }), null);
    await appendReadings([aReading(), aReading({ jobId: "j2" })]);
    await appendAdjustment(anAdjustment());
    await deleteJob("j1");
    expect(await database.jobs.toCollection().primaryKeys()).toEqual(["j2"]);
    expect(await database.readings.count()).toBe(1);
    expect(await database.adjustments.count()).toBe(0);
    expect(await database.machines.count()).toBe(1);
  });

  it("brings a deleted job back within a day with all that was its own, and lets go of it after", async () => {
    const everything = () =>
      Promise.all(
        database.tables.filter(({ name }) => name !== "flags").map((table) => table.orderBy(":id").toArray()),
      );
    await createJob(aJob(), aMachine());
    await createJob(aJob({ id: "j2" }), null);
    await appendReadings([aReading(), aReading({ jobId: "j2" })]);
    await appendAdjustment(anAdjustment());
    await saveDraft("practice-j1", { seed: 3 });
    await saveDraft("practice-j2", { seed: 4 });
    const before = await everything();
    await deleteJob("j1");
    expect(await database.drafts.get("practice-j1")).toBeUndefined();
    expect(await deletedJobs()).toMatchObject([{ id: "j1" }]);
    await letGoOfDeleted();
    await bringBackJob("j1");
    expect(await everything()).toEqual(before);
    await expect(bringBackJob("j1")).rejects.toThrow(/cannot be brought back/);

    await deleteJob("j1");
    const { value } = (await database.drafts.get("deleted-job-j1"))!;
    await database.drafts.put({
      id: "deleted-job-j1",
      value,
      savedAt: new Date(Date.now() - 25 * 3600_000).toISOString(),
    });
    expect(await deletedJobs()).toEqual([]);
    await letGoOfDeleted();
    await expect(bringBackJob("j1")).rejects.toThrow(/more than a day ago/);
  });
});

describe("export and import", () => {
  it("loses nothing on the way out, through an emptied browser, and back in", async () => {
    await importBundle(text());
    const out = await exportJob("j1");
    await Promise.all(database.tables.map((table) => table.clear()));
    expect(await importBundle(out)).toMatchObject({
      jobNumbers: ["0412"],
      newReadings: 1,
      newAdjustments: 1,
    });
    const { jobs, machines, tapes, readings, adjustments } = aBundle();
    expect(await database.jobs.toArray()).toEqual(jobs);
    expect(await database.machines.toArray()).toEqual(machines);
    expect(await database.tapes.toArray()).toEqual(tapes);
    expect(await database.readings.toArray()).toEqual(readings);
    expect(await database.adjustments.toArray()).toEqual(adjustments.map((a) => ({ ...a })));
  });

  it("adds to a job that is here already, and keeps the later version of it", async () => {
    await importBundle(text());
    await changeJob("j1", { notes: "written here since" });
    const more = aBundle();
    more.readings.push(aReading({ id: "r2", minutes: 5 }));
    expect(await importBundle(text(more))).toMatchObject({ newReadings: 1, newAdjustments: 0 });
    expect((await database.jobs.get("j1"))?.notes).toBe("written here since");
  });

  it("says of a file without its checksum what it would add, before anything is added", async () => {
    const unsigned = JSON.parse(text()) as { checksum?: string };
    expect(await previewBundle(text())).toMatchObject({ signed: true, newReadings: 1 });
    delete unsigned.checksum;
    expect(await previewBundle(JSON.stringify(unsigned))).toEqual({
      signed: false,
      jobNumbers: ["0412"],
      newReadings: 1,
      newAdjustments: 1,
    });
    expect(await database.readings.count()).toBe(0);
  });

  it("a machine or tape that is another in the file stays as it is, and can be taken", async () => {
    await importBundle(text());
    const more = aBundle();
    const [machine] = more.machines;
    more.machines = [{ ...machine, name: "As the file has it" }];
    const { differing } = await importBundle(text(more));
    expect(differing.map(({ table, record, fields }) => [table, record.id, fields])).toEqual([
      ["machines", machine.id, ["name"]],
    ]);
    expect((await database.machines.get(machine.id))!.name).toBe(machine.name);
    await takeFromFile(differing[0], ["name"]);
    expect((await database.machines.get(machine.id))!.name).toBe("As the file has it");
    expect((await importBundle(text(more))).differing).toEqual([]);
  });

  it("a logged reading or turn is never changed: another content under its id refuses the whole file", async () => {
    await importBundle(text());
    const same = aBundle();
    same.readings = same.readings.map(
      (one) => Object.fromEntries(Object.entries(one).reverse()) as typeof one,
    );
    expect(await importBundle(text(same))).toMatchObject({ newReadings: 0, newAdjustments: 0 });
    const kept = await Promise.all([database.readings.toArray(), database.adjustments.toArray()]);

    const value = aBundle();
    value.readings[0].value = -0.4;
    value.readings.push(aReading({ id: "r2", minutes: 5 }));
    await expect(importBundle(text(value))).rejects.toThrow(/A reading in the file .*r1.*never changed/);
    const turns = aBundle();
    turns.readings.push(aReading({ id: "r2", minutes: 5 }));
    turns.adjustments[0].turns = 3;
    await expect(importBundle(text(turns))).rejects.toThrow(/A turn in the file .*a1/);
    expect(await Promise.all([database.readings.toArray(), database.adjustments.toArray()])).toEqual(kept);
  });

  it.each(["../settings", "a/b", "a%2Fb", "..", "", "a b", "x?y", "x#y"])(
    "an id %j cannot leave its place in an address",
    async (id) => {
      const odd = aBundle();
      odd.jobs[0].id = id;
      odd.readings = [];
      odd.adjustments = [];
      await expect(importBundle(text(odd))).rejects.toThrow(/The file is damaged/);
      expect(await database.jobs.count()).toBe(0);
    },
  );

  it("imports nothing of a file that is partly wrong", async () => {
    const bad = aBundle();
    bad.readings.push(aReading({ id: "r9", jobId: "elsewhere" }));
    await expect(importBundle(text(bad))).rejects.toThrow(/not in it/);
    expect(await database.jobs.count()).toBe(0);
  });
});

it("keeps a draft until it is dropped", async () => {
  await saveDraft("new-job", { complaint: "half typ" });
  expect(await readDraft("new-job")).toEqual({ complaint: "half typ" });
  await dropDraft("new-job");
  expect(await readDraft("new-job")).toBeUndefined();
});

describe("first visit", () => {
  afterEach(() => vi.unstubAllGlobals());
  const serve = (respond: () => Promise<Response>) => vi.stubGlobal("fetch", respond);
  const demo = () => Promise.resolve(new Response(text()));

  it("loads the demo once: what was deleted from it stays deleted", async () => {
    serve(demo);
    await Promise.all([prepareFirstVisit(true), prepareFirstVisit(true)]);
    expect(await database.jobs.count()).toBe(1);
    await deleteJob("j1");
    await prepareFirstVisit(true);
    expect(await database.jobs.count()).toBe(0);
    expect(await database.tapes.count()).toBeGreaterThan(1);
  });

  it("begins again after a visit that was interrupted", async () => {
    serve(() => Promise.reject(new TypeError("aborted")));
    await expect(prepareFirstVisit(true)).rejects.toThrow("aborted");
    serve(demo);
    await prepareFirstVisit(true);
    expect(await database.jobs.count()).toBe(1);
  });

  it("brings no demo to a server without one", async () => {
    serve(demo);
    await prepareFirstVisit(false);
    expect(await database.jobs.count()).toBe(0);
  });
});
