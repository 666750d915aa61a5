import { spawn, type ChildProcess } from "node:child_process";
import { mkdtemp, readFile, rm } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { chromium, expect, test, type BrowserContext } from "./test";
import { BenchHands } from "./bench-hands";
import { PAGES } from "./pages";

const PORT = 3219;
const ADDRESS = `http://localhost:${PORT}`;

/** A server of its own, that can be stopped. */
async function serve(): Promise<ChildProcess> {
  const server = spawn("node_modules/.bin/next", ["start", "--port", String(PORT)], {
    env: { ...process.env, UNZEL_DEMO: "1", NEXT_TELEMETRY_DISABLED: "1" },
    stdio: "ignore",
  });
  await expect
    .poll(() =>
      fetch(ADDRESS).then(
        ({ ok }) => ok,
        () => false,
      ),
    )
    .toBe(true);
  return server;
}

async function stop(server: ChildProcess): Promise<void> {
  server.kill("SIGKILL");
  await expect
    .poll(() =>
      fetch(ADDRESS).then(
        () => true,
        () => false,
      ),
    )
    .toBe(false);
}

test("after one visit everything opens without the server, also after the browser was closed", async ({}, {
  project,
}) => {
  const folder = await mkdtemp(join(tmpdir(), "unzel-browser-"));
  const { launchOptions } = project.use;
  const open = (): Promise<BrowserContext> =>
    chromium.launchPersistentContext(folder, {
      ...launchOptions,
      baseURL: ADDRESS,
      acceptDownloads: true,
      serviceWorkers: "allow",
    });
  const server = await serve();
  let browser = await open();
  try {
    let page = await browser.newPage();
    await page.goto("/");
    await expect(page.getByRole("article")).toHaveCount(4);
    await page.evaluate(async () => void (await navigator.serviceWorker.ready));
    await expect.poll(() => page.evaluate(() => navigator.serviceWorker.controller !== null)).toBe(true);
    await stop(server);

    await page.reload();
    await expect(page.getByRole("article")).toHaveCount(4);
    await browser.close();
    browser = await open();
    page = await browser.newPage();

    // pages of jobs and stations that were never visited
    const hands = new BenchHands(page);
    await hands.speedAsFound("demo-job-0415");
    // what plays goes on at another station
    const flutter = page.getByRole("link", { name: /Wow and flutter/ });
    await flutter.click();
    await expect(flutter).toHaveAttribute("aria-current", "step");
    await expect(page.getByRole("button", { name: "Switch off" })).toBeVisible();
    await page.reload();
    await expect(flutter).toHaveAttribute("aria-current", "step");

    for (const path of ["/jobs/demo-job-0409/sheet", ...PAGES]) {
      await page.goto(path);
      await expect(page.getByRole("heading", { level: 1 })).toBeVisible();
    }
    await page.goto("/signals");
    await page
      .getByRole("navigation", { name: "Sequences" })
      .getByRole("button", { name: /Record level/ })
      .click();
    const download = page.waitForEvent("download");
    await page.getByRole("button", { name: "Export WAV" }).click();
    const bytes = await readFile(await (await download).path());
    expect(bytes.subarray(0, 4).toString()).toBe("RIFF");
  } finally {
    server.kill("SIGKILL");
    await browser.close();
    await rm(folder, { recursive: true, force: true });
  }
});
