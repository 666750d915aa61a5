import { describe, expect, it } from "vitest";
import { SeededRandom } from "@/core/dsp/seeded-random";
import { faultOfReader, hostileFile, READERS } from "@/testing/hostile-files";

const FILES = 300;

describe("files that were damaged, or made to harm", () => {
  it.each(READERS)("$name: read, or refused with a sentence", async (reader) => {
    const random = new SeededRandom(reader.name.length);
    let read = 0;
    for (let i = 0; i < FILES; i++) {
      const file = hostileFile(reader, random);
      const fault = await faultOfReader(reader, file);
      if (fault !== null) expect.fail(`file ${i}: ${fault}`);
      read++;
    }
    expect(read).toBe(FILES);
    for (const file of reader.good) await expect(Promise.resolve(reader.read(file))).resolves.toBeDefined();
  });
});
