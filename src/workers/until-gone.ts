/** Calls of a worker, each of which fails when the worker is gone: what is asked of the dead is never answered. */
export interface UntilGone<Remote> {
  api: Remote;
  /** The worker is gone: what was asked and is asked from now on fails with this. */
  gone(why: Error): void;
}

/**
 * @param remote methods that answer with promises; what is not called by a name (a symbol) is left as it is
 */
export function untilGone<Remote extends object>(remote: Remote): UntilGone<Remote> {
  const waiting = new Set<(why: Error) => void>();
  let dead: Error | null = null;
  const asked = (ask: (...all: unknown[]) => Promise<unknown>, all: unknown[]) => {
    const answer = new Promise((resolve, reject) => {
      if (dead) return reject(dead);
      waiting.add(reject);
      ask(...all)
        .then(resolve, reject)
        .finally(() => waiting.delete(reject));
    });
    // where nobody waits for the answer nobody has to hear that there is none
    answer.catch(() => undefined);
    return answer;
  };
  const api = new Proxy(remote, {
    get: (target, name) => {
      const there: unknown = Reflect.get(target, name);
      // a promise is told by this name, and this is none
      if (typeof name === "symbol" || name === "then") return there;
      return (...all: unknown[]) => asked(there as (...all: unknown[]) => Promise<unknown>, all);
    },
  });
  return {
    api,
    gone: (why) => {
      dead ??= why;
      for (const reject of waiting) reject(dead);
      waiting.clear();
    },
  };
}
