import { useEffect, useRef, useState } from "react";

const SHOWN_EVERY_MS = 100;

/** A watch that is started and stopped by hand; it runs by the clock of the computer, whatever the page does meanwhile. */
export function useWatch() {
  const [runs, setRuns] = useState(false);
  const [shown, show] = useState(0);
  const began = useRef<number | null>(null);
  const held = useRef(0);
  const now = () => held.current + (began.current === null ? 0 : (performance.now() - began.current) / 1000);
  const stop = () => {
    held.current = now();
    began.current = null;
    setRuns(false);
    show(held.current);
  };
  useEffect(() => {
    if (!runs) return;
    const timer = setInterval(() => {
      if (began.current !== null) show((performance.now() - began.current) / 1000);
    }, SHOWN_EVERY_MS);
    return () => clearInterval(timer);
  }, [runs]);
  return {
    runs,
    /** Seconds as they stand. */
    shown,
    toggle: () => {
      if (runs) return stop();
      held.current = 0;
      began.current = performance.now();
      setRuns(true);
    },
    stop,
    /** What it was stopped at, to a tenth; null when it never ran. */
    seconds: (): number | null => (held.current > 0 ? Math.round(10 * held.current) / 10 : null),
    clear: () => {
      held.current = 0;
      began.current = null;
      setRuns(false);
      show(0);
    },
  };
}
