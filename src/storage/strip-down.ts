import { inPlace, nameOf, nextEntry, openAssembly, undoable, whyNotFitted } from "@/core/workshop/strip-down";
import { stripEntrySchema, type StripEntry, type StripKind, type Trouble } from "@/core/workshop/strip-entry";
import type { Part } from "@/core/workshop/part";
import { database } from "./database";
import { newId } from "./jobs";
import { writes } from "./kept-writes";

const now = () => new Date().toISOString();
const ofJob = (jobId: string) => database.stripDown.where("jobId").equals(jobId).toArray();

/** A write of the log and of the parts that come of it. */
const writeLog = (what: string, work: () => Promise<void>, place: string | null = null): Promise<void> =>
  writes.write(what, () => database.transaction("rw", database.stripDown, database.neededParts, work), {
    place,
  });
const LINE = "a line of the strip-down log";

/** Logs what comes off next, with one key. Returns its id at once; its place is found when it is stored. */
export function logStripEntry(jobId: string, kind: StripKind): { id: string; stored: Promise<void> } {
  const id = newId();
  const at = now();
  const stored = writeLog(LINE, async () => {
    await database.stripDown.add(nextEntry(await ofJob(jobId), kind, { id, jobId, at }));
  });
  return { id, stored };
}

/** Changes an entry as it stands when its turn comes; one that is gone is left alone. */
const change = (
  id: string,
  to: (
    entry: StripEntry,
  ) => Partial<Pick<StripEntry, "line" | "apartAt" | "fittedAt" | "trouble" | "pictures">>,
  place: string | null = null,
) =>
  writeLog(
    LINE,
    async () => {
      const entry = await database.stripDown.get(id);
      if (entry)
        await database.stripDown.put(stripEntrySchema.parse({ ...entry, ...to(entry), updatedAt: now() }));
    },
    place,
  );

/** What is written in its line; a later text takes the place of one that still waits to be stored. */
export const setStripLine = (id: string, line: string): Promise<void> =>
  change(id, () => ({ line }), `strip-line ${id}`);

export const addStripPicture = (id: string, pictureId: string): Promise<void> =>
  change(id, ({ pictures }) => ({ pictures: [...pictures, pictureId] }));

export const dropStripPicture = (id: string, pictureId: string): Promise<void> =>
  change(id, ({ pictures }) => ({ pictures: pictures.filter((one) => one !== pictureId) }));

/** All that is to come off the assembly that is open is off: what comes next belongs to the one around it. */
export const setApart = (jobId: string): Promise<void> =>
  writeLog(LINE, async () => {
    const open = openAssembly(await ofJob(jobId));
    if (open) await database.stripDown.update(open.id, { apartAt: now(), updatedAt: now() });
  });

/** Takes out the last entry, as long as nothing was done with it. Resolves to what was taken out. */
export async function undoStripEntry(jobId: string): Promise<StripEntry | null> {
  let undone: StripEntry | null = null;
  await writeLog(LINE, async () => {
    undone = undoable(await ofJob(jobId));
    if (undone) await database.stripDown.delete(undone.id);
  });
  return undone;
}

/** Puts back an entry that was taken out, unless another has taken its place since. */
export const redoStripEntry = (entry: StripEntry): Promise<void> =>
  writeLog(LINE, async () => {
    const last = inPlace(await ofJob(entry.jobId)).at(-1);
    if (!last || last.place < entry.place) await database.stripDown.put(entry);
  });

/** Says that something is back in its place, or that it is not after all. Resolves to why it cannot be. */
export async function setFitted(id: string, isFitted: boolean): Promise<string | null> {
  let why: string | null = null;
  await writeLog("a tick of the reassembly", async () => {
    const entry = await database.stripDown.get(id);
    if (!entry) return;
    why = isFitted ? whyNotFitted(await ofJob(entry.jobId), entry) : null;
    if (why === null)
      await database.stripDown.update(id, { fittedAt: isFitted ? now() : null, updatedAt: now() });
  });
  return why;
}

/** Says that something is missing or broken: it becomes a part to get, which its station waits for. */
export async function setTrouble(id: string, what: Trouble, station: string): Promise<void> {
  const partId = newId();
  await writeLog("a part to get", async () => {
    const entry = await database.stripDown.get(id);
    if (!entry || entry.trouble !== null) return;
    const at = now();
    await database.stripDown.update(id, { trouble: { what, at }, updatedAt: at });
    const part: Part = {
      id: partId,
      jobId: entry.jobId,
      name: `${nameOf(entry)} (${what})`.slice(0, 200),
      count: 1,
      station,
      from: "",
      entryId: id,
      steps: [{ at, state: "wanted", expected: null }],
      updatedAt: at,
    };
    await database.neededParts.add(part);
  });
}

/** It was found, or is whole after all: the part that was to take its place goes, unless it is on its way already. */
export const clearTrouble = (id: string): Promise<void> =>
  writeLog(LINE, async () => {
    const entry = await database.stripDown.get(id);
    if (!entry) return;
    await database.stripDown.update(id, { trouble: null, updatedAt: now() });
    const parts = await database.neededParts.where("jobId").equals(entry.jobId).toArray();
    const untouched = parts.filter(({ entryId, steps }) => entryId === id && steps.length === 1);
    await database.neededParts.bulkDelete(untouched.map((part) => part.id));
  });

/** The log of the latest earlier job on the same machine that has one, as a guide. */
export async function earlierLog(
  jobId: string,
  machineId: string,
): Promise<{ number: string; log: StripEntry[] } | null> {
  const jobs = await database.jobs.where("machineId").equals(machineId).toArray();
  const [here] = jobs.filter(({ id }) => id === jobId);
  const earlier = jobs
    .filter(({ id, createdAt }) => id !== jobId && (!here || createdAt < here.createdAt))
    .toSorted((a, b) => b.createdAt.localeCompare(a.createdAt));
  for (const { id, number } of earlier) {
    const log = await ofJob(id);
    if (log.length > 0) return { number, log: inPlace(log) };
  }
  return null;
}
