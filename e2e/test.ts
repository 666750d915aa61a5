import { test as base, type BrowserContext, type BrowserContextOptions } from "@playwright/test";

export * from "@playwright/test";

interface OfATest {
  /** A browser of its own for what cannot be taken back in a page that is closed: a clock that was set, a service worker. */
  ownBrowser: boolean;
}

interface OfAWorker {
  /** One browser window for the tests of a worker: what it has fetched and compiled is there for the next one. */
  lasting: BrowserContext;
}

/** Everything that a page keeps; what the browser keeps of the application's scripts stays. */
const KEPT = "cookies,file_systems,indexeddb,local_storage,service_workers,cache_storage";

/** Tests that find a browser without any data, though not one that has never seen the application's scripts. */
export const test = base.extend<OfATest, OfAWorker>({
  ownBrowser: [false, { option: true }],
  lasting: [
    async ({ browser }, give, { project }) => {
      const { viewport, baseURL, acceptDownloads, serviceWorkers } = project.use;
      const options: BrowserContextOptions = { viewport, baseURL, acceptDownloads, serviceWorkers };
      const context = await browser.newContext(options);
      // a page that stays keeps the process that shows pages of this address, and what it has compiled
      await (await context.newPage()).goto("/icon.svg");
      await give(context);
      await context.close();
    },
    { scope: "worker" },
  ],
  context: async ({ ownBrowser, lasting, browser, actionTimeout }, give) => {
    if (ownBrowser) {
      const own = await browser.newContext();
      await give(own);
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
