import type { Tape } from "@/core/machine/tape";
import { database } from "./database";

/** Puts back on a practice tape what was recorded on it before. */
export async function restoreTape(tape: Tape): Promise<void> {
  const seconds = await database.tapeSeconds.where("tapeId").equals(tape.id).toArray();
  for (const { side, second, left, right } of seconds) tape.sides[side].recorded.set(second, { left, right });
}

/** Keeps what was recorded on a practice tape since the last time. */
export async function keepTape(tape: Tape): Promise<void> {
  const rows = tape.sides.flatMap((content, side) =>
    [...content.changed].map((second) => ({
      id: `${tape.id}/${side}/${second}`,
      tapeId: tape.id,
      side: side as 0 | 1,
      second,
      ...content.recorded.get(second)!,
    })),
  );
  if (rows.length === 0) return;
  await database.tapeSeconds.bulkPut(rows);
  for (const { changed } of tape.sides) changed.clear();
}
