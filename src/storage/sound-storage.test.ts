import "fake-indexeddb/auto";
import Dexie from "dexie";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { Tape } from "@/core/simulator/tape";
import { PRESETS } from "@/core/signals/presets";
import { aJob, aReading, aTape } from "@/testing/records";
import { changeCalibration, readCalibration } from "./calibrations";
import { database, UnzelDatabase } from "./database";
import { deleteJob } from "./deleted-jobs";
import { keepTape, restoreTape } from "./practice-tapes";
import {
  deleteRecordings,
  keepRecording,
  listRecordings,
  recordingsToDelete,
  StorageFullError,
} from "./recordings";
import { deleteSequence, importSequence } from "./sequences";
import { changeSettings, readSettings } from "./settings";
import { countPlay, deleteTape, importTapes } from "./tapes";

beforeEach(async () => {
  await Promise.all(database.tables.map((table) => table.clear()));
});

const recording = (id: string, at: string, bytes = 10) => ({
  id,
  jobId: "j1",
  at,
  seconds: 1,
  what: "speed",
  sound: new Blob([new Uint8Array(bytes)]),
});

describe("recordings", () => {
  it("are kept with their size, listed newest first, deleted, and go with their job", async () => {
    await keepRecording(recording("a", "2026-01-01T00:00:00.000Z"));
    await keepRecording(recording("b", "2026-02-01T00:00:00.000Z", 20));
    expect((await listRecordings()).map(({ id, bytes }) => [id, bytes])).toEqual([
      ["b", 20],
      ["a", 10],
    ]);
    await deleteRecordings(["a"]);
    await database.jobs.add(aJob());
    await deleteJob("j1");
    expect(await listRecordings()).toEqual([]);
  });

  it("that find no room leave a sentence, and nothing half stored", async () => {
    const full = Object.assign(new Dexie.AbortError("x"), { name: "QuotaExceededError" });
    const add = vi.spyOn(database.recordings, "add").mockRejectedValueOnce(full);
    await expect(keepRecording(recording("a", "2026-01-01T00:00:00.000Z"))).rejects.toThrow(StorageFullError);
    add.mockRestore();
    expect(await listRecordings()).toEqual([]);
  });

  it("are chosen for deletion by age or by size, the oldest first", () => {
    const rows = [1, 2, 3, 4].map((day) => ({
      id: `d${day}`,
      at: `2026-03-0${day}T12:00:00.000Z`,
      bytes: 100,
    }));
    const now = new Date("2026-03-05T12:00:00.000Z");
    expect(recordingsToDelete(rows, { olderThanDays: 2, now })).toEqual(["d1", "d2"]);
    expect(recordingsToDelete(rows, { keepBytes: 250 })).toEqual(["d2", "d1"]);
    expect(recordingsToDelete(rows, { keepBytes: 0 })).toHaveLength(4);
  });
});

it("settings fall back to how they come when what is stored cannot be read", async () => {
  expect((await readSettings()).evidenceSeconds).toBe(30);
  await changeSettings({ evidenceSeconds: 10 });
  await changeSettings({ inputId: "card" });
  expect(await readSettings()).toEqual({
    inputId: "card",
    outputId: null,
    evidenceSeconds: 10,
    practicePace: 1,
  });
  await database.settings.put({ id: "settings", value: { evidenceSeconds: "many" } });
  expect((await readSettings()).evidenceSeconds).toBe(30);
});

it("what is known of a device is kept part by part", async () => {
  const at = "2026-01-01T00:00:00.000Z";
  await changeCalibration("card", "A card", { clock: { ppm: 12, uncertaintyPpm: 1, at } });
  await changeCalibration("card", "A card", { level: { leftDbu: 12, rightDbu: 12.1, at } });
  expect(await readCalibration("card")).toMatchObject({
    clock: { ppm: 12 },
    level: { leftDbu: 12 },
    loopBack: null,
  });
  expect(await readCalibration("other")).toBeUndefined();
});

describe("tapes", () => {
  it("are imported whole or not at all, counted, and not deleted while something needs them", async () => {
    const csv = "id,name,speedCmPerS,kind,frequencyHz,levelDb,seconds\r\nt9,Nine,4.76,tone,1000,0,5\r\n";
    await importTapes("tapes.csv", csv);
    await expect(importTapes("tapes.csv", `${csv}t10,Ten,fast,tone,1000,0,5`)).rejects.toThrow(/Row 3/);
    expect(await database.tapes.count()).toBe(1);
    await importTapes("x.json", JSON.stringify(aTape()));
    await countPlay("t1");
    expect((await database.tapes.get("t1"))?.plays).toBe(1);

    await database.jobs.add(aJob());
    await expect(deleteTape("t1")).rejects.toThrow(/Job 0412/);
    await database.jobs.clear();
    await database.readings.add(aReading());
    await expect(deleteTape("t1")).rejects.toThrow(/reading/);
    await deleteTape("t9");
    expect(await database.tapes.get("t9")).toBeUndefined();
  });
});

it("sequences are imported, and anything else is refused", async () => {
  const { id } = await importSequence(JSON.stringify(PRESETS[0]));
  expect(await database.sequences.get(id)).toEqual(PRESETS[0]);
  await expect(importSequence("{")).rejects.toThrow(/complete JSON/);
  await expect(importSequence("{}")).rejects.toThrow(/not a test sequence/);
  await deleteSequence(id);
  expect(await database.sequences.count()).toBe(0);
});

const blank = (seconds = 9) =>
  new Tape({
    id: "b",
    name: "b",
    speedCmPerS: 4.76,
    t1Microseconds: 0,
    t2Microseconds: 70,
    bands: [],
    seconds,
  });

it("a long practice tape is kept in pieces; what the storage does not take is kept the next time", async () => {
  const tape = blank(30);
  const one = Float64Array.of(0.25);
  for (let second = 0; second < 20; second++) tape.sides[0].write(48_000 * second, one, one, 0);
  const table = database.tapeSeconds;
  const real = table.bulkPut.bind(table) as (rows: unknown[]) => unknown;
  const put = vi.spyOn(table, "bulkPut");
  put.mockImplementationOnce(real as never);
  put.mockRejectedValueOnce(new Dexie.QuotaExceededError("full"));
  await expect(keepTape(tape)).rejects.toThrow("full");
  expect((await table.count()) + tape.sides[0].changed.size).toBe(20);
  expect(await table.count()).toBeGreaterThan(0);
  await keepTape(tape);
  expect(await table.count()).toBe(20);
  expect(tape.sides[0].changed.size).toBe(0);
});

it("a practice tape keeps what was recorded on it", async () => {
  const tape = blank();
  tape.sides[1].write(96_000, new Float64Array(1000).fill(0.5), new Float64Array(1000).fill(-0.5), 0);
  await keepTape(tape);
  expect(tape.sides[1].changed.size).toBe(0);
  const again = blank();
  await restoreTape(again);
  expect(again.sides[1].read(0, 2 + 500 / 48000)).toBeCloseTo(0.5, 3);
  expect(again.sides[1].read(1, 2 + 500 / 48000)).toBeCloseTo(-0.5, 3);
  expect(again.sides[0].read(0, 2.01)).toBe(0);
});

it("a database of the first version opens with everything in it", async () => {
  const old = new Dexie("old");
  old.version(1).stores({ jobs: "id, number, machineId, updatedAt", readings: "id, jobId, [jobId+at]" });
  await old.table("jobs").add(aJob());
  old.close();
  const now = new UnzelDatabase("old");
  expect(await now.jobs.get("j1")).toEqual(aJob());
  expect(await now.recordings.count()).toBe(0);
  now.close();
});
