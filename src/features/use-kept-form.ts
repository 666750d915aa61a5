import { useEffect, useState } from "react";
import { dropDraft, readDraft, saveDraft } from "@/storage/drafts";

/** What is kept of a form: what was typed, and what it began from. */
interface Draft<Form> {
  form: Form;
  begunFrom: string;
}

const isDraft = <Form>(kept: unknown): kept is Draft<Form> =>
  typeof kept === "object" && kept !== null && "begunFrom" in kept && "form" in kept;

/** A draft that was begun from a record as it is no more: it is not taken over that without asking. */
export interface OldDraft {
  use(): void;
  discard(): void;
}

/**
 * A form whose texts are kept while they are typed, so that a reload or a crash loses nothing.
 * @param draftId names what is being typed
 * @param begin what the form holds when nothing was kept
 */
export function useKeptForm<Form extends object>(draftId: string, begin: () => Form) {
  const [form, setForm] = useState(begin);
  const [begunFrom] = useState(() => JSON.stringify(begin()));
  const [old, setOld] = useState<Form | null>(null);
  useEffect(() => {
    let gone = false;
    void readDraft(draftId).then((kept) => {
      if (gone || !kept) return;
      // drafts of earlier versions do not say what they began from
      const draft = isDraft<Form>(kept) ? kept : { form: kept as Form, begunFrom: "" };
      if (draft.begunFrom === begunFrom) setForm((now) => ({ ...now, ...draft.form }));
      else if (JSON.stringify({ ...begin(), ...draft.form }) !== begunFrom) setOld(draft.form);
    });
    return () => {
      gone = true;
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- what the form begins from is asked once
  }, [draftId, begunFrom]);
  const keep = (next: Form) => {
    setForm(next);
    void saveDraft(draftId, { form: next, begunFrom } satisfies Draft<Form>);
  };
  const oldDraft: OldDraft | null = old && {
    use: () => {
      keep({ ...form, ...old });
      setOld(null);
    },
    discard: () => {
      setOld(null);
      void dropDraft(draftId);
    },
  };
  return {
    form,
    oldDraft,
    change: (changes: Partial<Form>) => keep({ ...form, ...changes }),
    /** It was saved or discarded: nothing is kept any more. */
    leave: () => void dropDraft(draftId),
  };
}
