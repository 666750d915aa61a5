import { sha256 } from "@noble/hashes/sha2.js";
import { bytesToHex } from "@noble/hashes/utils.js";
import { Unzip, UnzipInflate, UnzipPassThrough, Zip, ZipDeflate, ZipPassThrough } from "fflate";
import { ImportError } from "@/core/formats/import-error";
import { valueOfJson } from "@/core/formats/json-text";
import * as z from "@/core/text/zod";

/** What an archive is: everything of a browser, or one job with all that belongs to it. */
export const ARCHIVE_KINDS = ["unzel-backup", "unzel-job-archive"] as const;
export type ArchiveKind = (typeof ARCHIVE_KINDS)[number];

/** The last file of an archive: what is in it, so that a cut or changed one is known. */
const LIST = "unzel-backup.json";
const listSchema = z.object({
  format: z.enum(ARCHIVE_KINDS),
  version: z.literal(1),
  at: z.iso.datetime(),
  files: z.array(z.object({ name: z.string(), bytes: z.number(), sha256: z.string() })),
});

/** Sounds do not get smaller; text does. */
const isPacked = (name: string) => name.endsWith(".json");
const MOST_FILES = 200_000;
/** Text packs well, but not so well: what unpacks to more is made to fill a disk. */
const MOST_UNPACKED_TIMES = 300;
const LEAST_UNPACKED_BYTES = 64 * 1024 * 1024;

/** Writes files into a ZIP archive one after the other; what is written lies in blobs, which the browser may put on its disk. */
export class ArchiveWriter {
  private readonly parts: Blob[] = [];
  private readonly files: z.infer<typeof listSchema>["files"] = [];
  private trouble: Error | null = null;
  private readonly zip = new Zip((error, chunk) => {
    if (error) this.trouble = error;
    else this.parts.push(new Blob([chunk as Uint8Array<ArrayBuffer>]));
  });

  constructor(private readonly kind: ArchiveKind) {}

  add(name: string, bytes: Uint8Array): void {
    this.put(name, bytes);
    this.files.push({ name, bytes: bytes.length, sha256: bytesToHex(sha256(bytes)) });
  }

  /** @param at when it was made, ISO */
  finish(at: string): Blob {
    const list = { format: this.kind, version: 1, at, files: this.files };
    this.put(LIST, new TextEncoder().encode(JSON.stringify(list)));
    this.zip.end();
    if (this.trouble) throw this.trouble;
    return new Blob(this.parts, { type: "application/zip" });
  }

  private put(name: string, bytes: Uint8Array): void {
    const file = isPacked(name) ? new ZipDeflate(name) : new ZipPassThrough(name);
    this.zip.add(file);
    file.push(bytes, true);
  }
}

/** What an archive holds, each file whole and as it was written. */
export interface Archive {
  kind: ArchiveKind;
  at: string;
  files: ReadonlyMap<string, Blob>;
}

/**
 * Reads an archive whole.
 * @throws ImportError for what is no backup, is cut short, or has a file that is not as it was written
 */
export async function readArchive(
  file: Blob,
  onProgress: (share: number) => void = () => {},
): Promise<Archive> {
  const found = new Map<string, { blob: Blob; sha256: string }>();
  let trouble: Error | null = null;
  let unpacked = 0;
  const unzip = new Unzip((entry) => {
    if (found.size > MOST_FILES) throw new ImportError("This archive has more files than a backup ever has.");
    const hash = sha256.create();
    const parts: Blob[] = [];
    entry.ondata = (error, chunk, final) => {
      if (error) {
        trouble = error;
        return;
      }
      unpacked += chunk.length;
      if (unpacked > Math.max(LEAST_UNPACKED_BYTES, MOST_UNPACKED_TIMES * file.size))
        throw new ImportError(
          "This archive unpacks to far more than a backup ever does. Nothing was changed.",
        );
      hash.update(chunk);
      parts.push(new Blob([chunk as Uint8Array<ArrayBuffer>]));
      if (final) found.set(entry.name, { blob: new Blob(parts), sha256: bytesToHex(hash.digest()) });
    };
    entry.start();
  });
  unzip.register(UnzipInflate);
  unzip.register(UnzipPassThrough);
  const reader = file.stream().getReader();
  let read = 0;
  try {
    for (;;) {
      const { done, value } = await reader.read();
      if (done) break;
      unzip.push(value);
      read += value.length;
      onProgress(file.size > 0 ? read / file.size : 1);
      if (trouble) break;
    }
    if (!trouble) unzip.push(new Uint8Array(0), true);
  } catch (error) {
    if (error instanceof ImportError) throw error;
    trouble = error as Error;
  }
  const list = found.get(LIST);
  if (!list)
    throw new ImportError(
      trouble || found.size > 0
        ? "This backup is cut short or damaged: its list of contents is missing. Nothing was changed."
        : "This is not a backup of Unzel.",
    );
  if (!(await hasItsEnd(file)))
    throw new ImportError("This backup is cut short: its end is missing. Nothing was changed.");
  const parsed = listSchema.safeParse(valueOfJson(await list.blob.text()));
  if (!parsed.success)
    throw new ImportError(
      "The list of contents of this backup cannot be read: it is of another version, or damaged.",
    );
  const files = new Map<string, Blob>();
  for (const { name, bytes, sha256: sum } of parsed.data.files) {
    const one = found.get(name);
    if (!one || one.blob.size !== bytes || one.sha256 !== sum)
      throw new ImportError(
        `This backup is damaged: ${name} is ${one ? "not as it was written" : "missing"}. Nothing was changed.`,
      );
    files.set(name, one.blob);
  }
  return { kind: parsed.data.format, at: parsed.data.at, files };
}

/** A ZIP archive without a comment ends with a record of 22 bytes that has this mark. */
async function hasItsEnd(file: Blob): Promise<boolean> {
  const end = new Uint8Array(await file.slice(-22).arrayBuffer());
  return [0x50, 0x4b, 0x05, 0x06].every((byte, i) => end[i] === byte);
}
