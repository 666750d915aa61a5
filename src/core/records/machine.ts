import * as z from "@/core/text/zod";
import { machinePartsSchema } from "@/core/workshop/machine-part";
import { FUNCTION_IDS } from "@/core/workshop/function-trial";
import { TOLERANCE_CLASSES, type ToleranceClass } from "@/core/standards/tolerance-classes";
import { TAPE_TYPES } from "@/core/standards/tape-types";
import { CHANNELS, HEADS, SIDES, id, name, station, text } from "./fields";

export const KNOBS = ["bias", "level"] as const;

export const adjusterSchema = z.object({
  id,
  name,
  /** Where it sits and what to turn it with. */
  where: text.default(""),
  /** The station that it is turned or done at. */
  sets: station,
  /** A screw or trimmer is turned; work is done once (a belt changed, a capstan cleaned). */
  kind: z.enum(["turn", "work"]),
  /** The channel it acts on; both when left out. */
  channel: z.enum(CHANNELS).optional(),
  /** The direction it acts on; both when left out. */
  side: z.enum(SIDES).optional(),
  /** The head whose azimuth it sets; the playback head when left out. */
  head: z.enum(HEADS).optional(),
  /** The type of tape it acts for; every one when left out. */
  tapeType: z.enum(TAPE_TYPES).optional(),
  /** A knob on the front that the owner sets for a tape, and what it moves. */
  knob: z.enum(KNOBS).optional(),
  /** Tape speeds it acts at; every one when left out. */
  speedsCmPerS: z.array(z.number().min(1).max(100)).optional(),
});
export type Adjuster = z.infer<typeof adjusterSchema>;

export const FLUTTER_METERS = ["peak", "twoSigma", "rms", "average"] as const;
export const flutterMeterSchema = z.enum(FLUTTER_METERS);
export type FlutterMeter = z.infer<typeof flutterMeterSchema>;

/** What the maker wants of bias, read with a meter: a voltage at a test point, or the current through the head. */
export const biasFigureSchema = z
  .object({
    /** The type of tape it holds for; every one when left out. */
    tapeType: z.enum(TAPE_TYPES).optional(),
    amount: z.number().positive("must be more than nothing").max(100_000),
    unit: z.enum(["V", "mV", "mA"]),
    /** Of the resistor in series with the head, across which a current is read. */
    acrossOhm: z.number().positive("must be more than nothing").max(100_000).optional(),
    where: text.default(""),
  })
  .refine(({ unit, acrossOhm }) => unit !== "mA" || acrossOhm !== undefined, {
    message: "say across which resistor the current is read",
    path: ["acrossOhm"],
  });
export type BiasFigure = z.infer<typeof biasFigureSchema>;

/** What can be switched on and off on the front of a recorder. */
export const SWITCHES = ["reduction", "multiplex", "headroom"] as const;
export type FrontSwitch = (typeof SWITCHES)[number];
export const SWITCH_NAMES: Record<FrontSwitch, string> = {
  reduction: "noise reduction",
  multiplex: "multiplex filter",
  headroom: "headroom extension",
};

export const machineSchema = z.object({
  id,
  name,
  description: text.default(""),
  speedsCmPerS: z.array(z.number().min(1).max(100)).min(1, "Give at least one speed."),
  toleranceClass: z.enum(Object.keys(TOLERANCE_CLASSES) as [ToleranceClass, ...ToleranceClass[]]),
  /** Limits of this very machine, where they differ from its class, by the names that the stations give them. */
  limits: z.record(z.string().min(1).max(40), z.number().positive().max(360)).default({}),
  /** The weighted meter that the machine's flutter limit is written in. */
  flutterMeter: flutterMeterSchema.default("peak"),
  adjusters: z.array(adjusterSchema).default([]),
  /** Where each adjuster sits on the plan of the underside: shares of its width and height. */
  plan: z
    .array(z.object({ adjusterId: id, x: z.number().min(0).max(1), y: z.number().min(0).max(1) }))
    .max(200)
    .optional(),
  /** What is to be known of every machine of the model. */
  notes: text.optional(),
  /** Rotating parts, for naming where flutter comes from. */
  parts: machinePartsSchema.default([]),
  channels: z.union([z.literal(1), z.literal(2)]).default(2),
  /** Output level that the machine is to have where its tape has this fluxivity. */
  operatingLevel: z
    .object({
      fluxivityNwbPerM: z.number().positive().max(2000),
      method: z.enum(["ansi", "din"]),
      outputDbu: z.number().min(-60).max(40),
    })
    .nullable()
    .default(null),
  /** It records; one that can be heard off the tape while it does need not say so. */
  records: z.boolean().optional(),
  /** It has a playback head behind its record head, so that a recording can be heard off the tape while it is made. */
  monitorsTape: z.boolean().optional(),
  biasFigures: z.array(biasFigureSchema).max(20).optional(),
  /** The switches that it has, by the words that stand on them. */
  switches: z.partialRecord(z.enum(SWITCHES), z.string().trim().min(1).max(60)).optional(),
  /** Functions of a transport that it has not, by the names of `function-trial`. */
  without: z.array(z.enum(FUNCTION_IDS)).max(FUNCTION_IDS.length).optional(),
  /** Two capstans hold the tape between them: azimuth wanders less. */
  dualCapstan: z.boolean().optional(),
  /** Inductance of the playback head, for what a capacitor across it does. */
  headInductanceMh: z.number().positive().max(10_000).optional(),
  /** Of the pair of a stereo head. */
  tracks: z
    .object({ widthMm: z.number().positive().max(30), spacingMm: z.number().min(0).max(30) })
    .nullable()
    .default(null),
});
export type Machine = z.infer<typeof machineSchema>;

/** Whether a machine has anything to set on the record side. */
export const recordsTape = ({ records, monitorsTape }: Machine): boolean =>
  records === true || monitorsTape === true;
