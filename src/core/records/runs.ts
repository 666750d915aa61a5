import * as z from "@/core/text/zod";
import { PART_ROLES } from "@/core/workshop/machine-part";

const finite = z.number();
const id = z.string().min(1).max(80);

/** What of a part is kept with a run, so that a later one can be compared with it. */
const keptPartSchema = z.object({
  part: z.string().max(80),
  role: z.enum(PART_ROLES),
  rateHz: finite,
  peakPercent: finite,
  sharePercent: finite,
  certainty: finite,
});

/** The parts that were heard in one run of a machine. */
export const partRunSchema = z.object({
  id,
  jobId: id,
  at: z.iso.datetime(),
  label: z.string().trim().min(1, "Give the run a name.").max(80),
  seconds: finite,
  totalRmsPercent: finite,
  parts: z.array(keptPartSchema).max(60),
});
export type PartRun = z.infer<typeof partRunSchema>;

const trackValues = z.array(finite.nullable()).max(10_000);

/** A long run as a compact track. */
export const watchSchema = z.object({
  id,
  jobId: id,
  at: z.iso.datetime(),
  label: z.string().trim().min(1).max(80),
  startSeconds: finite,
  stepSeconds: z.number().positive(),
  speedPercent: trackValues,
  flutterPercent: trackValues,
  levelDb: trackValues,
  events: z
    .array(
      z.object({
        kind: z.enum(["slip", "surge", "tick", "stall"]),
        atSeconds: finite,
        seconds: finite,
        percent: finite.nullable(),
      }),
    )
    .max(1000),
  spectra: z.array(z.array(finite).max(200)).max(1000).default([]),
  missed: z
    .array(z.object({ fromSeconds: finite, toSeconds: finite }))
    .max(1000)
    .default([]),
});
export type Watch = z.infer<typeof watchSchema>;
