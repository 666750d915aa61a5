import type { SpareRow } from "@/core/formats/spare-csv";
import { readSparesCsv } from "@/core/formats/spare-csv";
import type { Part } from "@/core/workshop/part";
import { isSameSpare, spareSchema, type Spare } from "@/core/workshop/spare";
import { database } from "./database";
import { newId } from "./jobs";
import { writes } from "./kept-writes";

const now = () => new Date().toISOString();

/** Puts a drawer into the box, or changes one. @throws ZodError for one without a name */
export async function saveSpare(spare: SpareRow & { id?: string }): Promise<void> {
  const whole = spareSchema.parse({ ...spare, id: spare.id ?? newId(), updatedAt: now() });
  await writes.write("a spare part", async () => void (await database.spares.put(whole)));
}

export const dropSpare = (id: string): Promise<void> =>
  writes.write("a spare part", () => database.spares.delete(id));

/** Adds to a drawer, or takes from it: never more than there is. */
export const countSpare = (id: string, by: number): Promise<void> =>
  writes.write("the count of a spare part", () =>
    database.transaction("rw", database.spares, async () => {
      const spare = await database.spares.get(id);
      if (spare) await database.spares.update(id, { count: Math.max(0, spare.count + by), updatedAt: now() });
    }),
  );

/**
 * Imports a list of spare parts: what is in the box already gets the count and the place of the list, the rest is added.
 * @throws ImportError saying what is wrong; nothing is changed then
 */
export async function importSpares(text: string): Promise<{ added: number; changed: number }> {
  const rows = readSparesCsv(text);
  return database.transaction("rw", database.spares, async () => {
    const here = await database.spares.toArray();
    const next = rows.map((row): Spare => {
      const known = here.find((one) => isSameSpare(one, row));
      return { ...known, ...row, id: known?.id ?? newId(), updatedAt: now() };
    });
    await database.spares.bulkPut(next);
    const changed = next.filter(({ id }) => here.some((one) => one.id === id)).length;
    return { added: next.length - changed, changed };
  });
}

/** What a step of a part that comes from the box does to its drawer: out of it when it is fitted, back when that is taken back. */
export async function moveFromBox(part: Part, wasFitted: boolean, isFitted: boolean): Promise<void> {
  if (!part.spareId || wasFitted === isFitted) return;
  const spare = await database.spares.get(part.spareId);
  if (!spare) return;
  const count = isFitted ? spare.count - part.count : spare.count + part.count;
  await database.spares.update(spare.id, { count: Math.max(0, count), updatedAt: now() });
}
