import { expect, test, type Page } from "./test";
import { BenchHands } from "./bench-hands";
import { PAGES } from "./pages";

const JOB = "/jobs/demo-job-0412";

test.use({ viewport: { width: 768, height: 1024 } });

/** Pixels that stand beyond the edge of a tablet on a shelf. */
const beyondEdge = (page: Page) =>
  page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);

test("every page fits a narrow screen", async ({ page }) => {
  await page.goto("/");
  await expect(page.getByRole("article").first()).toBeVisible();
  for (const path of [...PAGES, JOB])
    await test.step(path, async () => {
      await page.goto(path);
      await expect(page.getByRole("heading", { level: 1 })).toBeVisible();
      expect.soft(await beyondEdge(page), path).toBeLessThanOrEqual(0);
    });
});

test("the practice deck can be worked on a narrow screen", async ({ page }) => {
  const hands = new BenchHands(page);
  await hands.open("demo-job-0415", "speed");
  await hands.play("nothing wrong");
  await hands.settled();
  const keys = page.getByRole("group", { name: "Transport keys" });
  await keys.getByRole("button", { name: "Stop" }).click();
  await expect(keys.getByRole("button", { name: "Stop" })).toHaveAttribute("aria-pressed", "true");
  expect(await beyondEdge(page)).toBeLessThanOrEqual(0);
});

test("long names do not break the pages", async ({ page }) => {
  await page.goto("/tapes");
  await expect(page.getByRole("button", { name: /SSA-10/ })).toBeVisible();
  await page.getByRole("button", { name: "New tape" }).click();
  await page.getByLabel("Name and number on the box").fill(`SSA-${"9".repeat(150)}`);
  await page.getByRole("button", { name: "Save tape" }).click();
  await expect(page.getByRole("heading", { name: /SSA-999/ })).toBeVisible();
  expect(await beyondEdge(page)).toBeLessThanOrEqual(0);
});
