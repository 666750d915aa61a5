import { useCallback, useEffect, useRef } from "react";

/** A function that never changes its identity and always does what the latest one does: for memoised children. */
export function useLatest<Arguments extends unknown[], Result>(
  act: (...args: Arguments) => Result,
): (...args: Arguments) => Result {
  const latest = useRef(act);
  useEffect(() => {
    latest.current = act;
  });
  return useCallback((...args: Arguments) => latest.current(...args), []);
}
