import { knownPartSchema } from "@/core/alignment/known-records";
import { stateOf, UNDER_WAY, type Part, type PartState } from "@/core/workshop/part";
import type { Spare } from "@/core/workshop/spare";
import { database } from "./database";
import { newId } from "./jobs";
import { writes } from "./kept-writes";
import { moveFromBox } from "./spares";

const now = () => new Date().toISOString();

/** Writes down a part that a job needs. @throws ZodError for a part without a name or of no station */
export async function needPart(
  jobId: string,
  {
    state,
    expected,
    ...part
  }: Pick<Part, "name" | "count" | "station" | "from"> & {
    state: PartState;
    expected: string | null;
  },
): Promise<void> {
  const at = now();
  const known = knownPartSchema.parse({
    ...part,
    id: newId(),
    jobId,
    entryId: null,
    steps: [{ at, state, expected: UNDER_WAY.includes(state) ? expected : null }],
    updatedAt: at,
  });
  await writes.write("a part", async () => void (await database.neededParts.add(known)));
}

const isFitted = (part: Part) => stateOf(part) === "fitted";

const change = (id: string, to: (part: Part) => Partial<Part>) =>
  writes.write("a part", () =>
    database.transaction("rw", database.neededParts, database.spares, async () => {
      const part = await database.neededParts.get(id);
      if (!part) return;
      const changed = knownPartSchema.parse({ ...part, ...to(part), updatedAt: now() });
      await database.neededParts.put(changed);
      await moveFromBox(changed, isFitted(part), isFitted(changed));
    }),
  );

/** It is there already, in the spare-parts box: it comes out of its drawer when it is fitted. */
export const takeFromBox = (id: string, { id: spareId, place }: Spare): Promise<void> =>
  change(id, ({ steps }) => ({
    spareId,
    from: place ? `spare-parts box, ${place}` : "spare-parts box",
    steps: [...steps, { at: now(), state: "fits", expected: null }],
  }));

/** Says what became of a part, and until when it is expected. */
export const stepPart = (id: string, state: PartState, expected: string | null): Promise<void> =>
  change(id, ({ steps }) => ({
    steps: [...steps, { at: now(), state, expected: UNDER_WAY.includes(state) ? expected : null }],
  }));

/** Takes back what was said last of a part. */
export const takeBackStep = (id: string): Promise<void> =>
  change(id, ({ steps }) => ({ steps: steps.length > 1 ? steps.slice(0, -1) : steps }));

/** Another day on which it is expected. */
export const expectPart = (id: string, expected: string | null): Promise<void> =>
  change(id, ({ steps }) => ({
    steps: [...steps.slice(0, -1), { ...steps[steps.length - 1], expected }],
  }));

/** Takes a part out that is not needed after all. */
export const dropPart = (id: string): Promise<void> =>
  writes.write("a part", () => database.neededParts.delete(id));
