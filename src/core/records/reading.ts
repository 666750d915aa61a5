import * as z from "@/core/text/zod";
import { UNITS } from "@/core/text/units";
import { HEADS, SIDES, id, station, time } from "./fields";
import { SWITCHES, type FrontSwitch } from "./machine";

export const PHASES = ["as found", "working", "as left"] as const;
export type Phase = (typeof PHASES)[number];

export const POSITIONS = ["start", "middle", "end"] as const;
export const SUPPLIES = ["mains", "battery"] as const;
export const PITCHES = ["slowest", "fastest"] as const;
/** In what circumstances a reading was taken. */
export interface Circumstances {
  side?: (typeof SIDES)[number];
  position?: (typeof POSITIONS)[number];
  supply?: (typeof SUPPLIES)[number];
  /** An end of the pitch control; at its centre click, or without one, when left out. */
  pitch?: (typeof PITCHES)[number];
  /** The record head, heard live off the tape; the playback head when left out. */
  head?: (typeof HEADS)[number];
  /** The blank tape that is recorded on. */
  recordingOn?: string;
  /** What is switched on on the front of the machine; nothing, or not said, when left out. */
  switchedOn?: FrontSwitch[];
  /** The control or switch of the machine that is worked. */
  control?: string;
  /** A microphone at the mechanism is heard, for its tick; never kept with a reading. */
  hearsTick?: boolean;
  /** What noise is told of, where it is not a recorded silence; never kept with a reading. */
  noiseOf?: "machine" | "bulk" | "other side";
  /** What erasing is told of, where it is not the depth of one pass; never kept with a reading. */
  eraseOf?: "again" | "blanking";
  /** Somebody said that the tone to be erased was on this blank tape before; never kept with a reading. */
  toneWasOn?: string;
}

export const readingSchema = z.object({
  id,
  jobId: id,
  station,
  /** One of the station's quantities. */
  quantity: z.string().min(1).max(80),
  value: z.number(),
  unit: z.enum(UNITS),
  /** ± at 95 %, with the reference tape's and the clock's shares counted in. */
  uncertainty: z.number().min(0),
  /** The share of it that the measurement itself has: noise and wander. */
  ownUncertainty: z.number().min(0),
  method: z.string().max(200),
  context: z.object({
    channel: z.string().max(20),
    tapeId: id,
    nominalHz: z.number(),
    speedCmPerS: z.number(),
    seconds: z.number().min(0),
    /** Side or direction that played, where on the reel, and what fed the machine; left out when not said. */
    side: z.enum(SIDES).optional(),
    position: z.enum(POSITIONS).optional(),
    supply: z.enum(SUPPLIES).optional(),
    pitch: z.enum(PITCHES).optional(),
    head: z.enum(HEADS).optional(),
    recordingOn: id.optional(),
    control: z.string().trim().min(1).max(60).optional(),
    switchedOn: z.array(z.enum(SWITCHES)).max(SWITCHES.length).optional(),
  }),
  phase: z.enum(PHASES),
  at: time,
  /** What the clock of the computer said, where that stood before the entry before. */
  clockSaid: time.optional(),
  source: z.object({
    kind: z.enum(["practice", "file", "sound card", "by hand"]),
    name: z.string().max(300),
  }),
  engine: z.string().max(40),
  /** The recording of what was heard, where one was kept. */
  evidenceId: id.nullable().default(null),
  supersedes: id.nullable().default(null),
});
export type Reading = z.infer<typeof readingSchema>;
