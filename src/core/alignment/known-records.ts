import type * as z from "@/core/text/zod";
import { adjustmentSchema } from "@/core/records/adjustment";
import { jobSchema } from "@/core/records/job";
import { machineSchema } from "@/core/records/machine";
import { readingSchema } from "@/core/records/reading";
import { partSchema } from "@/core/workshop/part";
import { MEASURING, stationById, unitOf } from "./registry";

/**
 * Records as they come in, from forms, files and the bench: of the shape that is stored, and with names of stations,
 * quantities and limits that Unzel knows.
 */
const OWN_LIMITS = new Map(MEASURING.flatMap(({ ownLimits }) => ownLimits.map((one) => [one.key, one])));

type Context = z.core.$RefinementCtx;
const refuse = (context: Context, path: Array<string | number>, message: string) =>
  context.addIssue({ code: "custom", path, message });

function requireStation(context: Context, path: Array<string | number>, id: string): void {
  if (!stationById(id)) refuse(context, path, `no station is called "${id}"`);
}

export const knownMachineSchema = machineSchema.superRefine(({ limits, adjusters }, context) => {
  for (const [key, limit] of Object.entries(limits)) {
    const own = OWN_LIMITS.get(key);
    if (!own) refuse(context, ["limits", key], `no limit is called "${key}"`);
    else if (limit > own.most) refuse(context, ["limits", key], `${own.label} is at most ${own.most}`);
  }
  adjusters.forEach(({ sets }, i) => requireStation(context, ["adjusters", i, "sets"], sets));
});

export const knownJobSchema = jobSchema.superRefine(({ leftOut = [], done, waiting }, context) => {
  leftOut.forEach((id, i) => requireStation(context, ["leftOut", i], id));
  for (const id of Object.keys(done)) requireStation(context, ["done", id], id);
  if (waiting) requireStation(context, ["waiting", "after"], waiting.after);
});

export const knownReadingSchema = readingSchema.superRefine(({ station, quantity, unit }, context) => {
  const known = MEASURING.find(({ id }) => id === station);
  if (!known || !(quantity in known.quantities))
    refuse(context, ["quantity"], `"${quantity}" is not measured at "${station}"`);
  else if (unitOf(quantity) !== unit)
    refuse(context, ["unit"], `"${quantity}" is in ${unitOf(quantity)}, not in ${unit}`);
});

export const knownPartSchema = partSchema.superRefine(({ station }, context) =>
  requireStation(context, ["station"], station),
);

export const knownAdjustmentSchema = adjustmentSchema.superRefine(({ station }, context) =>
  requireStation(context, ["station"], station),
);
