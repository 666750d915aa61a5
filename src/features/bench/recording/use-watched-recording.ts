import { useEffect, useRef, useState } from "react";
import * as z from "@/core/text/zod";
import { recordingRunSchema } from "@/core/records/recording-run";
import { dropDraft, readDraft, saveDraft } from "@/storage/drafts";
import type { KeptRun } from "@/workers/listener-api";
import { useLatest } from "@/ui/use-latest";
import type { ListenerState } from "../listening/use-listener";

const keptSchema = z.object({
  run: recordingRunSchema,
  source: z.enum(["practice", "sound card"]),
  heardAt: z.number(),
});

/** A run that nobody has listened to for longer is over. */
const LONGEST_AWAY_MS = 30 * 60_000;
const KEEP_EVERY_MS = 1000;

/**
 * The recording that is watched, across a page that is loaded anew: it is kept while it runs, and the source that it came
 * from is started again by itself.
 * @param watches whether the station watches one
 * @returns what to ask the source for; null for no watching, or before it is known what was watched before
 */
export function useWatchedRecording(
  jobId: string,
  watches: boolean,
  listener: ListenerState,
): { from: KeptRun | null } | null {
  const id = `watched-recording-${jobId}`;
  const [wanted, setWanted] = useState<{ from: KeptRun | null } | null>(null);
  const { kind, heard, starting } = listener;
  const isRunning = useLatest(() => kind !== null || starting);
  const startAgain = useLatest(async (source: "practice" | "sound card") => {
    if (source === "sound card") return listener.startSoundCard();
    const condition = await listener.keptCondition();
    if (condition) await listener.startPractice(condition);
  });

  useEffect(() => {
    if (!watches) return;
    let gone = false;
    const take = async () => {
      const kept = keptSchema.safeParse(await readDraft(id)).data;
      if (gone) return;
      if (!kept || Date.now() - kept.heardAt > LONGEST_AWAY_MS) return setWanted({ from: null });
      const { run, source, heardAt } = kept;
      const runs = isRunning();
      // the practice machine stands still while the page is away
      setWanted({ from: { run, heardAt: source === "practice" && !runs ? null : heardAt } });
      if (!runs) void startAgain(source);
    };
    void take();
    return () => {
      gone = true;
      setWanted(null);
    };
  }, [id, watches, startAgain, isRunning]);

  const run = heard?.recording ?? null;
  const keptAt = useRef(0);
  useEffect(() => {
    if (!watches || !run || (kind !== "practice" && kind !== "sound card")) return;
    const now = Date.now();
    if (now - keptAt.current < KEEP_EVERY_MS) return;
    keptAt.current = now;
    void saveDraft(id, { run, source: kind, heardAt: now });
  }, [id, watches, run, kind]);

  // who switches the source off has done with it
  const ran = useRef(false);
  useEffect(() => {
    if (ran.current && kind === null && !listener.lost) void dropDraft(id);
    ran.current = kind !== null;
  }, [id, kind, listener.lost]);
  return wanted;
}
