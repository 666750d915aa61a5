import "fake-indexeddb/auto";
import fc from "fast-check";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { SeededRandom } from "@/core/dsp/seeded-random";
import { faultOfReader, hostileFile, type Reader } from "@/testing/hostile-files";
import { aBundle, aJob, aMachine, aReading } from "@/testing/records";
import { database } from "../database";
import { LAST_CHANGED } from "../last-changed";
import { readArchive } from "./archive";
import { compareBackup, readBackup, restoreBackup, writeBackup } from "./backup";
import { lastBackup, noteBackup } from "./last-backup";
import { TABLE_NAMES } from "./backup-tables";

const AT = "2026-11-22T08:00:00.000Z";
const SOUND = new Uint8Array(3000).map((_, i) => (i * 7) % 256);

beforeEach(async () => {
  await Promise.all(database.tables.map((table) => table.clear()));
});

/** A workshop with something in every table that a backup has to bring back. */
async function aWorkshop() {
  const { jobs, machines, tapes, readings, adjustments } = aBundle();
  await database.jobs.bulkAdd(jobs);
  await database.machines.bulkAdd(machines);
  await database.tapes.bulkAdd(tapes);
  await database.readings.bulkAdd(readings);
  await database.adjustments.bulkAdd(adjustments);
  await database.settings.add({ id: "settings", value: { evidenceSeconds: 10 } });
  await database.drafts.bulkAdd([
    { id: "new-job", value: { complaint: "half typed" }, savedAt: AT },
    { id: "deleted-job-x", value: { job: aJob() }, savedAt: AT },
  ]);
  await database.tapeSeconds.add({
    id: "blank-0-1",
    tapeId: "blank",
    side: 0,
    second: 1,
    left: Float32Array.from([0.25, -1]),
    right: Float32Array.from([0.5]),
  });
  const sound = new Blob([SOUND], { type: "audio/wav" });
  await database.recordings.add({
    id: "s/1",
    jobId: "j1",
    at: AT,
    seconds: 1,
    bytes: SOUND.length,
    what: "speed",
    sound,
  });
}

/** Of all that is written down; when something was changed is noted a moment after it, by the clock. */
const counts = async () =>
  Object.fromEntries(
    await Promise.all(
      TABLE_NAMES.filter((table) => table !== "flags").map(async (table) => [
        table,
        await database.table(table).count(),
      ]),
    ),
  );

describe("a backup", () => {
  it("knows every table of the storage", () => {
    expect(TABLE_NAMES.toSorted()).toEqual(database.tables.map(({ name }) => name).toSorted());
  });

  it("brings everything back that was in it, sounds and tapes to the last bit, and no deleted job", async () => {
    await aWorkshop();
    const before = await database.readings.toArray();
    const archive = await writeBackup(AT);
    await Promise.all(database.tables.map((table) => table.clear()));
    const backup = await readBackup(archive);
    expect(backup.at).toBe(AT);
    await restoreBackup(backup, "replace");
    expect(await database.readings.toArray()).toEqual(before);
    expect(await database.drafts.toArray()).toEqual([
      { id: "new-job", value: { complaint: "half typed" }, savedAt: AT },
    ]);
    const second = (await database.tapeSeconds.get("blank-0-1"))!;
    expect([...second.left, ...second.right]).toEqual([0.25, -1, 0.5]);
    const { sound } = backup.rows.get("recordings")![0] as { sound: Blob };
    expect(new Uint8Array(await sound.arrayBuffer())).toEqual(SOUND);
  });

  it("of more than was once allowed is read back whole: marks, pictures, a long complaint", async () => {
    await aWorkshop();
    await database.jobs.update("j1", {
      complaint: "x".repeat(30_000),
      pictures: Array.from({ length: 60 }, (_, i) => `p${i}`),
    });
    const mark = { kind: "ring" as const, from: { x: 0, y: 0 }, to: { x: 1, y: 1 } };
    await database.pictures.add({
      id: "p1",
      jobId: "j1",
      at: AT,
      width: 10,
      height: 10,
      bytes: 3,
      marks: Array.from({ length: 40 }, () => mark),
      image: new Blob(["abc"]),
    });
    const backup = await readBackup(await writeBackup(AT));
    expect(backup.aside).toEqual([]);
    await restoreBackup(backup, "replace");
    expect((await database.pictures.get("p1"))!.marks).toHaveLength(40);
    expect((await database.jobs.get("j1"))!.complaint).toHaveLength(30_000);
  });

  it("with a record that cannot be used sets it aside by name and brings the rest back", async () => {
    await aWorkshop();
    await database.machines.add({ ...aMachine(), id: "m9", name: "Broken", speedsCmPerS: [] });
    const before = await database.machines.count();
    const backup = await readBackup(await writeBackup(AT));
    expect(backup.aside).toHaveLength(1);
    expect(backup.aside[0]).toMatch(/^machines, number \d+ \(Broken\): /);
    await restoreBackup(backup, "replace");
    expect(await database.machines.count()).toBe(before - 1);
    expect(await database.jobs.count()).toBe(1);
  });

  it("says what it would change before it does", async () => {
    await aWorkshop();
    const backup = await readBackup(await writeBackup(AT));
    await database.jobs.update("j1", { notes: "changed since", updatedAt: "2027-01-01T00:00:00.000Z" });
    const [first] = await database.readings.toArray();
    await database.readings.delete(first.id);
    await database.readings.add(aReading());
    const of = async (name: string) => (await compareBackup(backup)).find(({ table }) => table === name);
    expect(await of("jobs")).toEqual({ table: "jobs", added: 0, same: 0, other: 1, here: 0 });
    expect(await of("readings")).toMatchObject({ added: 1, other: 0, here: 1 });
    await restoreBackup(backup, "merge");
    // what was changed later stays, what was missing is back, what was new is still there
    expect((await database.jobs.get("j1"))!.notes).toBe("changed since");
    expect(await of("readings")).toMatchObject({ added: 0, here: 1 });
  });

  it("with a logged reading of another value is refused whole", async () => {
    await aWorkshop();
    const backup = await readBackup(await writeBackup(AT));
    const [first] = await database.readings.toArray();
    await database.readings.update(first.id, { value: 0.5 });
    await database.machines.clear();
    await expect(restoreBackup(backup, "merge")).rejects.toThrow(/never changed: nothing was restored/);
    expect(await database.machines.count()).toBe(0);
    expect((await database.readings.get(first.id))!.value).toBe(0.5);
  });

  it("that is cut short or changed anywhere is refused, and nothing is changed", async () => {
    await aWorkshop();
    const bytes = new Uint8Array(await (await writeBackup(AT)).arrayBuffer());
    const before = await counts();
    await fc.assert(
      fc.asyncProperty(fc.double({ min: 0, max: 0.9999, noNaN: true }), fc.boolean(), async (share, cut) => {
        const at = Math.floor(share * bytes.length);
        const changed = cut ? bytes.slice(0, at) : bytes.with(at, bytes[at] ^ 0x40);
        const outcome = await readBackup(new Blob([changed])).then(
          () => "read",
          ({ name, message }: Error) => `${name}: ${message}`,
        );
        // a byte that says nothing of what is in it, such as a date, may change
        if (outcome !== "read" || cut) expect(outcome).toMatch(/^ImportError: .*(backup|archive)/i);
      }),
      { numRuns: 120 },
    );
    expect(await counts()).toEqual(before);
  });

  it("that was made to harm is read, or refused with a sentence", async () => {
    await aWorkshop();
    const reader: Reader = {
      name: "backup",
      kind: "bytes",
      good: [new Uint8Array(await (await writeBackup(AT)).arrayBuffer())],
      read: (bytes) => readBackup(new Blob([bytes.slice()])),
    };
    const random = new SeededRandom(12);
    for (let i = 0; i < 200; i++) expect(await faultOfReader(reader, hostileFile(reader, random))).toBeNull();
  });

  it.each([
    ["nothing", new Uint8Array(0)],
    ["words", new TextEncoder().encode("this was never an archive")],
  ])("%s is none", async (_, bytes) => {
    await expect(readArchive(new Blob([bytes]))).rejects.toThrow("This is not a backup of Unzel.");
  });

  it("is remembered, and whether anything was changed since", async () => {
    const [then, later] = ["2999-01-01T00:00:00.000Z", "2999-01-02T00:00:00.000Z"];
    expect(await lastBackup()).toBeNull();
    await noteBackup(then);
    expect(await lastBackup()).toEqual({ at: then, since: false });
    await database.flags.put({ id: LAST_CHANGED, value: later });
    expect(await lastBackup()).toEqual({ at: then, since: true });
  });

  it.each<[string, () => Promise<unknown>]>([
    ["a machine", () => database.machines.add(aMachine())],
    ["a spare part", () => database.spares.add({ id: "s", name: "belt" } as never)],
    ["a setting", () => database.settings.put({ id: "settings", value: { evidenceSeconds: 5 } })],
  ])("%s that is changed is noted", async (_, change) => {
    const noted = async () => (await database.flags.get(LAST_CHANGED))?.value ?? "";
    const before = new Date().toISOString();
    await change();
    await vi.waitFor(async () => expect((await noted()) >= before).toBe(true), 3000);
  });
});
