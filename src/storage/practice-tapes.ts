import type { Tape } from "@/core/simulator/tape";
import { database } from "./database";

/** Puts back on a practice tape what was recorded on it before. */
export async function restoreTape(tape: Tape): Promise<void> {
  const seconds = await database.tapeSeconds.where("tapeId").equals(tape.id).toArray();
  for (const { side, second, left, right } of seconds) tape.sides[side].recorded.set(second, { left, right });
}

/** Keeps what was recorded on a practice tape since the last time; what could not be kept is tried again the next time. */
export async function keepTape(tape: Tape): Promise<void> {
  const changed = tape.sides.map((content) => [...content.changed]);
  const rows = tape.sides.flatMap((content, side) =>
    changed[side].map((second) => ({
      id: `${tape.id}/${side}/${second}`,
      tapeId: tape.id,
      side: side as 0 | 1,
      second,
      ...content.recorded.get(second)!,
    })),
  );
  if (rows.length === 0) return;
  // what is recorded while this is written has changed again
  for (const content of tape.sides) content.changed.clear();
  try {
    await database.tapeSeconds.bulkPut(rows);
  } catch (error) {
    tape.sides.forEach((content, side) => changed[side].forEach((second) => content.changed.add(second)));
    throw error;
  }
}
