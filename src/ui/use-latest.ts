import { useCallback, useEffect, useRef, useState } from "react";

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

/** The same for all the functions of an object, which keeps its identity too. */
export function useLatestOf<Functions extends object>(functions: Functions): Functions {
  const latest = useRef(functions);
  useEffect(() => {
    latest.current = functions;
  });
  const [lasting] = useState(() => {
    const doLatest =
      (name: string) =>
      (...args: unknown[]) =>
        (latest.current as Record<string, (...args: unknown[]) => unknown>)[name](...args);
    return Object.fromEntries(Object.keys(functions).map((name) => [name, doLatest(name)])) as Functions;
  });
  return lasting;
}
