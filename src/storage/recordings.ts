import { database, type Recording } from "./database";

/** Storage is full: the reading is safe, its sound was not kept. */
export class StorageFullError extends Error {
  override name = "StorageFullError";
}

/** Keeps the sound behind a logged reading. @throws StorageFullError when the browser has no room for it */
export async function keepRecording(recording: Omit<Recording, "bytes">): Promise<void> {
  try {
    await database.recordings.add({ ...recording, bytes: recording.sound.size });
  } catch (error) {
    const { name, inner } = error as Error & { inner?: Error };
    if (name === "QuotaExceededError" || inner?.name === "QuotaExceededError")
      throw new StorageFullError(
        "The reading is logged, but its sound was not kept: the browser's storage is full. Delete old recordings under Sound card, or keep fewer seconds.",
      );
    throw error;
  }
}

/** All recordings without their sound, newest first. */
export async function listRecordings(): Promise<Array<Omit<Recording, "sound">>> {
  const rows: Array<Omit<Recording, "sound">> = [];
  await database.recordings
    .orderBy("at")
    .reverse()
    .each(({ id, jobId, at, seconds, bytes, what }) => {
      rows.push({ id, jobId, at, seconds, bytes, what });
    });
  return rows;
}

export async function deleteRecordings(ids: string[]): Promise<void> {
  await database.recordings.bulkDelete(ids);
}

/** Which recordings to delete: those older than so many days, or the oldest until the rest fits so many bytes. */
export function recordingsToDelete(
  recordings: Array<Pick<Recording, "id" | "at" | "bytes">>,
  rule: { olderThanDays: number; now: Date } | { keepBytes: number },
): string[] {
  if ("olderThanDays" in rule) {
    const limit = new Date(rule.now.getTime() - rule.olderThanDays * 86_400_000).toISOString();
    return recordings.filter(({ at }) => at < limit).map(({ id }) => id);
  }
  let kept = 0;
  return recordings
    .toSorted((a, b) => b.at.localeCompare(a.at))
    .filter(({ bytes }) => (kept += bytes) > rule.keepBytes)
    .map(({ id }) => id);
}
