import { id, time } from "@/core/text/id-and-time";
import * as z from "@/core/text/zod";

/** A point of a picture, as shares of its width and height. */
const point = z.object({ x: z.number().min(0).max(1), y: z.number().min(0).max(1) });

/** What is drawn on a picture: an arrow that points at something, or a ring around it. */
export const pictureMarkSchema = z.object({ kind: z.enum(["arrow", "ring"]), from: point, to: point });
export type PictureMark = z.infer<typeof pictureMarkSchema>;

/** What is known of a picture, without its image. */
export const pictureSchema = z.object({
  id,
  jobId: id,
  at: time,
  width: z.number().int().min(1).max(10_000),
  height: z.number().int().min(1).max(10_000),
  bytes: z.number().int().min(1),
  marks: z.array(pictureMarkSchema).max(2000).default([]),
});
export type Picture = z.infer<typeof pictureSchema>;
