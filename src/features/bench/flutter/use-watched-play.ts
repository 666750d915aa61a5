import { useEffect, useState } from "react";
import * as z from "@/core/text/zod";
import type { WatchedBefore } from "@/core/measure/watch-log";
import { watchSchema } from "@/core/records/runs";
import { dropDraft, readDraft, saveDraft } from "@/storage/drafts";
import type { ListenerState } from "../listening/use-listener";

const keptSchema = z.object({
  track: watchSchema.omit({ id: true, jobId: true, at: true, label: true }),
  source: z.enum(["practice", "sound card"]),
  heardAt: z.number(),
});

/** A run that nobody has listened to for longer is over. */
const LONGEST_AWAY_MS = 60 * 60_000;

/** A long play that is watched, kept while it runs, so that it goes on after the page or the source was away. */
export function useWatchedPlay(jobId: string, { watch, watching, kind, startWatch }: ListenerState) {
  const id = `watched-play-${jobId}`;
  const [before, setBefore] = useState<z.infer<typeof keptSchema> | null>(null);
  useEffect(() => {
    let gone = false;
    if (!watching)
      void readDraft(id).then((draft) => {
        const kept = keptSchema.safeParse(draft).data;
        if (!gone) setBefore(kept && Date.now() - kept.heardAt < LONGEST_AWAY_MS ? kept : null);
      });
    return () => {
      gone = true;
    };
  }, [id, watching]);
  useEffect(() => {
    if (!watching || !watch || (kind !== "practice" && kind !== "sound card")) return;
    void saveDraft(id, { track: watch, source: kind, heardAt: Date.now() });
  }, [id, watch, watching, kind]);
  return {
    /** A run from before, that can be gone on with; null for none. */
    before,
    goOn: () => {
      if (!before) return;
      const { track, source, heardAt } = before;
      // the practice machine stands still while the page is away
      const missedSeconds = source === "practice" ? 0 : (Date.now() - heardAt) / 1000;
      const from: WatchedBefore = { track, missedSeconds };
      startWatch(from);
    },
    forget: () => dropDraft(id).then(() => setBefore(null)),
  };
}
