import { inForce, type JobRecords } from "@/core/records/job-records";
import { MEANINGS } from "@/core/workshop/symptoms";
import { partName, stateOf, type Part } from "@/core/workshop/part";
import { minds } from "@/core/workshop/strip-down";
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
  const { job, machine, adjustments, neededParts, stripDown = [] } = records;
  const sheet = sheetOf(records);
  const failed = sheet.stations.flatMap(({ rows }) =>
    rows
      .filter(({ deciding, asFound }) => deciding && asFound?.verdict === "fail")
      .map((row) => foundText(row, records)),
  );
  const turned = inForce(adjustments)
    .filter(({ turns }) => turns !== 0)
    .map(({ adjusterId }) => machine.adjusters.find(({ id }) => id === adjusterId)?.name ?? adjusterId);
  return {
    found: failed.length > 0 ? failed : (job.symptoms ?? []).map((one) => MEANINGS[one].says),
    done: [...new Set(turned)],
    ...partsOf(neededParts),
    nextTime: minds(stripDown),
    overall: sheet.overall,
  };
}

/** The names of the parts that were fitted, and of those that never came. */
export function partsOf(parts: readonly Part[] = []): Pick<JobSummary, "fitted" | "missing"> {
  const isFitted = (part: Part) => stateOf(part) === "fitted";
  return {
    fitted: parts.filter(isFitted).map(partName),
    missing: parts.filter((part) => !isFitted(part)).map(partName),
  };
}

function foundText({ asFound, quantity }: SheetRow, { blanks }: JobRecords): string {
  const { reading } = asFound!;
  const { decimals, signed } = quantityOf(quantity);
  const name = rowName(reading, blanks);
  return `${name[0].toLowerCase()}${name.slice(1)} ${fixed(reading.value, decimals, signed)}${unitAfter(reading.unit)}`;
}
