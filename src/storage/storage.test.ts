import "fake-indexeddb/auto";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { writeBundle } from "@/core/formats/job-bundle";
import { aBundle, aJob, aMachine, aReading, anAdjustment } from "@/testing/records";
import { exportJob, importBundle } from "./bundles";
import { database } from "./database";
import { dropDraft, readDraft, saveDraft } from "./drafts";
import { prepareFirstVisit } from "./first-visit";
import {
  appendAdjustment,
  appendReadings,
  changeJob,
  createJob,
  deleteJob,
  nextJobNumber,
  setCheck,
} from "./jobs";

const text = (content = aBundle()) => writeBundle(content, "2026-11-22T08:00:00.000Z");

beforeEach(async () => {
  await Promise.all(database.tables.map((table) => table.clear()));
});

describe("jobs", () => {
  it("stores a job and its new machine together or not at all", async () => {
    await createJob(aJob(), aMachine());
    await expect(createJob(aJob({ id: "j2", number: "" }), aMachine({ id: "m2" }))).rejects.toThrow();
    expect(await database.machines.count()).toBe(1);
    expect(await database.jobs.count()).toBe(1);
  });

  it("counts on from the largest number", async () => {
    expect(await nextJobNumber()).toBe("0001");
    await createJob(aJob({ number: "0412" }), null);
    await createJob(aJob({ id: "j2", number: "X-7" }), null);
    expect(await nextJobNumber()).toBe("0413");
  });

  it("keeps what two tabs change in different fields", async () => {
    await createJob(aJob(), null);
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
