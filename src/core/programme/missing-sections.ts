import { hertzText } from "@/core/text/number-text";
import type { Programme, Section } from "./programme";
import type { RecognisedSection } from "./recognition";

const nameOf = ({ kind, frequencyHz }: Section): string =>
  frequencyHz > 0 && kind === "tone" ? hertzText(frequencyHz) : kind;
const MOST_NAMED = 8;

/**
 * Which sections of a tape were not found in a recording of it, and where they should have been, in sentences; none where
 * nothing of it was found at all. Silence is no section that could be missed.
 */
export function missingSections(
  { name, sections }: Pick<Programme, "name" | "sections">,
  found: readonly Pick<RecognisedSection, "index">[],
): string[] {
  if (found.length === 0) return [];
  const indices = found.map(({ index }) => index);
  const [first, last] = [Math.min(...indices), Math.max(...indices)];
  const missing = sections.flatMap((section, index) =>
    section.kind === "silence" || indices.includes(index) ? [] : [{ index, words: nameOf(section) }],
  );
  const sentence = (list: typeof missing, why: string) => {
    const named = list.slice(0, MOST_NAMED).map(({ words }) => words);
    const more = list.length > MOST_NAMED ? ` and ${list.length - MOST_NAMED} more` : "";
    return list.length === 0 ? [] : [`Not found of ${name}: ${named.join(", ")}${more}, ${why}.`];
  };
  return [
    ...sentence(
      missing.filter(({ index }) => index < first),
      "before the first band that was recognised: the recording begins later, or they are covered by another sound",
    ),
    ...sentence(
      missing.filter(({ index }) => index > first && index < last),
      "between bands that were recognised: too short, too low, or covered by another tone, hum or speech",
    ),
    ...sentence(
      missing.filter(({ index }) => index > last),
      "after the last band that was recognised: the recording ends earlier, or they are covered by another sound",
    ),
  ];
}
