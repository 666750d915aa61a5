import { useEffect, type RefObject } from "react";
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

/** A list that was chosen from gives the focus back to the bench, so that the next key is no choice in that list. */
export function useFocusBack(bench: RefObject<HTMLElement | null>): void {
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
