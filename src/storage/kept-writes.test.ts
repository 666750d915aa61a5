import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { WriteQueue } from "./kept-writes";

const full = () => Object.assign(new Error("no room"), { name: "QuotaExceededError" });

beforeEach(() => {
  vi.useFakeTimers();
});
afterEach(() => {
  vi.useRealTimers();
});

describe("writes that the storage refuses", () => {
  it("are told, kept in their order, and stored when there is room again", async () => {
    const queue = new WriteQueue();
    let room = false;
    const stored: string[] = [];
    const write = (what: string) =>
      queue.write(what, async () => {
        if (!room) throw full();
        stored.push(what);
      });
    let told = 0;
    queue.subscribe(() => told++);
    const both = Promise.all([write("a reading"), write("a turn")]);
    await vi.advanceTimersByTimeAsync(100);
    expect(queue.now()).toMatchObject({ what: "a reading", count: 2 });
    expect(queue.now()!.why).toMatch(/full.*free disk space/);
    expect(told).toBeGreaterThan(0);
    await vi.advanceTimersByTimeAsync(5000);
    expect(stored).toEqual([]);
    room = true;
    await vi.advanceTimersByTimeAsync(2100);
    await both;
    expect(stored).toEqual(["a reading", "a turn"]);
    expect(queue.now()).toBeNull();
  });

  it("are tried at once when somebody asks for it", async () => {
    const queue = new WriteQueue();
    const run = vi.fn<() => Promise<void>>().mockRejectedValueOnce(full()).mockResolvedValue(undefined);
    const done = queue.write("a tick", run);
    await vi.advanceTimersByTimeAsync(10);
    queue.again();
    await done;
    expect(run).toHaveBeenCalledTimes(2);
  });

  it("a later writing of the same thing takes the place of one that waits; both are answered", async () => {
    const queue = new WriteQueue();
    const stored: number[] = [];
    let room = false;
    const draft = (n: number) =>
      queue.write(
        "what is typed",
        async () => {
          if (!room) throw full();
          stored.push(n);
        },
        { place: "draft" },
      );
    const all = Promise.all([draft(1), draft(2), draft(3)]);
    await vi.advanceTimersByTimeAsync(10);
    room = true;
    queue.again();
    await all;
    // the first was under way when the others came
    expect(stored).toEqual([1, 3]);
  });

  it("keep nothing of another kind waiting, are named, and can be discarded", async () => {
    const queue = new WriteQueue();
    const picture = queue.write("a picture", () => Promise.reject(full()), { kind: "pictures" });
    const discarded = expect(picture).rejects.toThrow(/discarded/);
    await vi.advanceTimersByTimeAsync(10);
    await queue.write("a reading", () => Promise.resolve(), { kind: "logged" });
    expect(queue.now()).toMatchObject({ count: 1, each: [{ kind: "pictures", what: "a picture" }] });
    queue.discard("pictures");
    await discarded;
    await vi.advanceTimersByTimeAsync(10);
    expect(queue.now()).toBeNull();
  });

  it("are kept elsewhere as soon as they wait, also those that come after", async () => {
    const queue = new WriteQueue();
    const waits = vi.fn<() => void>();
    let room = false;
    const write = () =>
      queue.write("a reading", () => (room ? Promise.resolve() : Promise.reject(full())), { waits });
    const first = write();
    await vi.advanceTimersByTimeAsync(10);
    const second = write();
    expect(waits).toHaveBeenCalledTimes(2);
    room = true;
    queue.again();
    await Promise.all([first, second]);
    await write();
    expect(waits).toHaveBeenCalledTimes(2);
  });

  it.each([
    ["a bulk", { name: "BulkError", failures: [full()] }],
    ["a transaction given up", { name: "AbortError", inner: full() }],
  ])("%s names its cause", async (_, fields) => {
    const queue = new WriteQueue();
    void queue.write("a reading", () => Promise.reject(Object.assign(new Error("x"), fields)));
    await vi.advanceTimersByTimeAsync(10);
    expect(queue.now()!.why).toMatch(/is full/);
  });

  it("a storage that does not answer is told within two seconds", async () => {
    const queue = new WriteQueue();
    void queue.write("a reading", () => new Promise(() => {}));
    await vi.advanceTimersByTimeAsync(2000);
    expect(queue.now()).toMatchObject({ what: "a reading", count: 1, why: null });
  });

  it("what is wrong in itself is refused, and does not hold up the others", async () => {
    const queue = new WriteQueue();
    const wrong = Object.assign(new Error("twice"), { name: "ConstraintError" });
    const refused = expect(queue.write("a reading", () => Promise.reject(wrong))).rejects.toBe(wrong);
    await queue.write("a turn", () => Promise.resolve());
    await refused;
    expect(queue.now()).toBeNull();
  });
});
