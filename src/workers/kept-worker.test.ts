import { expect, it } from "vitest";
import { KeptWorker } from "./kept-worker";
import type { WorkerOf } from "./start-worker";

interface Named {
  name(): number;
}

/** Workers that are counted, and can be made to die. */
function counted() {
  const dying: Array<() => void> = [];
  const ended: number[] = [];
  const start = (): WorkerOf<Named> => {
    const number = dying.length + 1;
    const died = new Promise<never>((_, reject) => dying.push(() => reject(new Error("gone"))));
    died.catch(() => undefined);
    const api = { name: async () => number } as WorkerOf<Named>["api"];
    return { api, died, end: () => void ended.push(number) };
  };
  return { worker: new KeptWorker(start), dying, ended };
}

it("is begun when it is needed, and stays", async () => {
  const { worker, dying } = counted();
  expect(worker.begun).toBeNull();
  expect(await worker.api.name()).toBe(1);
  expect(await worker.api.name()).toBe(1);
  expect(worker.begun).toBe(worker.api);
  expect(dying).toHaveLength(1);
});

it("is another one after it died or was ended", async () => {
  const { worker, dying, ended } = counted();
  await worker.api.name();
  dying[0]();
  await expect.poll(() => worker.begun).toBeNull();
  expect(await worker.api.name()).toBe(2);
  worker.end();
  expect(await worker.api.name()).toBe(3);
  expect(ended).toEqual([1, 2]);
});

it("one that died long after it was replaced ends nothing", async () => {
  const { worker, dying, ended } = counted();
  await worker.api.name();
  worker.end();
  await worker.api.name();
  dying[0]();
  await Promise.resolve();
  expect(await worker.api.name()).toBe(2);
  expect(ended).toEqual([1]);
});
