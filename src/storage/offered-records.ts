import { textInKeyOrder } from "@/core/formats/job-bundle";
import type { BlankTape } from "@/core/records/blank-tape";
import type { Machine } from "@/core/records/machine";
import type { ReferenceTape } from "@/core/reference/reference-tape";
import { database } from "./database";

/** What a file may know more of than this browser. */
export const OFFERED = ["machines", "tapes", "blanks"] as const;
export type OfferedTable = (typeof OFFERED)[number];
type OfferedRecord = Machine | ReferenceTape | BlankTape;

/** A machine or tape of a file that is here with another content: kept as it is until the technician chooses. */
export interface Differing {
  table: OfferedTable;
  /** As the file has it. */
  record: OfferedRecord;
  /** What of it is another. */
  fields: string[];
}

/** Of records of a file those that are here with another content. */
export async function differingOf(
  table: OfferedTable,
  records: readonly OfferedRecord[],
): Promise<Differing[]> {
  const here: Array<object | undefined> = await database.table(table).bulkGet(records.map(({ id }) => id));
  return records.flatMap((record, i) => {
    const fields = fieldsThatDiffer(here[i] ?? record, record);
    return fields.length > 0 ? [{ table, record, fields }] : [];
  });
}

/** Adds the records that are not here yet. @returns those that are here with another content, which are left as they are */
export const addNew = (table: OfferedTable, records: readonly OfferedRecord[]): Promise<Differing[]> =>
  database.transaction("rw", database.table(table), async () => {
    const differing = await differingOf(table, records);
    const here = await database.table(table).bulkGet(records.map(({ id }) => id));
    await database.table(table).bulkAdd(records.filter((_, i) => here[i] === undefined));
    return differing;
  });

/** Takes chosen fields of a machine or tape as a file has them; the others stay as they are here by then. */
export const takeFromFile = ({ table, record }: Differing, fields: readonly string[]): Promise<void> =>
  database.transaction("rw", database.table(table), async () => {
    const here = ((await database.table(table).get(record.id)) ?? record) as object;
    const theirs = new Map(Object.entries(record));
    const taken = Object.fromEntries(fields.map((field) => [field, theirs.get(field)]));
    await database.table(table).put({ ...here, ...taken });
  });

function fieldsThatDiffer(here: object, there: object): string[] {
  const [mine, theirs] = [here, there].map((one) => new Map(Object.entries(one)));
  return [...new Set([...mine.keys(), ...theirs.keys()])].filter(
    (field) => textInKeyOrder(mine.get(field)) !== textInKeyOrder(theirs.get(field)),
  );
}
