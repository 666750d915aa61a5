import "fake-indexeddb/auto";
import Dexie from "dexie";
import { beforeEach, describe, expect, it } from "vitest";
import { readBlankJson, writeBlankJson } from "@/core/formats/blank-tape-json";
import { DEMO_BLANKS } from "@/core/practice/demo-blanks";
import { blankNamed, overBiasAt, typeWords } from "@/core/records/blank-tape";
import { aBundle, aJob, aReading } from "@/testing/records";
import { writeBundle } from "@/core/formats/job-bundle";
import { blanksOf, deleteBlank, importBlank, saveBlank } from "./blanks";
import { exportJob, importBundle } from "./bundles";
import { database, UnzelDatabase } from "./database";

const [PLAIN, CHROME, REEL] = DEMO_BLANKS;

describe("the library of blank tapes", () => {
  beforeEach(async () => {
    await database.delete();
    await database.open();
  });

  it("goes out as JSON and comes back the same; a damaged file changes nothing", async () => {
    for (const blank of DEMO_BLANKS) expect(readBlankJson(writeBlankJson(blank))).toEqual(blank);
    await importBlank(writeBlankJson(REEL));
    expect(await database.blanks.toArray()).toEqual([REEL]);
    for (const text of [
      "{",
      '{"format":"unzel-blank-tape","version":1}',
      writeBlankJson({ ...REEL, type: "V" as never }),
    ])
      await expect(importBlank(text)).rejects.toThrow(/blank tape|JSON/);
    expect(await database.blanks.count()).toBe(1);
  });

  it("knows its figure at a speed, and says what it is", () => {
    expect(overBiasAt(REEL, 38.1)?.db).toBe(2.5);
    expect(overBiasAt(REEL, 9.53)).toBeNull();
    expect(typeWords(REEL)).toBe("open reel, 35 µm");
    expect(typeWords(blankNamed("x", "x"))).toBe("type not said");
  });

  it("stays while a job is set for it or a reading was taken on it", async () => {
    for (const blank of DEMO_BLANKS) await saveBlank(blank);
    await database.jobs.add(aJob({ blankTapes: [{ id: PLAIN.id, name: PLAIN.name }] }));
    const reading = aReading();
    await database.readings.add({ ...reading, context: { ...reading.context, recordingOn: CHROME.id } });
    await expect(deleteBlank(PLAIN.id)).rejects.toThrow(/0412/);
    await expect(deleteBlank(CHROME.id)).rejects.toThrow(/reading/);
    await deleteBlank(REEL.id);
    expect(await database.blanks.count()).toBe(2);
  });

  it("travels with the job that names it; a bundle of before the library makes a tape of the name", async () => {
    const job = aJob({
      blankTapes: [
        { id: PLAIN.id, name: PLAIN.name },
        { id: "old", name: "an old one" },
      ],
    });
    const other = aJob({ id: "j2", number: "0413", blankTapes: job.blankTapes });
    await importBundle(
      writeBundle({ ...aBundle(), jobs: [job, other], blanks: [PLAIN] }, "2026-11-20T10:00:00.000Z"),
    );
    expect(await database.blanks.count()).toBe(2);
    expect(await blanksOf(job, [])).toEqual([PLAIN, blankNamed("old", "an old one")]);
    const again = JSON.parse(await exportJob(job.id)) as { content: { blanks: unknown[] } };
    expect(again.content.blanks).toHaveLength(2);
  });

  it("is made of the names in the jobs of an older database", async () => {
    const older = new Dexie("older-blanks");
    older.version(3).stores({
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
      runs: "id, jobId",
      watches: "id, jobId",
    });
    await older.table("jobs").add(aJob({ blankTapes: [{ id: "b1", name: "the owner's own" }] }));
    older.close();
    const now = new UnzelDatabase("older-blanks");
    expect(await now.blanks.toArray()).toEqual([blankNamed("b1", "the owner's own")]);
    now.close();
  });
});
