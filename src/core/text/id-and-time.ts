import * as z from "@/core/text/zod";

/** Of every record that is stored. */
export const id = z.string().min(1).max(80);
export const time = z.iso.datetime();
