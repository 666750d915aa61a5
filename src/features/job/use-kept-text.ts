import { useCallback, useEffect, useRef, useState } from "react";
import { notify } from "@/ui/notify";
import { keepTyped, nowStored, unstored } from "./unstored-text";

/**
 * A text field bound to a stored text: typing is stored a moment later, and at once when the field or the page is left; what
 * another tab stored shows up here as long as nobody types here. What was typed last before the page was killed is there
 * when it opens again.
 * @param key names it among all texts of this browser
 */
export function useKeptText(key: string, stored: string, store: (text: string) => Promise<void>) {
  const [typed, setTyped] = useState(() => unstored(key));
  /** What was stored when typing began, and by it since: until the store has caught up it may still show any of them. */
  const known = useRef<string[]>([]);
  const inStore = useRef(stored);
  const keep = useCallback(
    async (text: string) => {
      const there = inStore.current;
      // another page has written here meanwhile: neither text is lost
      const clash = known.current.length > 0 && !known.current.includes(there) && !text.includes(there);
      const kept = clash ? `${there}\n${text}` : text;
      if (clash)
        notify(
          "This text was changed in another tab meanwhile: both versions are kept, one after the other.",
        );
      known.current.push(kept);
      await store(kept);
      nowStored(key, text);
      setTyped((now) => (now === text ? null : now));
    },
    [key, store],
  );
  const latest = useRef({ typed, keep });
  useEffect(() => {
    latest.current = { typed, keep };
    inStore.current = stored;
    if (typed === null) known.current = [];
  });
  useEffect(() => {
    if (typed === null) return;
    const timer = setTimeout(() => void keep(typed), 400);
    return () => clearTimeout(timer);
  }, [typed, keep]);
  useEffect(() => {
    const flush = () => {
      const { typed: text, keep: toStore } = latest.current;
      if (text !== null) void toStore(text);
    };
    window.addEventListener("pagehide", flush);
    return () => {
      window.removeEventListener("pagehide", flush);
      flush();
    };
  }, []);
  return {
    value: typed ?? stored,
    onChange: ({ target: { value } }: { target: { value: string } }) => {
      if (known.current.length === 0) known.current.push(stored);
      keepTyped(key, value);
      setTyped(value);
    },
    onBlur: () => {
      if (typed !== null) void keep(typed);
    },
  };
}
