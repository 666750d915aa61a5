import fc from "fast-check";
import { describe, expect, it, vi } from "vitest";
import { bytesOfBlob } from "./blob-bytes";
import type { ByteRun } from "./byte-source";

const BYTES = Uint8Array.from({ length: 200_000 }, (_, i) => (i * 31 + (i >> 8)) & 255);
const BLOB = new Blob([BYTES]);

async function all(run: ByteRun, lengths: readonly number[]): Promise<number[]> {
  const got: number[] = [];
  for (let k = 0; ; k++) {
    const bytes = await run.next(lengths[k % lengths.length]);
    if (bytes.length === 0) return got;
    got.push(...bytes);
  }
}

/** As of a browser that has no streams of files into a room of one's own. */
class PlainBlob extends Blob {
  override slice(...range: Parameters<Blob["slice"]>): Blob {
    return new PlainBlob([super.slice(...range)]);
  }
  override stream(): never {
    throw new TypeError("no such reader");
  }
}

describe.each([
  ["a file that streams", BLOB],
  ["a file that does not", new PlainBlob([BYTES])],
])("%s", (_, blob) => {
  it("is read on and on from any place, in pieces of any length, to its end", async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.nat(BYTES.length + 10),
        // pieces of any size, none so small that all of them take long
        fc.array(fc.integer({ min: 1, max: 90_000 }), { maxLength: 3 }).map((some) => [...some, 700]),
        async (from, lengths) => {
          const run = bytesOfBlob(blob).readFrom(from);
          expect(Buffer.from(await all(run, lengths)).equals(Buffer.from(BYTES.subarray(from)))).toBe(true);
          run.end();
        },
      ),
      { numRuns: 12 },
    );
  });

  it("is read from two places at once, each by itself", async () => {
    const source = bytesOfBlob(blob);
    const [one, other] = [source.readFrom(10), source.readFrom(70_000)];
    for (let k = 0; k < 5; k++) {
      const [a, b] = await Promise.all([one.next(1000), other.next(3000)]);
      expect(a).toEqual(BYTES.subarray(10 + 1000 * k, 1010 + 1000 * k));
      expect(b).toEqual(BYTES.subarray(70_000 + 3000 * k, 73_000 + 3000 * k));
    }
    expect(await source.read(199_990, 100)).toEqual(BYTES.subarray(199_990));
    one.end();
    other.end();
  });
});

it("a file that is changed while it is read is told by a sentence, wherever it is read", async () => {
  const gone = new DOMException("The requested file could not be read", "NotReadableError");
  const blob = new Blob([BYTES]);
  const piece = new Blob([BYTES]);
  vi.spyOn(blob, "slice").mockReturnValue(piece);
  vi.spyOn(piece, "arrayBuffer").mockRejectedValue(gone);
  vi.spyOn(piece, "stream").mockReturnValue(
    new ReadableStream({ type: "bytes", pull: (control) => control.error(gone) }),
  );
  const source = bytesOfBlob(blob);
  await expect(source.read(0, 10)).rejects.toThrow(/can no longer be read: it was changed or moved/);
  const run = source.readFrom(0);
  await expect(run.next(10)).rejects.toThrow(/Choose it again/);
  run.end();
});

it("a stream that gives nothing any more is left, and nothing is missing", async () => {
  const blob = new Blob([BYTES]);
  const stuck = new Blob([BYTES]);
  let pulls = 0;
  vi.spyOn(stuck, "stream").mockReturnValue(
    new ReadableStream({
      type: "bytes",
      pull: (control) =>
        pulls++ < 3 ? control.enqueue(BYTES.slice(1000 * pulls - 1000, 1000 * pulls)) : new Promise(() => {}),
    }),
  );
  vi.spyOn(blob, "slice").mockReturnValueOnce(stuck);
  const run = bytesOfBlob(blob, 30).readFrom(0);
  expect(Buffer.from(await all(run, [1500, 700])).equals(Buffer.from(BYTES))).toBe(true);
  expect(pulls).toBe(4);
  run.end();
});
