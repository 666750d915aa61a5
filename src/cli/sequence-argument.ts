import { readSequenceJson } from "@/core/formats/sequence-json";
import { PRESETS } from "@/core/signals/presets";
import type { Sequence } from "@/core/signals/sequence";
import { UsageError } from "./exit";
import { textOfFile } from "./text-file";

/**
 * A preset by its id, or a sequence from a file that Unzel exported.
 * @throws UsageError when there is no such preset and the name is not that of a JSON file, Error when it cannot be read
 */
export async function sequenceArgument(name: string): Promise<Sequence> {
  const preset = PRESETS.find(({ id }) => id === name);
  if (preset) return preset;
  if (!name.endsWith(".json")) throw new UsageError(`there is no signal or sequence "${name}"`);
  return readSequenceJson(await textOfFile(name));
}
