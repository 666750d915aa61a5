import { useEffect, useMemo, useState } from "react";
import type { Circumstances } from "@/core/records/reading";
import type { DeckStatus } from "@/core/simulator/practice-deck";
import { readDraft, saveDraft } from "@/storage/drafts";
import type { ListenerState } from "./use-listener";

/** Side, place on the reel and supply, as chosen on the bench; the practice deck knows its side by itself. */
export function useCircumstances(
  jobId: string,
  practice: ListenerState["practice"],
): [Circumstances, (changed: Circumstances) => void] {
  const [chosen, setChosen] = useState<Circumstances>({});
  const id = `circumstances-${jobId}`;
  useEffect(() => {
    void readDraft(id).then((kept) => kept && setChosen(kept as Circumstances));
  }, [id]);
  const change = (changed: Circumstances) => {
    setChosen(changed);
    void saveDraft(id, changed);
  };
  const side = practice && sideOf(practice.deck);
  const known = useMemo(() => (side ? { ...chosen, side } : chosen), [chosen, side]);
  return [known, change];
}

const sideOf = ({ side, key }: DeckStatus): "A" | "B" => ((side === 1) !== (key === "reverse") ? "B" : "A");
