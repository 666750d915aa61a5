import { expect, test, type Page } from "./test";
import { BenchHands } from "./bench-hands";
import { workersToKill } from "./kill-workers";

/** From now on the browser has no room for anything, until it is mended. */
const fillUp = (page: Page) =>
  page.evaluate(() => {
    const { add, put } = IDBObjectStore.prototype;
    const full = () => {
      throw new DOMException("no room left", "QuotaExceededError");
    };
    Object.assign(IDBObjectStore.prototype, { add: full, put: full });
    Object.assign(window, { mend: () => Object.assign(IDBObjectStore.prototype, { add, put }) });
  });
const mend = (page: Page) => page.evaluate(() => (window as unknown as { mend(): void }).mend());
const told = (page: Page) => page.getByRole("alert").filter({ hasText: "could not be stored yet" });

test("with the storage full, a reading and a turn are kept on the page, and stored when there is room", async ({
  page,
}) => {
  const hands = new BenchHands(page);
  await hands.open("demo-job-0415", "speed");
  await hands.play("nothing wrong");
  await hands.settled();
  await fillUp(page);
  await page.keyboard.press("f");
  await expect(told(page)).toContainText("a reading of speed");
  await expect(told(page)).toContainText("the storage of this browser is full");
  await expect(hands.slip.getByRole("listitem")).toHaveCount(0);
  const slot = page.getByRole("slider", { name: /practice trimmer/ });
  const before = await slot.getAttribute("aria-valuenow");
  await slot.press("ArrowRight");
  await expect(slot).not.toHaveAttribute("aria-valuenow", before!);
  await slot.blur();
  await page.keyboard.press("t");
  await expect(told(page)).toContainText("entries could not be stored yet, a reading of speed first");
  await mend(page);
  // it tries by itself too
  await hands.clicked(told(page).getByRole("button", { name: "Try again" }));
  await expect(told(page)).toHaveCount(0);
  await expect(hands.slip.getByRole("listitem").filter({ hasText: "as found" })).toHaveCount(1);
  await expect(hands.slip.getByRole("listitem").filter({ hasText: "clockwise" })).toHaveCount(1);
});

test("a tick and what is typed wait for room too, and are tried again by themselves", async ({ page }) => {
  await page.goto("/jobs/demo-job-0415/bench/clean");
  const line = page.getByRole("main").getByRole("checkbox").first();
  await expect(line).not.toBeChecked();
  await fillUp(page);
  await line.click();
  await expect(told(page)).toContainText("a tick");
  await mend(page);
  await expect(told(page)).toHaveCount(0);
  await expect(line).toBeChecked();
  await page.reload();
  await expect(page.getByRole("main").getByRole("checkbox").first()).toBeChecked();
});

test("a storage that is deleted under the page is told", async ({ page }) => {
  await page.goto("/jobs/demo-job-0415");
  await expect(page.getByRole("heading", { level: 1 })).toBeVisible();
  await page.evaluate(() => void indexedDB.deleteDatabase("unzel"));
  const loss = page.getByRole("alert").filter({ hasText: "The storage of this page was deleted" });
  await expect(loss).toBeVisible();
  await loss.getByRole("button", { name: "Load anew" }).click();
  await expect(loss).toHaveCount(0);
});

test("another page that upgrades the storage is told, and nothing is lost", async ({ page }) => {
  await page.goto("/jobs/demo-job-0415");
  await expect(page.getByRole("heading", { level: 1 })).toBeVisible();
  await page.evaluate(
    () =>
      new Promise<void>((resolve, reject) => {
        const opening = indexedDB.open("unzel", 1e6);
        opening.onsuccess = () => resolve(opening.result.close());
        opening.onerror = () => reject(new Error("not opened"));
      }),
  );
  await expect(page.getByRole("alert").filter({ hasText: "Another page runs a newer Unzel" })).toBeVisible();
});

test("a worker that is killed is noticed, and can be started again", async ({ page }) => {
  const killWorkers = await workersToKill(page);
  const hands = new BenchHands(page);
  await hands.open("demo-job-0415", "speed");
  await hands.play("nothing wrong");
  await hands.settled();
  await killWorkers();
  const lost = page.getByRole("alert").filter({ hasText: "was ended by the browser" });
  await expect(lost).toBeVisible();
  await lost.getByRole("button", { name: "Start again" }).click();
  await hands.settled();
});

test.describe(() => {
  // the clock of a window stays as it was set
  test.use({ ownBrowser: true });

  test("a clock that is set back is noticed, and entries keep their order", async ({ page }) => {
    await page.clock.install();
    const hands = new BenchHands(page);
    await hands.speedAsFound("demo-job-0415");
    await page.clock.setSystemTime(Date.now() - 3_600_000);
    await expect(page.getByRole("alert").filter({ hasText: "clock of this computer stands" })).toBeVisible();
    await page.keyboard.press("l");
    await expect(hands.slip.getByRole("listitem")).toHaveCount(2);
    // the latest first
    await expect(hands.slip.getByRole("listitem").first()).toContainText("as left");
  });
});
