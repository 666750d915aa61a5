import { readFile, writeFile } from "node:fs/promises";
import { expect, test } from "./test";
import { stored } from "./stored";

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

test.describe(() => {
  // the clock of a window stays as it was set
  test.use({ ownBrowser: true });

  test("a folder is kept up to date by itself, and seven days of it stay", async ({ page }) => {
    // at noon, so that a quarter of an hour later it is the same day
    await page.clock.install({ time: new Date().setHours(12, 0, 0, 0) });
    // the browser's own disk stands in for the one that a person would choose
    await page.addInitScript(() => {
      Object.assign(window, {
        showDirectoryPicker: async () =>
          (await navigator.storage.getDirectory()).getDirectoryHandle("backups", { create: true }),
      });
    });
    const inFolder = () =>
      page.evaluate(async () => {
        const folder = await (await navigator.storage.getDirectory()).getDirectoryHandle("backups");
        const { entries } = folder as unknown as { entries(): AsyncIterable<[string, FileSystemFileHandle]> };
        for (;;)
          try {
            const found: Array<[string, number]> = [];
            for await (const [name, handle] of entries.call(folder))
              found.push([name, (await handle.getFile()).size]);
            return found.toSorted();
          } catch (error) {
            // what is being written, or let go, may be gone before it is looked at: looked through anew
            if ((error as DOMException).name !== "NotFoundError") throw error;
          }
      });
    await page.goto("/");
    await expect(page.getByRole("article")).toHaveCount(4);
    await page.evaluate(async () => {
      const disk = await navigator.storage.getDirectory();
      const folder = await disk.getDirectoryHandle("backups", { create: true });
      for (let day = 10; day < 18; day++)
        await folder.getFileHandle(`unzel-backup-2025-01-${day}.zip`, { create: true });
      await folder.getFileHandle("notes.txt", { create: true });
    });
    await page.goto("/backup");
    await page.getByRole("button", { name: "Choose a folder…" }).click();
    await expect(page.getByRole("main").getByRole("alert")).toContainText("in the folder backups");
    await expect(page.getByText(/Last backup today; nothing was logged since/)).toBeVisible();
    const before = await inFolder();
    expect(before.map(([name]) => name).filter((name) => name.endsWith(".zip"))).toHaveLength(7);
    expect(before.map(([name]) => name)).toContain("notes.txt");
    const today = before.find(([, size]) => size > 0)!;
    expect(today[0]).toMatch(/^unzel-backup-\d{4}-\d\d-\d\d\.zip$/);

    const sizeOfToday = async () => (await inFolder()).find(([name]) => name === today[0])![1];
    const note = async (count: number) => {
      const notes = Array.from({ length: count }, (_, i) => `The folder has to know of note ${i}.`).join(" ");
      await page.getByLabel("Notes").fill(notes);
      await expect
        .poll(async () => (await stored(page)).jobs.find(({ id }) => id === "demo-job-0412")!.notes)
        .toBe(notes);
    };
    // whoever opens a page then finds it
    await page.goto("/jobs/demo-job-0412");
    await note(200);
    await page.goto("/backup");
    await expect(page.getByText(/Last backup today; nothing was logged since/)).toBeVisible();
    await expect.poll(sizeOfToday).not.toBe(today[1]);
    // and whoever stays on a page, after a quarter of an hour
    await page.goto("/jobs/demo-job-0412");
    // what was noted first may still be found by the opening of the page; the second is found by the clock alone
    for (const count of [220, 240]) {
      const then = await sizeOfToday();
      await note(count);
      await expect
        .poll(async () => {
          await page.clock.fastForward("15:01");
          return sizeOfToday();
        })
        .not.toBe(then);
    }
    await page.goto("/backup");
    await page.getByRole("button", { name: "Let it go" }).click();
    await expect(page.getByRole("button", { name: "Choose a folder…" })).toBeVisible();
  });
});
