import { expect, test } from "@playwright/test";
import { BenchHands } from "./bench-hands";
for (const [station, condition, wait] of [["distortion","recordings distorted: tired amplifier",100000],["record-response","record equaliser off",130000]] as const)
test(station, async ({ page }) => {
  test.setTimeout(300_000);
  const hands = new BenchHands(page);
  await hands.open("demo-job-0409", station);
  await page.keyboard.press("b");
  await page.waitForTimeout(500);
  await page.screenshot({ path: `/tmp/${station}-0.png` });
  await hands.play(condition);
  await page.keyboard.press("p");
  const said = page.getByRole("status", { name: "Recording" });
  await page.getByRole("button", { name: /^Record / }).last().click();
  await page.waitForTimeout(15000);
  await page.screenshot({ path: `/tmp/${station}-1.png` });
  await expect(said).toContainText("came back whole", { timeout: wait });
  await page.waitForTimeout(500);
  await page.screenshot({ path: `/tmp/${station}-2.png` });
});
test("blank", async ({ page }) => {
  await page.goto("/"); await expect(page.getByRole("article").first()).toBeVisible();
  await page.goto("/tapes/blank");
  await page.waitForTimeout(1000);
  await page.screenshot({ path: "/tmp/blank.png" });
  await page.getByRole("button", { name: "Change" }).click();
  await page.waitForTimeout(300);
  await page.screenshot({ path: "/tmp/blank-edit.png" });
  await page.goto("/jobs/demo-job-0409/sheet");
  await page.waitForTimeout(1500);
  await page.screenshot({ path: "/tmp/sheet.png", fullPage: true });
  await page.goto("/jobs/demo-job-0415/bench/bias");
  await page.waitForTimeout(1500);
  await page.screenshot({ path: "/tmp/two-head.png" });
});
