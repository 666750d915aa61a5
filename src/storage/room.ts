import { database } from "./database";
import { listRecordings } from "./recordings";

/** What takes how much room, as far as it is worth telling. */
export interface RoomTaken {
  sounds: { count: number; bytes: number };
  practice: { seconds: number; bytes: number };
  /** Readings, turns and work: how many. */
  entries: number;
}

/** Two tracks of 48 000 samples of four bytes. */
const BYTES_PER_TAPE_SECOND = 2 * 48_000 * 4;

export async function roomTaken(): Promise<RoomTaken> {
  const sounds = await listRecordings();
  const seconds = await database.tapeSeconds.count();
  return {
    sounds: { count: sounds.length, bytes: sounds.reduce((sum, { bytes }) => sum + bytes, 0) },
    practice: { seconds, bytes: seconds * BYTES_PER_TAPE_SECOND },
    entries: (await database.readings.count()) + (await database.adjustments.count()),
  };
}

/** Erases what was recorded on practice tapes. */
export const letGoOfPracticeTapes = (): Promise<void> => database.tapeSeconds.clear();
