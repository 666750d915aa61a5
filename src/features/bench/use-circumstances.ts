import { useEffect, useState } from "react";
import type { Circumstances } from "@/core/alignment/records";
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
  if (!practice) return [chosen, change];
  const { side, key } = practice.deck;
  const second = (side === 1) !== (key === "reverse");
  return [{ ...chosen, side: second ? "B" : "A" }, change];
}
