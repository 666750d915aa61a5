import { id, time } from "@/core/text/id-and-time";
import * as z from "@/core/text/zod";

export const SPARE_KINDS = [
  "belt",
  "tyre",
  "pinch roller",
  "clip",
  "spring",
  "screw",
  "capacitor",
  "lamp",
  "other",
] as const;
export type SpareKind = (typeof SPARE_KINDS)[number];

/** A drawer of the spare-parts box. */
export const spareSchema = z.object({
  id,
  name: z.string().trim().min(1, "Say what it is, with its size.").max(120),
  kind: z.enum(SPARE_KINDS),
  count: z.number().int("Count whole pieces.").min(0, "Count from 0 up.").max(9999),
  /** Where it lies. */
  place: z.string().trim().max(80).default(""),
  updatedAt: time,
});
export type Spare = z.infer<typeof spareSchema>;

const plain = (text: string) => text.trim().toLowerCase();

/** Whether two are of the same drawer: the same thing in the same place. */
export const isSameSpare = (a: Pick<Spare, "name" | "kind">, b: Pick<Spare, "name" | "kind">): boolean =>
  plain(a.name) === plain(b.name) && a.kind === b.kind;

/** Those that a word is found in, in name, kind or place; all for no word. */
export function sparesFor(spares: readonly Spare[], words: string): Spare[] {
  const wanted = plain(words).split(/\s+/).filter(Boolean);
  return spares.filter(({ name, kind, place }) =>
    wanted.every((word) => plain(`${name} ${kind} ${place}`).includes(word)),
  );
}
