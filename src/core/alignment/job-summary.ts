import { inForce, type JobRecords } from "@/core/records/job-records";
import { MEANINGS } from "@/core/workshop/symptoms";
import { partName, stateOf } from "@/core/workshop/part";
import { nameOf } from "@/core/workshop/strip-down";
import { readStripLine } from "@/core/workshop/strip-line";
import { fixed } from "@/core/text/number-text";
import { unitAfter } from "@/core/text/units";
import { quantityOf } from "./registry";
import { rowName, sheetOf, type Overall, type SheetRow } from "./sheet";

/** A job in few words, for whoever has the same machine or the same owner before them again. */
export interface JobSummary {
  /** What was out of its limits when it came. */
  found: string[];
  /** What was turned or done, by the machine's names for it; each once. */
  done: string[];
  /** Parts that were fitted, and parts that were wanted and never came. */
  fitted: string[];
  missing: string[];
  /** What was to be minded the next time it is opened. */
  nextTime: string[];
  overall: Overall;
}

export function summaryOf(records: JobRecords): JobSummary {
  const { job, machine, adjustments, neededParts = [], stripDown = [] } = records;
  const sheet = sheetOf(records);
  const failed = sheet.stations.flatMap(({ rows }) =>
    rows
      .filter(({ deciding, asFound }) => deciding && asFound?.verdict === "fail")
      .map((row) => foundText(row, records)),
  );
  const turned = inForce(adjustments)
    .filter(({ turns }) => turns !== 0)
    .map(({ adjusterId }) => machine.adjusters.find(({ id }) => id === adjusterId)?.name ?? adjusterId);
  const named = (state: (one: ReturnType<typeof stateOf>) => boolean) =>
    neededParts.filter((part) => state(stateOf(part))).map(partName);
  return {
    found: failed.length > 0 ? failed : (job.symptoms ?? []).map((one) => MEANINGS[one].says),
    done: [...new Set(turned)],
    fitted: named((state) => state === "fitted"),
    missing: named((state) => state !== "fitted"),
    nextTime: stripDown.flatMap((entry) => {
      const { nextTime } = readStripLine(entry.kind, entry.line);
      return nextTime ? [`${nameOf(entry)}: ${nextTime}`] : [];
    }),
    overall: sheet.overall,
  };
}

function foundText({ asFound, quantity }: SheetRow, { blanks }: JobRecords): string {
  const { reading } = asFound!;
  const { decimals, signed } = quantityOf(quantity);
  const name = rowName(reading, blanks);
  return `${name[0].toLowerCase()}${name.slice(1)} ${fixed(reading.value, decimals, signed)}${unitAfter(reading.unit)}`;
}
