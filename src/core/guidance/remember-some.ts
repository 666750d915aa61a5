/** The function of a key, worked out once for each of the last few keys that were asked for. */
export function rememberSome<Arg, Result>(
  keyOf: (arg: Arg) => string,
  work: (arg: Arg) => Result,
  most = 12,
): (arg: Arg) => Result {
  const known = new Map<string, Result>();
  return (arg) => {
    const key = keyOf(arg);
    const before = known.get(key);
    if (before !== undefined) return before;
    const result = work(arg);
    known.set(key, result);
    if (known.size > most) known.delete(known.keys().next().value!);
    return result;
  };
}
