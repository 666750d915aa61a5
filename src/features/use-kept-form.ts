import { useEffect, useState } from "react";
import { dropDraft, readDraft, saveDraft } from "@/storage/drafts";

/**
 * A form whose texts are kept while they are typed, so that a reload or a crash loses nothing.
 * @param draftId names what is being typed
 * @param begin what the form holds when nothing was kept
 */
export function useKeptForm<Form extends object>(draftId: string, begin: () => Form) {
  const [form, setForm] = useState(begin);
  useEffect(() => {
    void readDraft(draftId).then((draft) => draft && setForm((form) => ({ ...form, ...draft })));
  }, [draftId]);
  return {
    form,
    change: (changes: Partial<Form>) => {
      const next = { ...form, ...changes };
      setForm(next);
      void saveDraft(draftId, next);
    },
    /** It was saved or thrown away: nothing is kept any more. */
    leave: () => void dropDraft(draftId),
  };
}
