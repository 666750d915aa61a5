import { BUILT_IN_TAPES } from "@/core/reference/built-in-tapes";
import { importBundle } from "./bundles";
import { database } from "./database";

const DEMO_URL = "/demo/workshop.unzel.json";

/**
 * Puts the built-in tapes in place and, on a demo server, the demo workshop the first time a browser comes.
 * Jobs that were deleted from the demo stay deleted.
 */
export async function prepareFirstVisit(demo: boolean): Promise<void> {
  const isNew = await database.transaction("rw", database.tapes, database.flags, async () => {
    for (const tape of BUILT_IN_TAPES)
      if (!(await database.tapes.get(tape.id))) await database.tapes.add({ ...tape });
    if (!demo || (await database.flags.get("demo"))) return false;
    await database.flags.put({ id: "demo", value: "loading" });
    return true;
  });
  if (!isNew) return;
  try {
    await loadDemoWorkshop();
  } catch (error) {
    await database.flags.delete("demo");
    throw error;
  }
}

/** Loads the demo workshop that ships with the application. */
export async function loadDemoWorkshop(): Promise<void> {
  const response = await fetch(DEMO_URL);
  if (!response.ok)
    throw new Error("The demo workshop is not part of this installation. Build the application again.");
  await importBundle(await response.text());
  await database.flags.put({ id: "demo", value: "loaded" });
}
