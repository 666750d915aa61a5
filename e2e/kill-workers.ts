import type { Page } from "./test";

/** Remembers every worker that the pages of a window start from now on. @returns what ends them all, as the browser may */
export async function workersToKill(page: Page): Promise<() => Promise<void>> {
  await page.addInitScript(() => {
    const all: Worker[] = [];
    const Real = Worker;
    Object.assign(window, {
      killWorkers: () => all.forEach((worker) => worker.terminate()),
      Worker: class extends Real {
        constructor(...args: ConstructorParameters<typeof Worker>) {
          super(...args);
          all.push(this);
        }
      },
    });
  });
  return () => page.evaluate(() => (window as unknown as { killWorkers(): void }).killWorkers());
}
