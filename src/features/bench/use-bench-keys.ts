import { useEffect, useRef, type RefObject } from "react";
import { useHotkeys } from "react-hotkeys-hook";
import { onControl } from "./bench-focus";

/** What stands over the bench, or is being chosen from: it holds the focus from when it opens until it begins to close. */
const OVER_THE_BENCH = ".MuiModal-root";

/** Single keys of the bench. A held key acts once; none acts while a dialog or a list is open. */
export function useBenchKeys(actions: Record<string, () => void>): void {
  useHotkeys("*", (event) => {
    const action = actions[event.key.length === 1 ? event.key.toLowerCase() : event.key];
    if (!action || event.ctrlKey || event.metaKey || event.altKey || onControl(event)) return;
    if (document.activeElement?.closest(OVER_THE_BENCH)) return;
    event.preventDefault();
    if (!event.repeat) action();
  });
}

/**
 * What was opened over the bench gives the focus back to it, so that the next key is the bench's: a list that was chosen
 * from, in which it would be a choice, and a dialog that was opened by a key, from nowhere in particular.
 * @param dialog whether such a dialog is open
 */
export function useFocusBack(bench: RefObject<HTMLElement | null>, dialog: boolean): void {
  const wasOpen = useRef(false);
  useEffect(() => {
    if (wasOpen.current && !dialog) bench.current?.focus({ preventScroll: true });
    wasOpen.current = dialog;
  }, [bench, dialog]);
  useEffect(() => {
    const givenBack = ({ target, relatedTarget }: FocusEvent) => {
      const fromList =
        relatedTarget instanceof Element && relatedTarget.closest("[role=listbox], [role=menu]");
      if (fromList && target instanceof Element && target.matches("[role=combobox]"))
        queueMicrotask(() => bench.current?.focus({ preventScroll: true }));
    };
    document.addEventListener("focusin", givenBack);
    return () => document.removeEventListener("focusin", givenBack);
  }, [bench]);
}
