import { describe, expect, it } from "vitest";
import { untilGone } from "./until-gone";

const GONE = new Error("gone");
const never = () => new Promise<never>(() => undefined);

describe("what is asked of a worker", () => {
  it("is answered as the worker answers, failures too", async () => {
    const { api } = untilGone({
      twice: (n: number) => Promise.resolve(2 * n),
      refuse: () => Promise.reject(new Error("not that")),
    });
    await expect(api.twice(4)).resolves.toBe(8);
    await expect(api.refuse()).rejects.toThrow("not that");
  });

  it("fails when the worker is gone, before or after it was asked", async () => {
    const { api, gone } = untilGone({ think: never });
    const before = [api.think(), api.think()];
    gone(GONE);
    for (const asked of [...before, api.think()]) await expect(asked).rejects.toBe(GONE);
  });

  it("stays answered when the worker goes later, and only the first reason counts", async () => {
    const { api, gone } = untilGone({ one: () => Promise.resolve(1), think: never });
    const answered = await api.one();
    gone(GONE);
    gone(new Error("again"));
    expect(answered).toBe(1);
    await expect(api.think()).rejects.toBe(GONE);
  });

  it("leaves what is not called by a name alone, and is no promise", async () => {
    const release = Symbol("release");
    let released = false;
    const { api } = untilGone({ [release]: () => (released = true) });
    api[release]();
    expect(released).toBe(true);
    expect(await api).toBe(api);
  });
});
