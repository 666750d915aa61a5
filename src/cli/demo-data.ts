import { mkdir, writeFile } from "node:fs/promises";
import { readBundle, writeBundle } from "@/core/formats/job-bundle";
import { DEMO_BLANKS } from "@/core/practice/demo-blanks";
import { DEMO_MACHINES } from "@/core/practice/demo-machines";
import { DEMO_TAPES } from "@/core/reference/demo-tapes";
import { emptyBook } from "./demo-job";
import { chewedTapes, sharpDeck, slowReelMachine, waveringPortable } from "./demo-jobs";
import { demoWorkshop } from "./demo-workshop";

/*
 * Writes the demo workshop: jobs at different points of their route. Every reading in it is measured by the
 * engine from the sound of a practice machine whose trimmer was really turned.
 */

const OUT = "public/demo";

const book = emptyBook();
slowReelMachine(book);
await sharpDeck(book);
chewedTapes(book);
waveringPortable(book);
const { jobs, readings, adjustments } = book;
const { parts: neededParts, log: stripDown } = demoWorkshop();
const bundle = writeBundle(
  {
    jobs,
    machines: DEMO_MACHINES,
    tapes: [...DEMO_TAPES],
    blanks: [...DEMO_BLANKS],
    readings,
    adjustments,
    runs: [],
    watches: [],
    neededParts,
    stripDown,
  },
  "2026-11-22T08:00:00.000Z",
);
readBundle(bundle); // throws unless the application will take it
await mkdir(OUT, { recursive: true });
await writeFile(`${OUT}/workshop.unzel.json`, bundle);
console.error(`Wrote ${jobs.length} jobs with ${readings.length} readings to ${OUT}.`);
