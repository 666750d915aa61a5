import { readFile, writeFile } from "node:fs/promises";
import { expect, test } from "@playwright/test";

test("everything is backed up, brought into an emptied browser, and a damaged archive changes nothing", async ({
  page,
}, testInfo) => {
  await page.goto("/");
  await expect(page.getByRole("article")).toHaveCount(4);
  await page.getByRole("link", { name: "Back up" }).click();
  await expect(page.getByText("Nothing was backed up yet.")).toBeVisible();
  const download = page.waitForEvent("download");
  await page.getByRole("button", { name: "Back up everything" }).click();
  const saved = await download;
  expect(saved.suggestedFilename()).toMatch(/^unzel-backup-\d{4}-\d\d-\d\d\.zip$/);
  await expect(page.getByText(/Last backup today/)).toBeVisible();
  const bytes = await readFile(await saved.path());

  // a job is deleted, and comes back by merging
  await page.goto("/jobs/demo-job-0398");
  await page.getByRole("button", { name: "Delete…" }).click();
  await page.getByRole("button", { name: "Delete", exact: true }).click();
  await expect(page.getByRole("article")).toHaveCount(3);

  const picker = async (content: Buffer, name: string) => {
    const path = testInfo.outputPath(name);
    await writeFile(path, content);
    await page.getByLabel("Backup file").setInputFiles(path);
  };
  await page.goto("/backup");
  await picker(bytes.subarray(0, bytes.length / 2), "cut.zip");
  await expect(page.getByRole("main").getByRole("alert")).toContainText("cut short");
  await picker(Buffer.from("never an archive"), "words.zip");
  await expect(page.getByRole("main").getByRole("alert")).toContainText("not a backup of Unzel");

  await picker(bytes, "whole.zip");
  const changes = page.getByRole("table", { name: "What the backup would change" });
  await expect(changes.getByRole("row", { name: /^jobs 1 3 – –/ })).toBeVisible();
  await page.getByRole("button", { name: /Add what is missing here/ }).click();
  await expect(page.getByRole("main").getByRole("alert")).toContainText("brought back");
  await page.getByRole("link", { name: "Floor" }).click();
  await expect(page.getByRole("article")).toHaveCount(4);

  // replaced, with what would go said first
  await page.goto("/backup");
  await picker(bytes, "again.zip");
  const replace = page.getByRole("button", { name: "Replace everything" });
  await expect(replace).toBeDisabled();
  await page.getByRole("checkbox", { name: /may go/ }).check();
  await replace.click();
  await expect(page.getByRole("main").getByRole("alert")).toContainText("as it did in the backup");
});
