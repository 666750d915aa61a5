import "fake-indexeddb/auto";
import { describe, expect, it } from "vitest";
import { writeIntoFolder, type FolderHandle } from "./kept-folder";

/** A folder in memory, whose writing may go wrong. */
function aFolder(names: string[], trouble: Error | null = null) {
  const files = new Map(names.map((name) => [name, new Blob(["before"])]));
  const handle = {
    name: "backups",
    getFileHandle: async (name: string) => {
      if (!files.has(name)) files.set(name, new Blob([]));
      return {
        getFile: async () => files.get(name)!,
        createWritable: async () => {
          let written = new Blob([]);
          return {
            write: async (blob: Blob) => {
              if (trouble) throw trouble;
              written = blob;
            },
            close: async () => void files.set(name, written),
            abort: async () => undefined,
          };
        },
      };
    },
    removeEntry: async (name: string) => void files.delete(name),
    async *keys() {
      yield* [...files.keys()];
    },
  } as unknown as FolderHandle;
  return { files, handle };
}
const AT = "2026-11-22T08:00:00.000Z";
const TODAY = "unzel-backup-2026-11-22.zip";
const days = (from: number, count: number) =>
  Array.from({ length: count }, (_, i) => `unzel-backup-2026-11-${String(from + i).padStart(2, "0")}.zip`);

describe("a folder that is kept up to date", () => {
  it("has the archive of today and of the newest days before; other files stay", async () => {
    const { files, handle } = aFolder([...days(1, 9), "letter.txt", "unzel-backup-mine.zip"]);
    await writeIntoFolder(handle, AT, new Blob(["whole"]));
    expect([...files.keys()].toSorted()).toEqual([
      "letter.txt",
      ...days(4, 6),
      TODAY,
      "unzel-backup-mine.zip",
    ]);
    expect(await files.get(TODAY)!.text()).toBe("whole");
  });

  it.each([
    ["NotFoundError", /is not there/],
    ["NotAllowedError", /asked again/],
    ["QuotaExceededError", /disk is full/],
    ["InvalidStateError", /something odd/],
  ])("%s: a sentence, what stood there stays, and nothing half", async (name, says) => {
    const trouble = Object.assign(new Error("something odd"), { name });
    const { files, handle } = aFolder([TODAY], trouble);
    await expect(writeIntoFolder(handle, AT, new Blob(["whole"]))).rejects.toThrow(says);
    expect(await files.get(TODAY)!.text()).toBe("before");
    const empty = aFolder([], trouble);
    await expect(writeIntoFolder(empty.handle, AT, new Blob(["whole"]))).rejects.toThrow(/folder backups/);
    expect([...empty.files.keys()]).toEqual([]);
  });
});
