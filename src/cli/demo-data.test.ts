import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { readBundle } from "@/core/formats/job-bundle";
import { DEMO_BLANKS } from "@/core/practice/demo-blanks";
import { DEMO_MACHINES } from "@/core/practice/demo-machines";
import { DEMO_TAPES } from "@/core/reference/demo-tapes";
import { emptyBook } from "./demo-job";
import { waveringPortable } from "./demo-jobs";
import { demoWorkshop } from "./demo-workshop";

const kept = readBundle(readFileSync("public/demo/workshop.unzel.json", "utf8"));

describe("the demo workshop that is kept", () => {
  it("stands on the machines, tapes and blanks of the application, and on its strip-down and parts", () => {
    const { parts, log } = demoWorkshop();
    const plain = (value: unknown) => JSON.parse(JSON.stringify(value)) as unknown;
    expect(kept.machines).toEqual(plain(DEMO_MACHINES));
    expect(kept.tapes).toEqual(plain(DEMO_TAPES));
    expect(kept.blanks).toEqual(plain(DEMO_BLANKS));
    expect(kept.neededParts).toEqual(plain(parts));
    expect(kept.stripDown).toEqual(plain(log));
  });

  it("holds what the engine measures of the same sound today", () => {
    const book = emptyBook();
    waveringPortable(book);
    const [{ id }] = book.jobs;
    const before = kept.readings.filter(({ jobId }) => jobId === id);
    expect(before.length).toBeGreaterThan(5);
    expect(book.readings.map(({ quantity, context }) => [quantity, context.channel])).toEqual(
      before.map(({ quantity, context }) => [quantity, context.channel]),
    );
    book.readings.forEach(({ value, uncertainty }, i) => {
      expect(value).toBeCloseTo(before[i].value, 6);
      expect(uncertainty).toBeCloseTo(before[i].uncertainty, 6);
    });
  });
});
