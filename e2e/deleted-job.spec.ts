import { expect, test } from "./test";

test("a job that was deleted is brought back from the floor, with all its readings", async ({ page }) => {
  await page.goto("/jobs/demo-job-0415");
  await page.getByRole("button", { name: /^Delete/ }).click();
  await page.getByRole("dialog").getByRole("button", { name: "Delete", exact: true }).click();
  const note = page.getByRole("alert").filter({ hasText: "Job 0415 was deleted" });
  await expect(note).toBeVisible();
  await expect(page.locator('a[href="/jobs/demo-job-0415"]')).toHaveCount(0);
  // it is kept across a page that is loaded anew
  await page.reload();
  await note.getByRole("button", { name: "Bring it back" }).click();
  await expect(page.getByRole("alert").filter({ hasText: "Job 0415 is back" })).toBeVisible();
  await expect(page.locator('a[href="/jobs/demo-job-0415"]').first()).toBeVisible();
  await expect(note).toHaveCount(0);
});
