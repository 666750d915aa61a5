import { sha256 } from "@noble/hashes/sha2.js";
import { bytesToHex, utf8ToBytes } from "@noble/hashes/utils.js";
import * as z from "@/core/text/zod";
import { speedsOf } from "@/core/records/job-speeds";
import { partRunSchema, watchSchema } from "@/core/records/runs";
import { firstIssue, ImportError } from "./import-error";
import { valueOfJson } from "./json-text";
import { adjustmentSchema } from "@/core/records/adjustment";
import { blankTapeSchema } from "@/core/records/blank-tape";
import { jobSchema } from "@/core/records/job";
import { partSchema } from "@/core/workshop/part";
import { stripEntrySchema } from "@/core/workshop/strip-entry";
import { machineSchema } from "@/core/records/machine";
import { readingSchema } from "@/core/records/reading";
import { referenceTapeSchema } from "@/core/reference/reference-tape";

export const BUNDLE_VERSION = 1;
const MOST_BYTES = 64 * 1024 * 1024;

const contentSchema = z.object({
  jobs: z.array(jobSchema).min(1, "it holds no job"),
  machines: z.array(machineSchema),
  tapes: z.array(referenceTapeSchema),
  blanks: z.array(blankTapeSchema).default([]),
  readings: z.array(readingSchema),
  adjustments: z.array(adjustmentSchema),
  runs: z.array(partRunSchema).default([]),
  watches: z.array(watchSchema).default([]),
  neededParts: z.array(partSchema).default([]),
  stripDown: z.array(stripEntrySchema).default([]),
});
export type BundleContent = z.infer<typeof contentSchema>;

const bundleSchema = z.object({
  format: z.literal("unzel-job"),
  version: z.literal(BUNDLE_VERSION),
  exportedAt: z.iso.datetime(),
  /** SHA-256 of the content as compact JSON with its keys in alphabetical order; may be left out. */
  checksum: z.string().optional(),
  content: contentSchema,
});

/** The text of a bundle file. */
export function writeBundle(content: BundleContent, exportedAt: string): string {
  return `${JSON.stringify(
    { format: "unzel-job", version: BUNDLE_VERSION, exportedAt, checksum: checksum(content), content },
    null,
    1,
  )}\n`;
}

/**
 * Reads a bundle file and checks everything in it, so that an import is all or nothing.
 * @throws ImportError saying what is wrong and what to do
 */
export function readBundle(text: string): BundleContent {
  if (text.length > MOST_BYTES)
    throw new ImportError("The file is larger than any job can be. Choose another file.");
  const raw = valueOfJson(text);
  if (raw === undefined)
    throw new ImportError(
      text.trimStart().startsWith("{")
        ? "The file is damaged or cut short: it is not complete JSON. Export it again where it came from."
        : "This is not a job file. Choose a file that was exported as a job (its name ends in .unzel.json).",
    );
  const header = z.object({ format: z.string(), version: z.number() }).safeParse(raw);
  if (!header.success || header.data.format !== "unzel-job")
    throw new ImportError(
      `This is not a job file${header.success ? ` but "${header.data.format.slice(0, 40)}"` : ""}. Choose a file that was exported as a job.`,
    );
  if (header.data.version > BUNDLE_VERSION)
    throw new ImportError(
      `The file was written by a newer Unzel (bundle version ${header.data.version}; this one reads up to ${BUNDLE_VERSION}). Update Unzel and import it again.`,
    );
  const parsed = bundleSchema.safeParse(raw);
  if (!parsed.success) {
    throw new ImportError(
      `The file is damaged: ${firstIssue(parsed.error)}. Nothing was imported; export it again where it came from.`,
    );
  }
  const { content } = parsed.data;
  const written = (raw as { content: unknown }).content;
  if (parsed.data.checksum !== undefined && parsed.data.checksum !== checksum(written))
    throw new ImportError(
      "The file was changed or damaged after it was exported: its checksum does not fit its contents. Nothing was imported.",
    );
  refuseOddIds(content);
  refuseTwice(content);
  requireReferences(content);
  return content;
}

/** Whether a bundle file carries a checksum, by which it is known to be as it was exported; that it fits is up to `readBundle`. */
export const isSigned = (text: string): boolean =>
  z.object({ checksum: z.string() }).safeParse(valueOfJson(text)).success;

/** An id that becomes a part of an address has to stay one part of it. */
const PART_OF_ADDRESS = /^(?!\.+$)[\w.~-]+$/;

function refuseOddIds({ jobs, machines, tapes, blanks }: BundleContent): void {
  const [odd] = [...jobs, ...machines, ...tapes, ...blanks].filter(({ id }) => !PART_OF_ADDRESS.test(id));
  if (odd)
    throw new ImportError(
      `The file is damaged: "${odd.id}" cannot be the id of a job, machine or tape; ids are made of letters, digits, points and dashes. Nothing was imported.`,
    );
}

/** A record that stands twice in a file would be two things under one name. */
function refuseTwice(content: BundleContent): void {
  for (const [what, records] of Object.entries(content) as Array<[string, Array<{ id: string }>]>) {
    const seen = new Set<string>();
    const twice = records.find(({ id }) => seen.size === seen.add(id).size);
    if (twice)
      throw new ImportError(
        `The file is damaged: ${twice.id} stands twice in its ${what}. Nothing was imported; export it again where it came from.`,
      );
  }
}

function requireReferences({
  jobs,
  machines,
  tapes,
  readings,
  adjustments,
  neededParts,
  stripDown,
}: BundleContent): void {
  const ids = (records: { id: string }[]) => new Set(records.map((record) => record.id));
  const [jobIds, machineIds, tapeIds] = [ids(jobs), ids(machines), ids(tapes)];
  const lost =
    jobs.find(
      (job) => !machineIds.has(job.machineId) || speedsOf(job).some(({ tapeId }) => !tapeIds.has(tapeId)),
    ) ??
    [...readings, ...adjustments, ...neededParts, ...stripDown].find((record) => !jobIds.has(record.jobId));
  if (lost)
    throw new ImportError(
      `The file is damaged: record ${lost.id} refers to a job, machine or tape that is not in it. Nothing was imported.`,
    );
}

export const checksum = (content: unknown): string =>
  bytesToHex(sha256(utf8ToBytes(textInKeyOrder(content))));

/** The same text for the same content, whatever the order of its keys. */
export const textInKeyOrder = (content: unknown): string => JSON.stringify(inKeyOrder(content));

function inKeyOrder(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(inKeyOrder);
  if (value === null || typeof value !== "object") return value;
  return Object.fromEntries(
    Object.entries(value)
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .map(([key, inner]) => [key, inKeyOrder(inner)]),
  );
}
