import { useEffect, useMemo, useState } from "react";
import { SWITCHES } from "@/core/records/machine";
import type { Circumstances } from "@/core/records/reading";
import { reverses, type DeckStatus } from "@/core/simulator/deck-status";
import { readDraft, saveDraft } from "@/storage/drafts";
import type { ListenerState } from "./use-listener";

/** Side, place on the reel and supply, as chosen on the bench; the practice deck knows its side by itself. */
export function useCircumstances(
  jobId: string,
  practice: ListenerState["practice"],
): [Circumstances, (changed: Circumstances) => void] {
  const [before, setBefore] = useState<Circumstances | null>(null);
  const [said, say] = useState<Circumstances | null>(null);
  const id = `circumstances-${jobId}`;
  useEffect(() => {
    let gone = false;
    void readDraft(id).then((kept) => gone || setBefore((kept ?? {}) as Circumstances));
    return () => {
      gone = true;
    };
  }, [id]);
  // what was chosen before the kept choice was back stands, with all else that was kept
  const chosen = useMemo((): Circumstances => ({ ...before, ...said }), [before, said]);
  useEffect(() => {
    if (before && said) void saveDraft(id, chosen);
  }, [id, before, said, chosen]);
  const side = practice && sideOf(practice.deck);
  const switched = practice ? onIn(practice.deck).join() : null;
  const known = useMemo(() => {
    const said = side ? { ...chosen, side } : chosen;
    return switched === null
      ? said
      : { ...said, switchedOn: SWITCHES.filter((one) => switched.split(",").includes(one)) };
  }, [chosen, side, switched]);
  return [known, say];
}

const onIn = ({ switches }: DeckStatus) => SWITCHES.filter((one) => switches[one]);

const sideOf = ({ side, key }: DeckStatus): "A" | "B" => ((side === 1) !== reverses(key) ? "B" : "A");
