import { useEffect, useMemo, useState } from "react";
import { SWITCHES } from "@/core/records/machine";
import type { Circumstances } from "@/core/records/reading";
import { reverses, type DeckStatus } from "@/core/simulator/deck-status";
import { readDraft, saveDraft } from "@/storage/drafts";
import type { ListenerState } from "./listening/use-listener";

/** What was chosen, and in which draft it is kept. */
interface ChoiceOf {
  id: string;
  choice: Circumstances;
}

/** Side, place on the reel and supply, as chosen on the bench, and whether what was chosen before is read; the practice deck reports its side. */
export function useCircumstances(
  jobId: string,
  practice: ListenerState["practice"],
): [Circumstances, (changed: Circumstances) => void, known: boolean] {
  const id = `circumstances-${jobId}`;
  const [kept, setKept] = useState<ChoiceOf | null>(null);
  const [said, say] = useState<ChoiceOf | null>(null);
  useEffect(() => {
    let gone = false;
    void readDraft(id).then((read) => gone || setKept({ id, choice: (read ?? {}) as Circumstances }));
    return () => {
      gone = true;
    };
  }, [id]);
  const before = kept?.id === id ? kept.choice : null;
  const now = said?.id === id ? said.choice : null;
  // what was chosen before the kept choice was back stands, with all else that was kept
  const chosen = useMemo((): Circumstances => ({ ...before, ...now }), [before, now]);
  useEffect(() => {
    if (before && now) void saveDraft(id, chosen);
  }, [id, before, now, chosen]);
  const side = practice && sideOf(practice.deck);
  const switched = practice ? onIn(practice.deck).join() : null;
  const known = useMemo(() => {
    const withSide = side ? { ...chosen, side } : chosen;
    return switched === null
      ? withSide
      : { ...withSide, switchedOn: SWITCHES.filter((one) => switched.split(",").includes(one)) };
  }, [chosen, side, switched]);
  return [known, (choice) => say({ id, choice }), before !== null];
}

const onIn = ({ switches }: DeckStatus) => SWITCHES.filter((one) => switches[one]);

const sideOf = ({ side, key }: DeckStatus): "A" | "B" => ((side === 1) !== reverses(key) ? "B" : "A");
