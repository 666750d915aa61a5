import type { StripEntry, StripKind } from "./strip-entry";
import { readStripLine } from "./strip-line";

type Entries = readonly StripEntry[];

/** In the order in which they came off. */
export const inPlace = (entries: Entries): StripEntry[] => entries.toSorted((a, b) => a.place - b.place);

/** The assembly that is being taken apart, the innermost; null for the machine itself. */
export const openAssembly = (entries: Entries): StripEntry | null =>
  inPlace(entries).findLast(
    ({ kind, apartAt, fittedAt }) => kind === "assembly" && apartAt === null && fittedAt === null,
  ) ?? null;

/** An entry as it is logged with one key: the next in its order, in the assembly that is being taken apart. */
export function nextEntry(
  entries: Entries,
  kind: StripKind,
  { id, jobId, at }: Pick<StripEntry, "id" | "jobId" | "at">,
): StripEntry {
  return {
    id,
    jobId,
    at,
    place: Math.max(0, ...entries.map(({ place }) => place)) + 1,
    inside: openAssembly(entries)?.id ?? null,
    kind,
    line: "",
    pictures: [],
    apartAt: null,
    fittedAt: null,
    trouble: null,
    updatedAt: at,
  };
}

/** What an entry is called: what it is and its words, "washer under the flywheel"; without words its number in the log. */
export function nameOf({ kind, line, place }: StripEntry): string {
  const { what } = readStripLine(kind, line);
  if (what === "") return `${kind} ${place}`;
  return kind === "assembly" || kind === "other part" || what.toLowerCase().includes(kind)
    ? what
    : `${kind} ${what}`;
}

/** What was to be minded the next time, by what it is said of: "idler spring: hooked in the second hole". */
export const minds = (entries: Entries): string[] =>
  entries.flatMap((entry) => {
    const { nextTime } = readStripLine(entry.kind, entry.line);
    return nextTime ? [`${nameOf(entry)}: ${nextTime}`] : [];
  });

/** Everything inside an assembly, also inside assemblies in it. */
export function allInside(entries: Entries, assemblyId: string): StripEntry[] {
  const own = entries.filter(({ inside }) => inside === assemblyId);
  return own.flatMap((one) => [one, ...(one.kind === "assembly" ? allInside(entries, one.id) : [])]);
}

/** Whether an assembly is whole again: itself in its place, and every line in it. */
export const isClosed = (entries: Entries, assembly: StripEntry): boolean =>
  assembly.fittedAt !== null && allInside(entries, assembly.id).every(({ fittedAt }) => fittedAt !== null);

/** The assemblies beside the next one that lie apart: what is taken off two of them mixes. */
export const apartBeside = (entries: Entries, next: Pick<StripEntry, "id" | "inside">): StripEntry[] =>
  entries.filter(
    (one) =>
      one.kind === "assembly" && one.id !== next.id && one.inside === next.inside && !isClosed(entries, one),
  );

/** The log backwards: what came off last goes on first. */
export const backwards = (entries: Entries): StripEntry[] => inPlace(entries).toReversed();

/** What is not back in its place. */
export const openLines = (entries: Entries): StripEntry[] =>
  entries.filter(({ fittedAt }) => fittedAt === null);

/** What goes on next; null where all is fitted or what is left is missing or broken. */
export const nextToFit = (entries: Entries): StripEntry | null =>
  backwards(entries).find(
    (one) => one.fittedAt === null && one.trouble === null && whyNotFitted(entries, one) === null,
  ) ?? null;

/** Why an entry cannot be said to be fitted; null where it can. An assembly is closed only when every line in it is. */
export function whyNotFitted(entries: Entries, entry: StripEntry): string | null {
  if (entry.kind !== "assembly") return null;
  const open = backwards(openLines(allInside(entries, entry.id)));
  if (open.length === 0) return null;
  const named = open.slice(0, 3).map(nameOf).join(", ");
  return `${nameOf(entry)} is not whole: ${open.length === 1 ? "one line is" : `${open.length} lines are`} open (${named}${open.length > 3 ? ", …" : ""}).`;
}

/** The entry that can be undone: the last one, as long as nothing was done with it. */
export const undoable = (entries: Entries): StripEntry | null => {
  const last = inPlace(entries).at(-1);
  return last && last.fittedAt === null && last.trouble === null ? last : null;
};
