/** The function, not worked out again while it is asked with the very same things as the last time. */
export function rememberLast<Args extends readonly unknown[], Result>(
  work: (...args: Args) => Result,
): (...args: Args) => Result {
  let last: { args: Args; result: Result } | null = null;
  return (...args) => {
    if (last === null || args.some((one, i) => one !== last!.args[i])) last = { args, result: work(...args) };
    return last.result;
  };
}
