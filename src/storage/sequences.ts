import { readSequenceJson } from "@/core/formats/sequence-json";
import { PRESETS } from "@/core/signals/presets";
import { sequenceSchema, type Sequence } from "@/core/signals/sequence";
import { database } from "./database";

/** Those that ship with Unzel, then one's own. */
export const everySequence = async (): Promise<Sequence[]> => [
  ...PRESETS,
  ...(await database.sequences.toArray()),
];

export async function saveSequence(sequence: Sequence): Promise<void> {
  await database.sequences.put(sequenceSchema.parse(sequence));
}

export const deleteSequence = (id: string): Promise<void> => database.sequences.delete(id);

/** Imports a sequence from its JSON file. @throws ImportError saying what is wrong and what to do */
export async function importSequence(text: string): Promise<Sequence> {
  const sequence = readSequenceJson(text);
  await saveSequence(sequence);
  return sequence;
}
