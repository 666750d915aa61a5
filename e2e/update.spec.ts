import { Agent, createServer, request, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import { expect, test } from "./test";

/** Passes everything on to the server of the tests, with a line more in the service worker for each version that was made. */
async function newerWhenAsked(
  behind: string,
): Promise<{ server: Server; address: string; makeNewer(): void }> {
  let version = 1;
  const agent = new Agent({ keepAlive: true });
  const server = createServer((asked, answer) => {
    const isWorker = asked.url === "/service-worker.js";
    // the whole of it as it is, even to whoever has it: what is added is new
    const passed = isWorker ? {} : asked.headers;
    request(new URL(asked.url ?? "/", behind), { method: asked.method, headers: passed, agent }, (found) => {
      const headers = { ...found.headers };
      if (isWorker) for (const name of ["content-length", "etag", "last-modified"]) delete headers[name];
      answer.writeHead(found.statusCode ?? 502, headers);
      if (!isWorker) return found.pipe(answer);
      found.pipe(answer, { end: false });
      found.on("end", () => answer.end(`\n// ${version}`));
    })
      .on("error", () => answer.destroy())
      .end();
  });
  await new Promise<void>((listening) => server.listen(0, "localhost", listening));
  const { port } = server.address() as AddressInfo;
  return { server, address: `http://localhost:${port}`, makeNewer: () => void version++ };
}

test("a newer version is offered, changes nothing by itself, and is loaded when it is asked for", async ({
  browser,
  baseURL,
}) => {
  const { server, address, makeNewer } = await newerWhenAsked(baseURL!);
  const context = await browser.newContext({ baseURL: address, serviceWorkers: "allow" });
  try {
    const page = await context.newPage();
    await page.goto("/");
    await expect(page.getByRole("article")).toHaveCount(4);
    await page.evaluate(async () => void (await navigator.serviceWorker.ready));
    await expect.poll(() => page.evaluate(() => navigator.serviceWorker.controller !== null)).toBe(true);
    const offer = page.getByRole("alert").filter({ hasText: "A newer Unzel is here" });
    await expect(offer).toHaveCount(0);

    await page.evaluate(() => document.body.setAttribute("data-from-before", ""));
    makeNewer();
    await page.evaluate(async () => void (await (await navigator.serviceWorker.getRegistration())?.update()));
    await expect(offer).toBeVisible();
    await expect(page.locator("body")).toHaveAttribute("data-from-before", "");

    await offer.getByRole("button", { name: "Load it" }).click();
    await expect(page.locator("body")).not.toHaveAttribute("data-from-before", "");
    await expect(page.getByRole("article")).toHaveCount(4);
    await expect(offer).toHaveCount(0);
    const waiting = () =>
      page.evaluate(async () => (await navigator.serviceWorker.getRegistration())?.waiting?.state ?? "none");
    expect(await waiting()).toBe("none");
  } finally {
    await context.close();
    server.closeAllConnections();
    server.close();
  }
});
