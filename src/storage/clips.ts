import { database, type Recording } from "./database";
import { newId } from "./jobs";
import { keepRecording } from "./recordings";

/** What half-minutes are kept of, to be compared by ear. */
export const CLIP_KINDS = ["as found", "as left", "source", "tape"] as const;
export type ClipKind = (typeof CLIP_KINDS)[number];

const whatOf = (kind: ClipKind) => `listening, ${kind}`;

/** The newest half-minute of each kind that a job has. */
export async function clipsOf(jobId: string): Promise<Partial<Record<ClipKind, Recording>>> {
  const all = await database.recordings.where("jobId").equals(jobId).sortBy("at");
  return Object.fromEntries(
    CLIP_KINDS.flatMap((kind) => {
      const newest = all.findLast(({ what }) => what === whatOf(kind));
      return newest ? [[kind, newest]] : [];
    }),
  );
}

/** Keeps a half-minute; the one of its kind before it goes. @throws StorageFullError where there is no room */
export async function keepClip(
  jobId: string,
  kind: ClipKind,
  clip: { wav: Uint8Array; seconds: number },
): Promise<void> {
  const before = (await clipsOf(jobId))[kind];
  await keepRecording({
    id: newId(),
    jobId,
    at: new Date().toISOString(),
    seconds: clip.seconds,
    what: whatOf(kind),
    sound: new Blob([clip.wav as Uint8Array<ArrayBuffer>], { type: "audio/wav" }),
  });
  if (before) await database.recordings.delete(before.id);
}
