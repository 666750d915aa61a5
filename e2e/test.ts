import { mkdtemp, rm } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { test as base, type BrowserContext, type BrowserContextOptions } from "@playwright/test";

export * from "@playwright/test";

interface OfATest {
  /** A browser of its own for what cannot be taken back in a page that is closed: a clock that was set, a service worker. */
  ownBrowser: boolean;
}

interface OfAWorker {
  /**
   * One browser window for the tests of a worker, with a folder of its own: of what has no folder, Chromium compiles
   * every script anew each time a page is opened.
   */
  lasting: BrowserContext;
}

/** Everything that a page keeps; what the browser keeps of the application's scripts stays. */
const KEPT = "cookies,file_systems,indexeddb,local_storage,service_workers,cache_storage";

/** Tests that find a browser without any data, though not one that has never seen the application's scripts. */
export const test = base.extend<OfATest, OfAWorker>({
  ownBrowser: [false, { option: true }],
  lasting: [
    async ({ playwright, launchOptions }, give, { project }) => {
      const { viewport, baseURL, acceptDownloads, serviceWorkers, contextOptions } = project.use;
      const options: BrowserContextOptions = { viewport, baseURL, acceptDownloads, serviceWorkers };
      const folder = await mkdtemp(join(tmpdir(), "unzel-browser-"));
      const context = await playwright.chromium.launchPersistentContext(folder, {
        ...launchOptions,
        ...contextOptions,
        ...options,
      });
      // a page that stays keeps the process that shows pages of this address, and what it has compiled
      await context.pages()[0].goto("/icon.svg");
      await give(context);
      await context.close();
      await rm(folder, { recursive: true, force: true });
    },
    { scope: "worker" },
  ],
  context: async ({ ownBrowser, lasting, playwright, launchOptions, actionTimeout }, give) => {
    if (ownBrowser) {
      const own = await playwright.chromium.launch(launchOptions);
      await give(await own.newContext());
      await own.close();
      return;
    }
    lasting.setDefaultTimeout(actionTimeout);
    const [staying] = lasting.pages();
    await give(lasting);
    await Promise.all(lasting.pages().map((page) => page !== staying && page.close()));
  },
  page: async ({ context, ownBrowser, viewport, baseURL }, give) => {
    const page = await context.newPage();
    if (!ownBrowser) {
      if (viewport) await page.setViewportSize(viewport);
      const session = await context.newCDPSession(page);
      await session.send("Storage.clearDataForOrigin", {
        origin: new URL(baseURL!).origin,
        storageTypes: KEPT,
      });
      await session.detach();
    }
    await give(page);
  },
});
