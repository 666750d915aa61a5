import { knownPartSchema } from "@/core/alignment/known-records";
import { UNDER_WAY, type Part, type PartState } from "@/core/workshop/part";
import { database } from "./database";
import { newId } from "./jobs";
import { writes } from "./kept-writes";

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

const change = (id: string, to: (part: Part) => Partial<Part>) =>
  writes.write("a part", () =>
    database.transaction("rw", database.neededParts, async () => {
      const part = await database.neededParts.get(id);
      if (part)
        await database.neededParts.put(knownPartSchema.parse({ ...part, ...to(part), updatedAt: now() }));
    }),
  );

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
