import * as z from "@/core/text/zod";

/** Fields that many records share. */
export { id, time } from "@/core/text/id-and-time";
export { MOST_ENTRIES, text } from "@/core/text/limits";
export const name = z.string().trim().min(1, "Give it a name.").max(200);
/** A station's id. Records know nothing of which stations there are; `known-records` checks it. */
export const station = z.string().min(1).max(40);

export const SIDES = ["A", "B"] as const;
export type Side = (typeof SIDES)[number];
export const CHANNELS = ["left", "right"] as const;
/** Another head than the playback head. */
export const HEADS = ["record"] as const;
