import "fake-indexeddb/auto";
import Dexie from "dexie";
import { beforeEach, describe, expect, it } from "vitest";
import { writeBundle } from "@/core/formats/job-bundle";
import { inPlace, openLines } from "@/core/workshop/strip-down";
import { expectedOn, stateOf } from "@/core/workshop/part";
import { aBundle, aJob, aPart } from "@/testing/records";
import { readBackup, restoreBackup, writeBackup, writeJobArchive } from "./backup/backup";
import { exportJob, importBundle } from "./bundles";
import { database, UnzelDatabase } from "./database";
import { bringBackJob, deleteJob } from "./deleted-jobs";
import { dropPart, expectPart, needPart, stepPart, takeBackStep } from "./needed-parts";
import { keepPicture, markPicture } from "./pictures";
import {
  addStripPicture,
  clearTrouble,
  earlierLog,
  logStripEntry,
  redoStripEntry,
  setApart,
  setFitted,
  setStripLine,
  setTrouble,
  undoStripEntry,
} from "./strip-down";

const AT = "2026-11-20T10:00:00.000Z";
const log = async () => inPlace(await database.stripDown.toArray());
const parts = () => database.neededParts.toArray();
const off = async (...kinds: Array<Parameters<typeof logStripEntry>[1]>) => {
  for (const kind of kinds) await logStripEntry("j1", kind).stored;
  return log();
};

beforeEach(async () => {
  await Promise.all(database.tables.map((table) => table.clear()));
  await database.jobs.add(aJob());
});

describe("the strip-down log", () => {
  it("keys pressed faster than they are stored keep their order", async () => {
    const pressed = (["assembly", "screw", "washer", "ball", "clip"] as const).map((kind) =>
      logStripEntry("j1", kind),
    );
    await Promise.all(pressed.map(({ stored }) => stored));
    const entries = await log();
    expect(entries.map(({ place }) => place)).toEqual([1, 2, 3, 4, 5]);
    expect(entries.map(({ id }) => id)).toEqual(pressed.map(({ id }) => id));
    expect(entries[4].inside).toBe(entries[0].id);
  });

  it("an assembly that is apart leads back to the one around it", async () => {
    await off("assembly", "assembly");
    await setApart("j1");
    const entries = await off("screw");
    expect(entries[2].inside).toBe(entries[0].id);
  });

  it("the last entry is undone and put back, but not over another that came since", async () => {
    await off("screw", "washer");
    const undone = (await undoStripEntry("j1"))!;
    expect(undone.kind).toBe("washer");
    await redoStripEntry(undone);
    expect(await log()).toHaveLength(2);
    await undoStripEntry("j1");
    await off("ball");
    await redoStripEntry(undone);
    expect((await log()).map(({ kind }) => kind)).toEqual(["screw", "ball"]);
  });

  it("an assembly with a forgotten washer is refused, and nothing is stored", async () => {
    const [assembly, washer] = await off("assembly", "washer");
    await setStripLine(washer.id, "0.5 mm, under the idler");
    expect(await setFitted(assembly.id, true)).toMatch(/washer under the idler/);
    expect(openLines(await log())).toHaveLength(2);
    expect(await setFitted(washer.id, true)).toBeNull();
    expect(await setFitted(assembly.id, true)).toBeNull();
    expect(openLines(await log())).toEqual([]);
    await setFitted(washer.id, false);
    expect(openLines(await log())).toHaveLength(1);
  });

  it("what is missing becomes one part to get, and goes when it was found before it was ordered", async () => {
    const [clip] = await off("clip");
    await setTrouble(clip.id, "missing", "service");
    await setTrouble(clip.id, "broken", "service");
    expect(await parts()).toMatchObject([{ name: "clip 1 (missing)", entryId: clip.id, station: "service" }]);
    await clearTrouble(clip.id);
    expect(await parts()).toEqual([]);
    await setTrouble(clip.id, "missing", "service");
    await stepPart((await parts())[0].id, "ordered", "2026-12-01");
    await clearTrouble(clip.id);
    expect(await parts()).toHaveLength(1);
  });

  it("an earlier job on the same machine is the guide of a later one", async () => {
    await off("screw");
    await database.jobs.add(aJob({ id: "j2", number: "0500", createdAt: "2026-11-25T10:00:00.000Z" }));
    expect(await earlierLog("j2", "m1")).toMatchObject({ number: "0412", log: [{ kind: "screw" }] });
    expect(await earlierLog("j1", "m1")).toBeNull();
  });
});

describe("parts", () => {
  it("go from step to step; a day is kept only while one is under way, and a step can be taken back", async () => {
    await needPart("j1", {
      name: "belt",
      count: 2,
      station: "service",
      from: "",
      state: "wanted",
      expected: "2026-12-01",
    });
    const { id } = (await parts())[0];
    const now = async () => (await database.neededParts.get(id))!;
    expect(expectedOn(await now())).toBeNull();
    await stepPart(id, "ordered", "2026-12-01");
    await expectPart(id, "2026-12-05");
    expect(expectedOn(await now())).toBe("2026-12-05");
    await stepPart(id, "wrong", "2026-12-09");
    expect([stateOf(await now()), expectedOn(await now())]).toEqual(["wrong", null]);
    await takeBackStep(id);
    expect([stateOf(await now()), (await now()).steps.length]).toEqual(["ordered", 2]);
    await dropPart(id);
    expect(await parts()).toEqual([]);
  });

  it.each([
    ["without a name", { name: " ", count: 1, station: "service" }],
    ["none of them", { name: "belt", count: 0, station: "service" }],
    ["for no station there is", { name: "belt", count: 1, station: "kitchen" }],
  ])("%s is refused", async (_, bad) => {
    await expect(needPart("j1", { ...bad, from: "", state: "wanted", expected: null })).rejects.toThrow();
    expect(await parts()).toEqual([]);
  });
});

const PICTURE = {
  id: "pic1",
  jobId: "j1",
  at: AT,
  width: 40,
  height: 30,
  bytes: 4,
  marks: [],
  image: new Blob([new Uint8Array([0xff, 0xd8, 0xff, 0xd9])], { type: "image/jpeg" }),
};

describe("what a job carries with it", () => {
  const filled = async () => {
    await database.machines.add(aBundle().machines[0]);
    await database.tapes.add(aBundle().tapes[0]);
    const [screw] = await off("screw");
    await keepPicture(PICTURE);
    await addStripPicture(screw.id, "pic1");
    await markPicture("pic1", [{ kind: "arrow", from: { x: 0, y: 0 }, to: { x: 0.5, y: 0.5 } }]);
    await setTrouble(screw.id, "broken", "service");
  };

  it("its file holds the log and its parts, and a later change is not undone by it", async () => {
    await filled();
    const file = await exportJob("j1");
    const [part] = await parts();
    await stepPart(part.id, "ordered", null);
    await importBundle(file);
    expect(stateOf((await parts())[0])).toBe("ordered");
    await Promise.all([database.stripDown.clear(), database.neededParts.clear()]);
    await importBundle(file);
    expect(await log()).toHaveLength(1);
    expect(stateOf((await parts())[0])).toBe("wanted");
  });

  it("a file of a version without parts brings the one that it waits for", async () => {
    const waiting = { for: "belt 71 mm", until: "2026-11-30", after: "service" };
    await importBundle(
      writeBundle({ ...aBundle(), jobs: [aJob({ waiting, updatedAt: "2027-01-01T10:00:00.000Z" })] }, AT),
    );
    expect(await parts()).toMatchObject([{ name: "belt 71 mm", station: "service", jobId: "j1" }]);
    expect((await database.jobs.get("j1"))!.waiting).toBeNull();
  });

  it("so does a database of one", async () => {
    const old = new Dexie("waits");
    old.version(4).stores({ jobs: "id, number, machineId, updatedAt" });
    await old.table("jobs").add(aJob({ waiting: { for: "roller", until: "2026-12-02", after: "path" } }));
    old.close();
    const now = new UnzelDatabase("waits");
    const [part] = await now.neededParts.toArray();
    expect([part.name, part.station, stateOf(part), expectedOn(part)]).toEqual([
      "roller",
      "path",
      "ordered",
      "2026-12-02",
    ]);
    expect((await now.jobs.get("j1"))!.waiting).toBeNull();
    now.close();
  });

  it("deleted, all of it goes and comes back with it", async () => {
    await filled();
    await deleteJob("j1");
    for (const table of [database.stripDown, database.neededParts, database.pictures])
      expect(await table.count()).toBe(0);
    await bringBackJob("j1");
    expect(await log()).toHaveLength(1);
    expect(await parts()).toHaveLength(1);
    expect((await database.pictures.get("pic1"))!.marks).toHaveLength(1);
  });

  it("a picture that is taken in while its job is deleted does not stay behind", async () => {
    await deleteJob("j1");
    await keepPicture(PICTURE);
    expect(await database.pictures.count()).toBe(0);
  });

  it("a backup brings back its pictures byte for byte", async () => {
    await filled();
    const archive = await writeBackup(AT);
    await Promise.all(database.tables.map((table) => table.clear()));
    await restoreBackup(await readBackup(archive), "replace");
    const picture = (await database.pictures.get("pic1"))!;
    expect(new Uint8Array(await picture.image.arrayBuffer())).toEqual(
      new Uint8Array([0xff, 0xd8, 0xff, 0xd9]),
    );
    expect(picture.image.type).toBe("image/jpeg");
    expect((await log())[0].pictures).toEqual(["pic1"]);
  });
});

it("a part of a job that is not in its file is refused", async () => {
  const stray = { ...aBundle(), neededParts: [aPart({ jobId: "elsewhere" })] };
  await expect(importBundle(writeBundle(stray, AT))).rejects.toThrow(/refers to a job/);
});

describe("the archive of one job", () => {
  const filled = async () => {
    const { machines, tapes } = aBundle();
    await database.machines.bulkAdd(machines);
    await database.tapes.bulkAdd(tapes);
    await database.jobs.add(aJob({ id: "j2", number: "0500" }));
    await off("screw");
    await keepPicture(PICTURE);
    await keepPicture({ ...PICTURE, id: "pic2", jobId: "j2" });
    return writeJobArchive("j1", AT);
  };
  const rowsIn = async () =>
    Object.fromEntries(
      await Promise.all(database.tables.map(async (table) => [table.name, await table.count()] as const)),
    );

  it("holds that job and what belongs to it, and brings it back beside what is here", async () => {
    const archive = await filled();
    await deleteJob("j1");
    await database.drafts.clear();
    await restoreBackup(await readBackup(archive, undefined, "unzel-job-archive"), "merge");
    expect(await rowsIn()).toMatchObject({ jobs: 2, pictures: 2, stripDown: 1, machines: 1, tapes: 1 });
    await Promise.all(database.tables.map((table) => table.clear()));
    const ofJob = await readBackup(archive, undefined, "unzel-job-archive");
    expect(ofJob.rows.get("flags")).toEqual([]);
    await restoreBackup(ofJob, "merge");
    expect(await rowsIn()).toMatchObject({ jobs: 1, pictures: 1, stripDown: 1, settings: 0 });
  });

  it("is not taken for a backup of everything, nor the other way", async () => {
    const archive = await filled();
    await expect(readBackup(archive)).rejects.toThrow(/archive of one job: import it on the floor/);
    await expect(readBackup(await writeBackup(AT), undefined, "unzel-job-archive")).rejects.toThrow(
      /bring it back under Backup/,
    );
  });

  it("cut short or changed in one byte it is refused whole", async () => {
    const archive = await filled();
    const bytes = new Uint8Array(await archive.arrayBuffer());
    const image = bytes.findIndex((_, i) => [0xff, 0xd8, 0xff, 0xd9].every((b, k) => bytes[i + k] === b));
    bytes[image + 1] ^= 1;
    for (const bad of [archive.slice(0, archive.size - 30), new Blob([bytes])])
      await expect(readBackup(bad, undefined, "unzel-job-archive")).rejects.toThrow(/Nothing was changed/);
  });
});
