import type { Tape } from "@/core/simulator/tape";
import { database } from "./database";

/** Puts back on a practice tape what was recorded on it before. */
export async function restoreTape(tape: Tape): Promise<void> {
  const seconds = await database.tapeSeconds.where("tapeId").equals(tape.id).toArray();
  for (const { side, second, left, right } of seconds) tape.sides[side].recorded.set(second, { left, right });
}

/** Written at a time, a few megabytes: a reading that is to be stored meanwhile waits for no more than that. */
const SECONDS_AT_ONCE = 8;

/** Keeps what was recorded on a practice tape since the last time; what could not be kept is tried again the next time. */
export async function keepTape(tape: Tape): Promise<void> {
  for (const [side, { changed, recorded }] of tape.sides.entries()) {
    const all = [...changed];
    for (let from = 0; from < all.length; from += SECONDS_AT_ONCE) {
      const seconds = all.slice(from, from + SECONDS_AT_ONCE);
      // what is recorded while this is written has changed again
      for (const second of seconds) changed.delete(second);
      try {
        await database.tapeSeconds.bulkPut(
          seconds.map((second) => ({
            id: `${tape.id}/${side}/${second}`,
            tapeId: tape.id,
            side: side as 0 | 1,
            second,
            ...recorded.get(second)!,
          })),
        );
      } catch (error) {
        for (const second of seconds) changed.add(second);
        throw error;
      }
    }
  }
}
