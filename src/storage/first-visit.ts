import { BUILT_IN_TAPES } from "@/core/reference/built-in-tapes";
import { database } from "./database";

const DEMO_URL = "/demo/workshop.unzel.json";

/**
 * Puts the built-in tapes in place and, on a demo server, the demo workshop the first time a browser comes.
 * Jobs that were deleted from the demo stay deleted.
 */
export async function prepareFirstVisit(demo: boolean): Promise<void> {
  await Promise.all([placeBuiltInTapes(), demo && loadDemoOnce()]);
}

const placeBuiltInTapes = () =>
  database.transaction("rw", database.tapes, async () => {
    const here = await database.tapes.bulkGet(BUILT_IN_TAPES.map(({ id }) => id));
    await database.tapes.bulkAdd(BUILT_IN_TAPES.filter((_, i) => here[i] === undefined));
  });

async function loadDemoOnce(): Promise<void> {
  if (!(await database.flags.get("demo"))) await loadDemoWorkshop(true);
}

/**
 * Loads the demo workshop that ships with the application; with `onlyOnce`, not if it was loaded before.
 * Jobs and the note that they were loaded are stored together, so that an interrupted visit begins again.
 */
export async function loadDemoWorkshop(onlyOnce = false): Promise<void> {
  // no later visit needs what reads it
  const [response, { importBundle }, { importSpares }, { DEMO_SPARES }] = await Promise.all([
    fetch(DEMO_URL),
    import("./bundles"),
    import("./spares"),
    import("@/core/practice/demo-spares"),
  ]);
  if (!response.ok)
    throw new Error("The demo workshop is not part of this installation. Build the application again.");
  const text = await response.text();
  await database.transaction("rw", database.tables, async () => {
    if (onlyOnce && (await database.flags.get("demo"))) return;
    await importBundle(text);
    await importSpares(DEMO_SPARES);
    await database.flags.put({ id: "demo", value: "loaded" });
  });
}
