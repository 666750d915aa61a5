import type { IndexableType } from "dexie";
import { textInKeyOrder, writeBundle } from "@/core/formats/job-bundle";
import { firstIssue, ImportError } from "@/core/formats/import-error";
import { valueOfJson } from "@/core/formats/json-text";
import { database } from "../database";
import { contentOfJob } from "../bundles";
import { OWN, PREFIX_OF_DELETED } from "../deleted-jobs";
import { ArchiveWriter, readArchive, type ArchiveKind } from "./archive";
import { BACKED_UP, TABLE_NAMES, type TableName } from "./backup-tables";

/** A record as it lies in a table. */
type Row = Record<string, unknown>;

/** A backup that was read whole. */
export interface Backup {
  at: string;
  rows: ReadonlyMap<TableName, Row[]>;
  /** Records that cannot be read, by name, and why: they stay in the file, and everything else can be brought back. */
  aside: string[];
}

/** What a restoration would do to a table. */
export interface Change {
  table: TableName;
  /** In the backup and not here, in both alike, in both with another content, and here alone. */
  added: number;
  same: number;
  other: number;
  here: number;
}

export type RestoreWay = "merge" | "replace";

const keyOf = (table: TableName, row: Row): string => String(row[BACKED_UP[table].key]);
const fileOf = (table: TableName) => `tables/${table}.json`;

type Progress = (share: number) => void;

/** Everything that Unzel keeps in this browser in one archive, but for what was deleted. */
export async function writeBackup(at: string, onProgress: Progress = () => {}): Promise<Blob> {
  const archive = new ArchiveWriter("unzel-backup");
  const keys = await Promise.all(
    TABLE_NAMES.map((table) => database.table(table).toCollection().primaryKeys()),
  );
  await addRows(archive, keys, onProgress);
  return archive.finish(at);
}

/**
 * One job with all that belongs to it, pictures and sounds too, its machine and its tapes, in one archive; beside them
 * the job file, for whoever reads that.
 */
export async function writeJobArchive(
  jobId: string,
  at: string,
  onProgress: Progress = () => {},
): Promise<Blob> {
  const archive = new ArchiveWriter("unzel-job-archive");
  const content = await contentOfJob(jobId);
  archive.add(JOB_FILE, new TextEncoder().encode(writeBundle(content, at)));
  const { machines, tapes, blanks } = content;
  const beside: Partial<Record<TableName, string[]>> = {
    jobs: [jobId],
    machines: machines.map(({ id }) => id),
    tapes: tapes.map(({ id }) => id),
    blanks: blanks.map(({ id }) => id),
  };
  const keys = await Promise.all(
    TABLE_NAMES.map(
      async (table) =>
        beside[table] ??
        (OWN_NAMES.includes(table)
          ? await database.table(table).where("jobId").equals(jobId).primaryKeys()
          : []),
    ),
  );
  await addRows(archive, keys, onProgress);
  return archive.finish(at);
}
const JOB_FILE = "job.unzel.json";
const OWN_NAMES: readonly string[] = OWN.map(({ name }) => name);

/** @param keys of each table, in the order of `TABLE_NAMES` */
async function addRows(
  archive: ArchiveWriter,
  keys: readonly IndexableType[][],
  onProgress: Progress,
): Promise<void> {
  const total = keys.reduce((sum, { length }) => sum + length, 0);
  let written = 0;
  for (const [i, table] of TABLE_NAMES.entries()) {
    const rows: unknown[] = [];
    // one at a time: a sound may be large
    for (const key of keys[i]) {
      const row = (await database.table(table).get(key)) as Row | undefined;
      // deleted since, or deleted and kept to be brought back
      if (row && !(table === "drafts" && keyOf(table, row).startsWith(PREFIX_OF_DELETED)))
        rows.push(await asText(table, row, archive));
      written++;
      onProgress(written / total);
    }
    archive.add(fileOf(table), new TextEncoder().encode(JSON.stringify(rows)));
  }
}

/** What becomes a file of its own, and how a row names it. */
const BLOBS = {
  sound: { mark: "$sound", ending: "wav", type: "audio/wav" },
  picture: { mark: "$picture", ending: "jpg", type: "image/jpeg" },
} as const;

/** A row as JSON has it; sounds and pictures become files of their own. */
async function asText(table: TableName, row: Row, archive: ArchiveWriter): Promise<unknown> {
  const entries = await Promise.all(
    Object.entries(row).map(async ([name, value]) => {
      const file = `${table}/${encodeURIComponent(keyOf(table, row))}.${name}`;
      if (value instanceof Blob) {
        const { mark, ending } = BLOBS[table === "pictures" ? "picture" : "sound"];
        archive.add(`${file}.${ending}`, new Uint8Array(await value.arrayBuffer()), value);
        return [name, { [mark]: `${file}.${ending}` }];
      }
      if (value instanceof Float32Array) {
        archive.add(`${file}.f32`, new Uint8Array(value.slice().buffer));
        return [name, { $samples: `${file}.f32` }];
      }
      return [name, value];
    }),
  );
  return Object.fromEntries(entries);
}

/**
 * Reads a backup and checks every record of it; one that cannot be used is set aside, and the rest is read.
 * @throws ImportError with a sentence for one that cannot be used
 */
export async function readBackup(
  file: Blob,
  onProgress?: Progress,
  wanted: ArchiveKind = "unzel-backup",
): Promise<Backup> {
  const { kind, at, files } = await readArchive(file, onProgress);
  if (kind !== wanted) throw new ImportError(OTHER_KIND[kind]);
  const rows = new Map<TableName, Row[]>();
  const aside: string[] = [];
  for (const table of TABLE_NAMES) {
    const list = files.get(fileOf(table));
    // a table that came with a later version
    if (!list) continue;
    const raw = valueOfJson(await list.text());
    if (!Array.isArray(raw))
      throw new ImportError(`The ${BACKED_UP[table].name} of this backup are no list.`);
    const good = new Map<string, Row>();
    for (const [i, one] of raw.entries()) {
      const parsed = BACKED_UP[table].schema.safeParse(await withSounds(one as Row, files));
      const why = parsed.success
        ? good.has(keyOf(table, parsed.data as Row)) && "it is in the file twice"
        : firstIssue(parsed.error);
      if (why) aside.push(`${BACKED_UP[table].name}, number ${i + 1}${nameOf(one)}: ${why}`);
      else good.set(keyOf(table, parsed.data as Row), parsed.data as Row);
    }
    rows.set(table, [...good.values()]);
  }
  return { at, rows, aside };
}

/** What a record is called, as far as it says so. */
function nameOf(row: unknown): string {
  const { number, name, id } = (row ?? {}) as Partial<Record<"number" | "name" | "id", unknown>>;
  const called = [number, name, id].find((one) => typeof one === "string" && one !== "");
  return called === undefined ? "" : ` (${String(called).slice(0, 80)})`;
}

/** What is said of an archive that was opened where the other kind belongs. */
const OTHER_KIND: Record<ArchiveKind, string> = {
  "unzel-backup": "This is a backup of a whole workshop: bring it back under Backup. Nothing was changed.",
  "unzel-job-archive": "This is the archive of one job: import it on the floor. Nothing was changed.",
};

async function withSounds(row: Row, files: ReadonlyMap<string, Blob>): Promise<Row> {
  const found = (name: unknown): Blob => {
    const file = files.get(String(name));
    if (!file)
      throw new ImportError(`This backup is damaged: ${String(name)} is missing. Nothing was changed.`);
    return file;
  };
  const entries = await Promise.all(
    Object.entries(row ?? {}).map(async ([name, value]) => {
      if (typeof value !== "object" || value === null) return [name, value];
      for (const { mark, type } of Object.values(BLOBS))
        if (mark in value) return [name, found((value as Row)[mark]).slice(0, undefined, type)];
      if ("$samples" in value) {
        const bytes = await found(value.$samples).arrayBuffer();
        return [name, new Float32Array(bytes.slice(0, bytes.byteLength - (bytes.byteLength % 4)))];
      }
      return [name, value];
    }),
  );
  return Object.fromEntries(entries) as Row;
}

/** What a restoration would change, table by table. */
export async function compareBackup({ rows }: Backup): Promise<Change[]> {
  return Promise.all(
    TABLE_NAMES.map(async (table) => {
      const own = rows.get(table) ?? [];
      const here = await database.table(table).bulkGet(own.map((row) => keyOf(table, row)));
      const met = own.map((row, i) =>
        here[i] === undefined ? "added" : isSame(here[i] as Row, row) ? "same" : "other",
      );
      const count = (what: string) => met.filter((one) => one === what).length;
      const total = await database.table(table).count();
      const both = own.length - count("added");
      return { table, added: count("added"), same: count("same"), other: count("other"), here: total - both };
    }),
  );
}

/** Sounds are alike when they are as long: they are never changed. */
const isSame = (a: Row, b: Row): boolean => textInKeyOrder(plain(a)) === textInKeyOrder(plain(b));
const plain = (row: Row): Row =>
  Object.fromEntries(
    Object.entries(row)
      .filter(([, value]) => value !== undefined)
      .map(([name, value]) => [
        name,
        value instanceof Blob ? value.size : value instanceof Float32Array ? value.length : value,
      ]),
  );

/**
 * Brings a backup back, all of it or nothing. Merged, what is here stays: records are added, of a job the one that was
 * changed later is kept. Replaced, everything that is here goes.
 * @throws ImportError where something logged stands here with another content
 */
export async function restoreBackup({ rows }: Backup, way: RestoreWay): Promise<void> {
  await database.transaction("rw", database.tables, async () => {
    for (const table of TABLE_NAMES) {
      const own = rows.get(table) ?? [];
      const target = database.table(table);
      switch (way) {
        case "replace":
          await target.clear();
          await target.bulkAdd(own);
          break;
        case "merge":
          await target.bulkPut(await toPut(table, own));
          break;
      }
    }
  });
}

/** Of the rows of a backup those that are to be put beside, or in the place of, what is here. */
async function toPut(table: TableName, own: Row[]): Promise<Row[]> {
  const here = (await database.table(table).bulkGet(own.map((row) => keyOf(table, row)))) as Array<
    Row | undefined
  >;
  const { meeting, name } = BACKED_UP[table];
  return own.filter((row, i) => {
    const mine = here[i];
    if (mine === undefined) return true;
    switch (meeting) {
      case "mine":
        return false;
      case "later":
        return String(row.updatedAt) > String(mine.updatedAt);
      case "refuse":
        if (isSame(mine, row)) return false;
        throw new ImportError(
          `Of the ${name} in the backup, ${keyOf(table, row)} stands here with another content. What was logged is never changed: nothing was restored. Delete that job here first if the backup is right.`,
        );
    }
  });
}
