import { createServer, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import { expect, test } from "@playwright/test";

/** Passes everything on to the server of the tests, but for a version of the service worker that can be made newer. */
async function newerWhenAsked(
  behind: string,
): Promise<{ server: Server; address: string; makeNewer(): void }> {
  let version = 1;
  const server = createServer((request, response) => {
    const pass = async () => {
      const answer = await fetch(new URL(request.url ?? "/", behind), { redirect: "manual" });
      const body = Buffer.from(await answer.arrayBuffer());
      // the body comes unpacked
      const headers = [...answer.headers].filter(
        ([name]) => !["content-encoding", "content-length", "transfer-encoding"].includes(name),
      );
      response.writeHead(answer.status, Object.fromEntries(headers));
      response.end(
        request.url === "/service-worker.js" ? Buffer.concat([body, Buffer.from(`\n// ${version}`)]) : body,
      );
    };
    pass().catch(() => response.writeHead(502).end());
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
  const context = await browser.newContext({ baseURL: address });
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
    server.close();
  }
});
