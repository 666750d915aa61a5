import { typedNumber } from "@/core/text/typed-number";
import {
  BAND_NUMBERS,
  referenceTapeSchema,
  TAPE_NUMBERS,
  type Band,
  type ReferenceTape,
} from "@/core/reference/reference-tape";
import { csvText } from "./csv-text";
import { csvRows } from "./csv-rows";
import { firstIssue, ImportError } from "./import-error";

/** Of the tape; the same in each of its rows. */
const TAPE_TEXTS = ["id", "name", "equalisation", "fluxivityMethod", "condition", "notes"] as const;
const MAKING = ["madeBy", "madeOn", "howChecked", "makerUncertaintyPercent"] as const;
const BAND_TEXTS = ["kind", "role"] as const;
const CORRECTIONS = ["correctionLeftDb", "correctionRightDb"] as const;
const COLUMNS = [...TAPE_TEXTS, ...TAPE_NUMBERS, ...MAKING, ...BAND_TEXTS, ...BAND_NUMBERS, ...CORRECTIONS];
const NEEDED = ["id", "name", "speedCmPerS", "kind", "levelDb", "seconds"];

type Row = Partial<Record<(typeof COLUMNS)[number], string | number>>;

/**
 * Reference tapes as CSV (RFC 4180): a row per band, the tape's own columns repeated. Text that a spreadsheet
 * would take for a formula is led by an apostrophe.
 */
export function writeTapesCsv(tapes: readonly ReferenceTape[]): string {
  const rows = tapes.flatMap((tape) =>
    tape.bands.map((band): Row => {
      const { making } = tape;
      return {
        ...pick(tape, [...TAPE_TEXTS, ...TAPE_NUMBERS]),
        ...(making && {
          madeBy: making.by,
          madeOn: making.machine,
          howChecked: making.howChecked,
          makerUncertaintyPercent: making.speedUncertaintyPercent,
        }),
        ...pick(band, [...BAND_TEXTS, ...BAND_NUMBERS]),
        correctionLeftDb: band.correctionDb?.left,
        correctionRightDb: band.correctionDb?.right,
      };
    }),
  );
  return csvText(rows, COLUMNS);
}

/**
 * Reads tapes from CSV with commas or semicolons, decimal points or commas; columns may stand in any order,
 * those of no interest are passed over.
 * @throws ImportError naming the row and column; nothing is kept of a file with an error
 */
export function readTapesCsv(text: string): ReferenceTape[] {
  const { names, rows } = csvRows(text, "list of reference tapes");
  const missing = NEEDED.filter((name) => !names.includes(name));
  if (missing.length > 0)
    throw new ImportError(
      `The table lacks the column${missing.length > 1 ? "s" : ""} ${missing.join(", ")}. Its first line must name the columns; export a tape to see them all.`,
    );
  const tapes = new Map<string, { tape: Record<string, unknown>; bands: Band[]; row: number }>();
  rows.forEach(({ number, cells }) => {
    const row = new TapeRow(cells, number);
    const id = row.text("id") ?? "";
    if (!tapes.has(id)) tapes.set(id, { tape: row.tape(), bands: [], row: row.number });
    tapes.get(id)!.bands.push(row.band() as unknown as Band);
  });
  if (tapes.size === 0)
    throw new ImportError("The table names its columns but has no rows. Add a row for each band.");
  return [...tapes.values()].map(({ tape, bands, row }) => {
    const parsed = referenceTapeSchema.safeParse({ ...tape, bands });
    if (!parsed.success)
      throw new ImportError(
        `The tape that begins in row ${row} cannot be used: ${firstIssue(parsed.error)}. Nothing was imported.`,
      );
    return parsed.data;
  });
}

class TapeRow {
  constructor(
    private readonly cells: Record<string, string>,
    readonly number: number,
  ) {}

  text(column: string): string | undefined {
    const cell = this.cells[column]?.replace(/^'(?=[=+\-@\t\r])/, "");
    return cell === "" ? undefined : cell;
  }

  value(column: string): number | undefined {
    const cell = this.text(column);
    if (cell === undefined) return undefined;
    const value = typedNumber(cell);
    if (!Number.isFinite(value))
      throw new ImportError(
        `Row ${this.number}, ${column}: "${cell.slice(0, 40)}" is not a number. Nothing was imported.`,
      );
    return value;
  }

  tape(): Record<string, unknown> {
    const making = {
      by: this.text("madeBy") ?? "",
      machine: this.text("madeOn") ?? "",
      howChecked: this.text("howChecked") ?? "",
      speedUncertaintyPercent: this.value("makerUncertaintyPercent") ?? 0,
    };
    return {
      format: "unzel-reference-tape",
      version: 1,
      ...this.texts(TAPE_TEXTS),
      ...this.values(TAPE_NUMBERS),
      ...(Object.values(making).some(Boolean) && { making }),
    };
  }

  band(): Record<string, unknown> {
    const [left, right] = CORRECTIONS.map((column) => this.value(column));
    return {
      ...this.texts(BAND_TEXTS),
      ...this.values(BAND_NUMBERS),
      ...((left !== undefined || right !== undefined) && {
        correctionDb: { left: left ?? 0, right: right ?? 0 },
      }),
    };
  }

  private texts(columns: readonly string[]): Record<string, string> {
    return present(columns.map((column) => [column, this.text(column)]));
  }

  private values(columns: readonly string[]): Record<string, number> {
    return present(columns.map((column) => [column, this.value(column)]));
  }
}

const present = <T>(entries: Array<[string, T | undefined]>): Record<string, T> =>
  Object.fromEntries(entries.filter((entry): entry is [string, T] => entry[1] !== undefined));

const pick = (record: object, keys: readonly string[]): Row =>
  Object.fromEntries(keys.map((key) => [key, (record as Record<string, string | number>)[key]]));
