import type { Programme } from "@/core/programme/programme";
import type { ReferenceTape } from "./reference-tape";

/** A reference tape as what is played: it carries no marks, its tones tell it. */
export const programmeOfTape = ({ id, name, bands }: ReferenceTape): Programme => ({
  kind: "tape",
  id,
  name,
  sections: bands,
  marks: null,
});
