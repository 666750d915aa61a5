import { typedNumber } from "@/core/text/typed-number";
import type { StripKind } from "./strip-entry";

/** What was understood of a line. */
export interface StripLine {
  what: string;
  count: number;
  lengthMm: number | null;
  /** As it is called: M2.6. */
  thread: string | null;
  heads: string[];
  where: string | null;
  /** What it must not be parted from. */
  staysWith: string | null;
  /** How it stood before it was moved. */
  mark: string | null;
  /** What whoever opens this machine again should know. */
  nextTime: string | null;
}

/** Heads and points of screws, by the words for them. */
const HEADS: ReadonlyArray<[head: string, words: RegExp]> = [
  ["hex socket", /\bhex(?:agon)? socket\b/i],
  ["hex", /\bhex(?:agon)?\b/i],
  ["cross", /\bcross(?: ?head)?\b/i],
  ["slotted", /\bslot(?:ted)?\b/i],
  ["six-lobe", /\bsix[- ]lobe\b/i],
  ["countersunk", /\bcountersunk\b/i],
  ["pan", /\bpan(?: ?head)?\b/i],
  ["self-tapping", /\bself[- ]tapping\b/i],
];
const THREAD_AND_LENGTH = /\bM(\d+(?:[.,]\d+)?)\s?[×x]\s?(\d+(?:[.,]\d+)?)(?:\s?mm)?(?=\s|$)/i;
const THREAD = /\bM(\d(?:[.,]\d)?)(?=\s|$)/;
const LENGTH = /(?:^|\s)(\d+(?:[.,]\d+)?)\s?mm(?=\s|$)/i;
const COUNT = /(?:^|\s)(?:[×x]\s?([1-9]\d?)|([1-9]\d?)\s?[×x])(?=\s|$)/i;
const SAID: ReadonlyArray<["staysWith" | "mark" | "nextTime", RegExp]> = [
  ["staysWith", /^stays with\s+(.+)/i],
  ["mark", /^mark(?:ed)?(?: at)?\s+(.+)/i],
  ["nextTime", /^next time:?\s+(.+)/i],
];

/**
 * Reads a line of the strip-down log: parts between commas; the first is what it is, the next where. Counts (×2), lengths
 * (8 mm, M2.6×8) and, of screws, heads are taken out of them; "stays with", "mark at" and "next time" begin parts of their own.
 * What is not understood stays in the words.
 */
export function readStripLine(kind: StripKind, text: string): StripLine {
  const line: StripLine = {
    what: "",
    count: 1,
    lengthMm: null,
    thread: null,
    heads: [],
    where: null,
    staysWith: null,
    mark: null,
    nextTime: null,
  };
  const words: string[] = [];
  // a comma between digits is a decimal comma
  for (const part of text.split(/;|,(?!\d)/).map((one) => one.trim())) {
    const said = SAID.map(([field, begins]) => ({ field, found: begins.exec(part)?.[1] })).find(
      ({ found }) => found,
    );
    if (said) line[said.field] = [line[said.field], said.found].filter(Boolean).join("; ");
    else words.push(takeOut(kind, part, line));
  }
  const [what = "", ...where] = words.filter((one) => one !== "");
  return { ...line, what, where: where.join(", ") || null };
}

/** Takes figures and heads out of some words. Returns the words that are left. */
function takeOut(kind: StripKind, part: string, line: StripLine): string {
  let left = part;
  const take = (pattern: RegExp, keep: (found: RegExpExecArray) => void) => {
    const found = pattern.exec(left);
    if (!found) return;
    keep(found);
    left = left.replace(found[0], " ");
  };
  take(THREAD_AND_LENGTH, ([, thread, length]) => {
    line.thread = `M${thread.replace(",", ".")}`;
    line.lengthMm = typedNumber(length);
  });
  take(COUNT, ([, after, before]) => (line.count = Number(after ?? before)));
  if (line.lengthMm === null) take(LENGTH, ([, length]) => (line.lengthMm = typedNumber(length)));
  if (kind === "screw") {
    take(THREAD, ([, thread]) => (line.thread = `M${thread.replace(",", ".")}`));
    for (const [head, pattern] of HEADS) take(pattern, () => line.heads.push(head));
  }
  return left.replace(/\s+/g, " ").trim();
}
