import { sha256 } from "@noble/hashes/sha2.js";
import { bytesToHex } from "@noble/hashes/utils.js";
import { Inflate, Zip, ZipDeflate, ZipPassThrough } from "fflate";
import { ImportError } from "@/core/formats/import-error";
import { valueOfJson } from "@/core/formats/json-text";
import * as z from "@/core/text/zod";
import { beginsAsZip, zipDirectory, type ZipEntry } from "./zip-directory";

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

/** What the numbers of a ZIP archive reach to, but for its directory. */
const MOST_BYTES = 4_000_000_000;

/**
 * Writes files into a ZIP archive one after the other. What is a blob stays one: the archive is put together of pieces that
 * may lie on the browser's disk.
 */
export class ArchiveWriter {
  private readonly parts: Blob[] = [];
  private readonly files: z.infer<typeof listSchema>["files"] = [];
  private trouble: Error | null = null;
  private written = 0;
  /** What is being put in just now, and the blob that it was read from. */
  private putting: { bytes: Uint8Array; blob: Blob | null } | null = null;
  private readonly zip = new Zip((error, chunk) => {
    if (error) this.trouble = error;
    else this.take(chunk);
  });

  constructor(private readonly kind: ArchiveKind) {}

  /** @throws Error once there is more than an archive holds */
  add(name: string, bytes: Uint8Array, blob: Blob | null = null): void {
    this.put(name, bytes, blob);
    this.files.push({ name, bytes: bytes.length, sha256: bytesToHex(sha256(bytes)) });
  }

  /** @param at when it was made, ISO */
  finish(at: string): Blob {
    const list = { format: this.kind, version: 1, at, files: this.files };
    this.put(LIST, new TextEncoder().encode(JSON.stringify(list)), null);
    this.zip.end();
    if (this.trouble) throw this.trouble;
    return new Blob(this.parts, { type: "application/zip" });
  }

  private put(name: string, bytes: Uint8Array, blob: Blob | null): void {
    const file = isPacked(name) ? new ZipDeflate(name) : new ZipPassThrough(name);
    this.zip.add(file);
    this.putting = { bytes, blob };
    file.push(bytes, true);
    this.putting = null;
  }

  private take(chunk: Uint8Array): void {
    this.written += chunk.length;
    if (this.written > MOST_BYTES)
      throw new Error(
        "More than 4 GB do not fit into one archive. Let some of the sounds go first, under Backup; they can be kept job by job.",
      );
    // what passes as it is, is there already
    const { bytes, blob } = this.putting ?? { bytes: null, blob: null };
    this.parts.push(chunk === bytes && blob ? blob : new Blob([chunk as Uint8Array<ArrayBuffer>]));
  }
}

/** What an archive holds, each file whole and as it was written. */
export interface Archive {
  kind: ArchiveKind;
  at: string;
  files: ReadonlyMap<string, Blob>;
}

/**
 * Reads an archive whole. What lies in it as it is, is a piece of the file that was given, and not copied.
 * @throws ImportError for what is no backup, is cut short, or has a file that is not as it was written
 */
export async function readArchive(
  file: Blob,
  onProgress: (share: number) => void = () => {},
): Promise<Archive> {
  const entries = await zipDirectory(file);
  if (entries === null)
    throw new ImportError(
      (await beginsAsZip(file))
        ? "This backup is cut short or damaged: its list of contents cannot be found at its end. Nothing was changed."
        : "This is not a backup of Unzel.",
    );
  if (entries.length > MOST_FILES)
    throw new ImportError("This archive has more files than a backup ever has.");
  const unpacked = entries.reduce((sum, { size }) => sum + size, 0);
  if (unpacked > Math.max(LEAST_UNPACKED_BYTES, MOST_UNPACKED_TIMES * file.size))
    throw new ImportError("This archive unpacks to far more than a backup ever does. Nothing was changed.");
  const found = new Map(entries.map((entry) => [entry.name, entry]));
  const list = found.get(LIST);
  if (!list) throw new ImportError("This is not a backup of Unzel.");
  const parsed = listSchema.safeParse(valueOfJson((await (await whole(list))?.blob.text()) ?? ""));
  if (!parsed.success)
    throw new ImportError(
      "The list of contents of this backup cannot be read: it is of another version, or damaged.",
    );
  const files = new Map<string, Blob>();
  let read = 0;
  for (const { name, bytes, sha256: sum } of parsed.data.files) {
    const entry = found.get(name);
    const one = entry && (await whole(entry));
    if (!one || one.blob.size !== bytes || one.sha256 !== sum)
      throw new ImportError(
        `This backup is damaged: ${name} is ${entry ? "not as it was written" : "missing"}. Nothing was changed.`,
      );
    files.set(name, one.blob);
    read += entry!.bytes.size;
    onProgress(Math.min(1, read / file.size));
  }
  return { kind: parsed.data.format, at: parsed.data.at, files };
}

/** A file of an archive, unpacked, with its sum; null where it does not unpack to what the directory says. */
async function whole({ bytes, packed, size }: ZipEntry): Promise<{ blob: Blob; sha256: string } | null> {
  const hash = sha256.create();
  const sum = () => bytesToHex(hash.digest());
  switch (packed) {
    case "stored":
      await eachChunk(bytes, (chunk) => hash.update(chunk));
      return { blob: bytes, sha256: sum() };
    case "deflated": {
      const parts: Blob[] = [];
      let length = 0;
      const inflate = new Inflate((chunk) => {
        length += chunk.length;
        if (length > size) throw new Error("more than the directory says");
        hash.update(chunk);
        parts.push(new Blob([chunk as Uint8Array<ArrayBuffer>]));
      });
      try {
        await eachChunk(bytes, (chunk) => inflate.push(chunk));
        inflate.push(new Uint8Array(0), true);
      } catch {
        return null;
      }
      return { blob: new Blob(parts), sha256: sum() };
    }
  }
}

async function eachChunk(blob: Blob, take: (chunk: Uint8Array) => void): Promise<void> {
  const reader = blob.stream().getReader();
  for (;;) {
    const { done, value } = await reader.read();
    if (done) return;
    take(value);
  }
}
