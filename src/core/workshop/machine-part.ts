import * as z from "@/core/text/zod";

const millimetres = z.number().positive().max(5000);
const partName = z.string().trim().min(1, "Give the part a name.").max(80);

/** What a part is, for what usually cures it; guessed from the name where it is not said. */
export const PART_ROLES = [
  "capstan",
  "pinch roller",
  "idler",
  "guide",
  "motor",
  "belt",
  "reel",
  "other",
] as const;
export type PartRole = (typeof PART_ROLES)[number];

const common = {
  name: partName,
  role: z.enum(PART_ROLES).optional(),
  /** How far the rate may be from what the geometry says, ± at 95 %. */
  tolerancePercent: z.number().positive().max(20).default(2),
};

/** A rotating part and what ties its turns to the tape; lengths in millimetres. */
export const machinePartSchema = z.union(
  [
    /** Turns with the tape's speed at its surface: capstan, pinch roller, guide roller. */
    z.object({ ...common, tapeDiameterMm: millimetres }),
    /** Turns `ratio` times while another part turns once; `poles` name ripples per turn of a motor. */
    z.object({
      ...common,
      ratioTo: partName,
      ratio: z.number().positive().max(1000),
      poles: z.number().int().min(2).max(100).optional(),
    }),
    /** Goes round once while its length runs over a pulley that sits on another part. */
    z.object({
      ...common,
      beltLengthMm: millimetres,
      pulleyPart: partName,
      pulleyDiameterMm: millimetres,
    }),
    /** A reel, whose radius grows or shrinks with the tape wound so far. */
    z.object({
      ...common,
      reel: z.enum(["supply", "take-up"]),
      hubRadiusMm: millimetres,
      fullRadiusMm: millimetres,
      tapeThicknessMicrometres: z.number().min(3).max(100).optional(),
    }),
    /** Known by counting: so many turns in so many seconds at the machine's first speed. */
    z.object({
      ...common,
      countedTurns: z.number().positive().max(100_000),
      countedSeconds: z.number().positive().max(36_000),
    }),
  ],
  {
    error:
      "a part needs a name and one of: tapeDiameterMm; ratioTo and ratio; beltLengthMm, pulleyPart and pulleyDiameterMm; reel, hubRadiusMm and fullRadiusMm; countedTurns and countedSeconds",
  },
);
export type MachinePart = z.infer<typeof machinePartSchema>;

export const machinePartsSchema = z
  .array(machinePartSchema)
  .max(60)
  .superRefine((parts, context) => {
    const names = new Set<string>();
    parts.forEach((part, i) => {
      const problem = names.has(part.name)
        ? `there are two parts called "${part.name}"; give each its own name`
        : problemOf(part, parts);
      if (problem) context.addIssue({ code: "custom", path: [i], message: problem });
      names.add(part.name);
    });
  });

function problemOf(part: MachinePart, parts: MachinePart[]): string | null {
  if ("reel" in part && part.hubRadiusMm >= part.fullRadiusMm)
    return `the hub of "${part.name}" has to be smaller than its full pack`;
  const seen = [part.name];
  for (let on = drivenBy(part); on !== null;) {
    const next = parts.find(({ name }) => name === on);
    if (!next) return `"${part.name}" turns with "${on}", which is not among the parts`;
    if ("reel" in next) return `"${part.name}" turns with a reel, whose rate is not constant`;
    if (seen.includes(on)) return `"${part.name}" turns with itself by way of ${seen.join(", ")}`;
    seen.push(on);
    on = drivenBy(next);
  }
  return null;
}

/** Name of the part that this one takes its turns from. */
const drivenBy = (part: MachinePart): string | null =>
  "ratioTo" in part ? part.ratioTo : "beltLengthMm" in part ? part.pulleyPart : null;

export interface PartRate {
  part: MachinePart;
  /** Turns per second; for a reel the slowest (full pack) and fastest (empty hub) there can be. */
  fromHz: number;
  toHz: number;
}

/**
 * How often each part turns in a second while the tape passes at `speedCmPerS`: surface parts v/(πD), belts
 * πD·rate/L, reels v/(2πr) from full pack to hub.
 * @param firstSpeedCmPerS the speed at which turns were counted
 * @param parts checked by `machinePartsSchema`
 */
export function partRates(
  parts: MachinePart[],
  speedCmPerS: number,
  firstSpeedCmPerS = speedCmPerS,
): PartRate[] {
  const mmPerS = 10 * speedCmPerS;
  const rateOf = (part: MachinePart): number => {
    const byName = (name: string) => rateOf(parts.find((p) => p.name === name) as MachinePart);
    if ("tapeDiameterMm" in part) return mmPerS / (Math.PI * part.tapeDiameterMm);
    if ("ratioTo" in part) return part.ratio * byName(part.ratioTo);
    if ("beltLengthMm" in part)
      return (Math.PI * part.pulleyDiameterMm * byName(part.pulleyPart)) / part.beltLengthMm;
    if ("countedTurns" in part)
      return ((part.countedTurns / part.countedSeconds) * speedCmPerS) / firstSpeedCmPerS;
    return NaN;
  };
  return parts.map((part) => {
    if ("reel" in part)
      return {
        part,
        fromHz: mmPerS / (2 * Math.PI * part.fullRadiusMm),
        toHz: mmPerS / (2 * Math.PI * part.hubRadiusMm),
      };
    const rate = rateOf(part);
    return { part, fromHz: rate, toHz: rate };
  });
}

const ROLE_WORDS: Array<[PartRole, RegExp]> = [
  ["belt", /belt/i],
  ["pinch roller", /pinch|pressure roller/i],
  ["idler", /idler|tyre|puck/i],
  ["guide", /guide|roller/i],
  ["motor", /motor/i],
  ["reel", /reel|spool|hub|take-?up|supply/i],
  ["capstan", /capstan|flywheel/i],
];

/** What the part is, as said or as its kind and name tell. */
export function roleOf(part: MachinePart): PartRole {
  if (part.role) return part.role;
  if ("beltLengthMm" in part) return "belt";
  if ("reel" in part) return "reel";
  return ROLE_WORDS.find(([, words]) => words.test(part.name))?.[0] ?? "other";
}
