import { useEffect, useRef, useState } from "react";

/**
 * A text field bound to a stored text: typing is stored a moment later, and at once when the field or the page is left; what
 * another tab stored shows up here as long as nobody types here.
 */
export function useKeptText(stored: string, store: (text: string) => Promise<void>) {
  const [typed, setTyped] = useState<string | null>(null);
  const latest = useRef({ typed, store });
  useEffect(() => {
    latest.current = { typed, store };
  });
  useEffect(() => {
    if (typed === null) return;
    const timer = setTimeout(
      () => void store(typed).then(() => setTyped((now) => (now === typed ? null : now))),
      400,
    );
    return () => clearTimeout(timer);
  }, [typed, store]);
  useEffect(() => {
    const flush = () => {
      const { typed: text, store: keep } = latest.current;
      if (text !== null) void keep(text);
    };
    window.addEventListener("pagehide", flush);
    return () => {
      window.removeEventListener("pagehide", flush);
      flush();
    };
  }, []);
  return {
    value: typed ?? stored,
    onChange: (event: { target: { value: string } }) => setTyped(event.target.value),
    onBlur: () => {
      if (typed !== null) void store(typed).then(() => setTyped((now) => (now === typed ? null : now)));
    },
  };
}
