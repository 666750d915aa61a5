import { expect, test } from "@playwright/test";
import { BenchHands } from "./bench-hands";

test.use({ viewport: { width: 768, height: 1024 } });

/** A tablet on a shelf: nothing may stand beyond its edge. */
for (const path of [
  "/",
  "/listen",
  "/signals",
  "/tapes",
  "/machines",
  "/rules",
  "/settings",
  "/jobs/demo-job-0412",
])
  test(`${path} fits a narrow screen`, async ({ page }) => {
    await page.goto("/");
    await expect(page.getByRole("article").first()).toBeVisible();
    await page.goto(path);
    await expect(page.getByRole("heading", { level: 1 })).toBeVisible();
    const beyond = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
    expect(beyond).toBeLessThanOrEqual(0);
  });

test("the practice deck can be worked on a narrow screen", async ({ page }) => {
  const hands = new BenchHands(page);
  await hands.open("demo-job-0415", "speed");
  await hands.play("nothing wrong");
  await hands.settled();
  const keys = page.getByRole("group", { name: "Transport keys" });
  await keys.getByRole("button", { name: "Stop" }).click();
  await expect(keys.getByRole("button", { name: "Stop" })).toHaveAttribute("aria-pressed", "true");
  const beyond = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
  expect(beyond).toBeLessThanOrEqual(0);
});

test("long names do not break the pages", async ({ page }) => {
  await page.goto("/tapes");
  await expect(page.getByRole("button", { name: /SSA-10/ })).toBeVisible();
  await page.getByRole("button", { name: "New tape" }).click();
  await page.getByLabel("Name and number on the box").fill(`SSA-${"9".repeat(150)}`);
  await page.getByRole("button", { name: "Save tape" }).click();
  await expect(page.getByRole("heading", { name: /SSA-999/ })).toBeVisible();
  const beyond = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
  expect(beyond).toBeLessThanOrEqual(0);
});
