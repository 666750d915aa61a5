import { id, time } from "@/core/text/id-and-time";
import * as z from "@/core/text/zod";
import { roleOf, type MachinePart } from "./machine-part";

export const FOUND = ["clean", "dirty", "sticky", "worn", "corroded", "cracked"] as const;
export const DONE = ["cleaned", "lubricated", "cleaned and lubricated", "replaced", "left"] as const;

const current = z
  .number({ error: "A current is a number of milliamperes." })
  .positive("A motor that runs draws more than 0 mA.")
  .max(20_000, "More than 20 A is no tape motor.");

/** What was found and done at one part of a machine. Entries are appended; the last of a part counts. */
export const cleaningEntrySchema = z.object({
  id,
  at: time,
  what: z.string().trim().min(1, "Say what it is.").max(80),
  found: z.enum(FOUND),
  done: z.enum(DONE),
  /** What it was done with. */
  using: z.string().trim().max(80).default(""),
  /** What a motor drew before it was run in and after that, milliamperes, as typed; left out when not measured. */
  beforeMa: current.optional(),
  afterMa: current.optional(),
});
export type CleaningEntry = z.infer<typeof cleaningEntrySchema>;

/** What a part is to whoever cleans it. */
export const SUBJECTS = {
  head: {
    using: ["isopropyl, wiped dry", "head cleaner"],
    mind: "Cotton or foam, along the tape's way; nothing hard near the gap.",
  },
  rubber: {
    using: ["rubber cleaner", "isopropyl, wiped dry at once", "water with a drop of soap"],
    mind: "Schools differ on alcohol: briefly and wiped dry does no harm that is seen; soaking does. Shiny or hard rubber is replaced.",
  },
  metal: {
    using: ["isopropyl, wiped dry", "plastic scraper for brown residue"],
    mind: "No oil where the tape or a belt runs.",
  },
  bearing: {
    using: ["sintered-bearing oil, one drop", "light synthetic oil, one drop", "grease, a film"],
    mind: "Old grease out first, or the new softens it. What is thrown off lands on a belt.",
  },
  motor: {
    using: ["one drop of light oil at each bearing", "brushes left alone", "run in for an hour"],
    mind: "Brushes: type the current before and after an hour's run; oil on the commutator is the end of it.",
  },
  belt: {
    using: ["isopropyl, wiped dry", "replaced"],
    mind: "A belt that leaves black on the finger is replaced, and its residue washed off every pulley.",
  },
  contact: {
    using: ["contact cleaner, worked twenty times", "glass-fibre pen, dust off", "isopropyl"],
    mind: "Cleaner that leaves a lubricant for controls; none on switches that carry mains.",
  },
  "cell contact": {
    using: [
      "mild acid (alkaline cells leaked)",
      "baking soda in water (zinc-carbon leaked)",
      "glass-fibre pen",
    ],
    mind: "By chemistry: alkaline leaks are basic, zinc-carbon leaks acidic. Gloves, rinse, dry.",
  },
} as const satisfies Record<string, { using: readonly string[]; mind: string }>;
export type Subject = keyof typeof SUBJECTS;

/** Something of a machine that is cleaned. */
export interface ToClean {
  what: string;
  subject: Subject;
}

/** Every machine has these; cells where it runs on them. */
const ALWAYS: readonly ToClean[] = [
  { what: "heads", subject: "head" },
  { what: "tape guides", subject: "metal" },
  { what: "switches", subject: "contact" },
  { what: "controls", subject: "contact" },
];
const CELLS: ToClean = { what: "cell contacts", subject: "cell contact" };

function subjectOf(part: MachinePart): Subject {
  switch (roleOf(part)) {
    case "capstan":
    case "guide":
      return "metal";
    case "pinch roller":
    case "idler":
      return "rubber";
    case "motor":
      return "motor";
    case "belt":
      return "belt";
    case "reel":
    case "other":
      return "bearing";
  }
}

/** What of a machine is cleaned: its own parts, then what every machine has. @param onCells it runs on cells */
export const toClean = (parts: readonly MachinePart[], onCells: boolean): ToClean[] => [
  ...parts.map((part) => ({ what: part.name, subject: subjectOf(part) })),
  ...ALWAYS,
  ...(onCells ? [CELLS] : []),
];

export const lastEntry = (entries: readonly CleaningEntry[], what: string): CleaningEntry | null =>
  entries.findLast((entry) => entry.what === what) ?? null;

/** "dirty; cleaned with rubber cleaner", for a motor also "142 → 118 mA" */
export function cleaningText({ found, done, using, beforeMa, afterMa }: CleaningEntry): string {
  const drew = beforeMa !== undefined || afterMa !== undefined;
  return `${found}; ${done}${using && done !== "left" ? ` with ${using}` : ""}${
    drew ? `; ${beforeMa ?? "?"} → ${afterMa ?? "?"} mA` : ""
  }`;
}

/** Less than this share the load of a motor differs from one run to the next. */
const SAME_CURRENT_SHARE = 0.05;

/** What the current of a motor says of its running in; null while one of the two is missing. */
export function currentSays({
  beforeMa,
  afterMa,
}: Pick<CleaningEntry, "beforeMa" | "afterMa">): string | null {
  if (beforeMa === undefined || afterMa === undefined) return null;
  const change = afterMa / beforeMa - 1;
  if (Math.abs(change) < SAME_CURRENT_SHARE) return "It draws what it drew before.";
  return change < 0
    ? "It draws less: it runs more freely."
    : "It draws more than before: bearings or brushes still drag. Look again before it goes back in.";
}
