import { readFile } from "node:fs/promises";
import { expect, test } from "./test";
import { BenchHands } from "./bench-hands";
import { NOT_WAV } from "./sounds";
import { choose } from "./choose";
import { isStored, manyLike } from "./stored";

test("the floor shows every job of the demo as a tape line and what can be done", async ({ page }) => {
  await page.goto("/");
  await expect(page.getByRole("article")).toHaveCount(4);
  const waiting = page.getByRole("article", { name: /Marrow Field 7/ });
  await expect(waiting).toContainText("waiting: belt 71 mm");
  await expect(waiting.getByText("belt 71 mm · 30 Nov")).toBeVisible();
  await page.getByRole("link", { name: /Set speed/ }).click();
  await expect(page.getByRole("heading", { level: 1 })).toHaveText("Tarnvik T-2");
});

test("of many jobs the first stand at once, and each other once somebody scrolls to it", async ({
  page,
  context,
}) => {
  await page.goto("/");
  const lines = page.getByRole("navigation", { name: /Stations of job/ });
  await expect(lines.first()).toBeVisible();
  await manyLike(page, "demo-job-0412", 60);
  await page.goto("/");
  const rows = page.getByRole("article");
  await expect(rows).toHaveCount(64);
  await expect(lines.first()).toBeVisible();
  expect(await lines.count()).toBeLessThan(20);
  const far = page.getByRole("article", { name: /like 17,/ });
  await expect(far.getByRole("navigation")).toHaveCount(0);
  await far.scrollIntoViewIfNeeded();
  await expect(far.getByRole("navigation", { name: "Stations of job like 17" })).toBeVisible();

  // the last of those that stand at once is pushed down by another that is worked at
  await page.goto("/");
  const last = page.getByRole("article", { name: (await rows.nth(3).getAttribute("aria-label"))! });
  await expect(last.getByRole("navigation")).toBeVisible();
  const other = await context.newPage();
  await other.goto("/jobs/like-17");
  await other.getByLabel("Notes").fill("Left guide is worn.");
  await expect(rows.first()).toHaveAccessibleName(/like 17,/);
  await expect(rows.nth(4)).toHaveAccessibleName((await last.getAttribute("aria-label"))!);
  await expect(last.getByRole("navigation")).toBeVisible();
});

test("a machine of one's own: missing fields are named, then the job opens", async ({ page }) => {
  await page.goto("/jobs/new");
  await page.getByRole("button", { name: "Start the job" }).click();
  await expect(page.getByText("Choose the machine.")).toBeVisible();
  await choose(page.getByRole("combobox", { name: "Machine" }), "Another machine…");
  await choose(page.getByRole("combobox", { name: "Reference tape" }), /SSA-01/);
  await page.getByRole("button", { name: "Start the job" }).click();
  await expect(page.getByText("Give the machine a name.")).toBeVisible();
  await page.getByLabel("Name of the machine").fill('<b onclick="x">Bench & Co</b>');
  await page.getByRole("button", { name: "Start the job" }).click();
  await page.waitForURL(/bench\/intake/);
  await expect(page.getByRole("heading", { level: 1 })).toHaveText('<b onclick="x">Bench & Co</b>');
});

test("a new job shows what was found and done the last time, and keeps what was said at the counter", async ({
  page,
}) => {
  await page.goto("/");
  await expect(page.getByRole("article")).toHaveCount(4);
  await page.goto("/jobs/new");
  await choose(page.getByRole("combobox", { name: "Machine" }), "Ellesby C-3H");
  const before = page.getByRole("article", { name: "Job 0409" });
  await expect(before).toContainText("the same model");
  await expect(before).toContainText(/Found:.*speed error/);
  await page.getByLabel("Who to call").fill("transfer room");
  await expect(page.getByRole("article", { name: "Job 0415" })).toContainText("the same owner");
  await page.getByRole("button", { name: "Runs slow" }).click();
  await page.getByLabel("What came with it").fill("mains lead");
  await page.getByLabel("Wanted by").fill("2026-12-20");
  await page.getByRole("button", { name: "Start the job" }).click();
  await page.waitForURL(/bench\/intake/);
  await expect(page.getByRole("textbox", { name: "What came with it" })).toHaveValue("mains lead");
  await expect(page.getByLabel("Wanted by")).toHaveValue("2026-12-20");
  await expect(page.getByRole("button", { name: "Runs slow" })).toHaveAttribute("aria-pressed", "true");
});

test("notes are kept as they are typed, and a second tab sees them and new readings", async ({
  page,
  context,
}) => {
  await page.goto("/jobs/demo-job-0412");
  const other = await context.newPage();
  await other.goto("/jobs/demo-job-0412");
  await page.getByLabel("Notes").fill("Left guide is worn.");
  await expect(other.getByLabel("Notes")).toHaveValue("Left guide is worn.");

  const hands = new BenchHands(page);
  await hands.open("demo-job-0412", "speed");
  await other.goto("/jobs/demo-job-0412/bench/speed");
  const rows = new BenchHands(other).slip.getByRole("listitem");
  await expect(rows.first()).toBeVisible();
  const before = await rows.count();
  await hands.play("nothing wrong");
  await hands.settled();
  await page.keyboard.press("Space");
  await expect(rows).toHaveCount(before + 1);
});

test("a wrong file is refused with a sentence and changes nothing", async ({ page }) => {
  await page.goto("/");
  await expect(page.getByRole("article")).toHaveCount(4);
  await page.getByLabel("Job file").setInputFiles(NOT_WAV);
  await expect(page.getByRole("alert").first()).toContainText("This is not a job file");
  await expect(page.getByRole("article")).toHaveCount(4);
});

test("a machine that a job file has otherwise is offered, and stays as it is until it is taken", async ({
  page,
}) => {
  await page.goto("/jobs/demo-job-0409/sheet");
  const download = page.waitForEvent("download");
  await page.getByRole("button", { name: "Export job" }).click();
  const written = await readFile(await (await download).path(), "utf8");
  const bundle = JSON.parse(written) as {
    checksum?: string;
    content: { machines: Array<{ name: string; notes?: string }> };
  };
  // its sum no longer fits what is in it
  delete bundle.checksum;
  bundle.content.machines[0].name = "Ellesby C-3H, second bench";
  const file = {
    name: "other.unzel.json",
    mimeType: "application/json",
    buffer: Buffer.from(JSON.stringify(bundle)),
  };
  await page.goto("/");
  // without its checksum it is asked first
  const importIt = async () => {
    await page.getByLabel("Job file").setInputFiles(file);
    const unsigned = page.getByRole("alert").filter({ hasText: "has no checksum" });
    await expect(unsigned).toContainText("It would add 0 readings");
    await unsigned.getByRole("button", { name: "Import it" }).click();
  };
  await importIt();
  const offer = page.getByRole("group", { name: "Ellesby C-3H, second bench differs in the file" });
  await expect(offer).toBeVisible();
  await offer.getByRole("button", { name: "Keep mine" }).click();
  await expect(offer).toHaveCount(0);
  await page.goto("/machines");
  await expect(page.getByText("second bench")).toHaveCount(0);
  await page.goto("/");
  await importIt();
  await offer.getByRole("checkbox", { name: "name" }).click();
  await offer.getByRole("button", { name: "Take what is ticked" }).click();
  await expect(page.getByRole("alert").filter({ hasText: "name taken from the file" })).toBeVisible();
  await page.goto("/machines");
  await expect(page.getByText("second bench").first()).toBeVisible();
});

test("a job can be deleted, and stays deleted", async ({ page }) => {
  await page.goto("/jobs/demo-job-0415");
  await page.getByRole("button", { name: "Delete…" }).click();
  await page.getByRole("button", { name: "Delete", exact: true }).click();
  await expect(page.getByRole("article")).toHaveCount(3);
  await page.reload();
  await expect(page.getByRole("article")).toHaveCount(3);
});

test("checklists are ticked on the bench and fill their piece of tape", async ({ page }) => {
  await page.goto("/jobs/demo-job-0415/bench/clean");
  await expect(page.getByRole("checkbox").first()).toBeVisible();
  for (const box of await page.getByRole("checkbox").all()) {
    await box.click();
    await expect(box).toBeChecked();
  }
  await expect(page.getByRole("link", { name: "Clean settled" })).toBeVisible();
});

test("keys: stations step, the list opens, and nothing fires while typing", async ({ page }) => {
  const hands = new BenchHands(page);
  await hands.open("demo-job-0415", "speed");
  await page.keyboard.press("?");
  await expect(page.getByRole("dialog")).toContainText("log as found");
  await page.keyboard.press("Escape");
  await page.keyboard.press("PageDown");
  await expect(page.getByRole("region", { name: "Wow and flutter" })).toBeVisible();
  await page.keyboard.press("[");
  await page.waitForURL(/speed/);
  await page.goto("/jobs/demo-job-0415");
  await page.getByLabel("Notes").fill("");
  await page.getByLabel("Notes").press("n");
  await page.waitForTimeout(300);
  expect(page.url()).toContain("/jobs/demo-job-0415");
});

test("a job that is not here says so and leads back", async ({ page }) => {
  await page.goto("/jobs/never-was/bench/speed");
  await expect(page.getByText("This job is not in this browser.")).toBeVisible();
  await page.getByRole("link", { name: "Back to the floor" }).click();
  await expect(page.getByRole("article").first()).toBeVisible();
});

test("a machine's page knows what its screws do, and where they sit once they were put there", async ({
  page,
}) => {
  await page.goto("/machines");
  await page.getByRole("button", { name: "Ellesby C-3H" }).click();
  const does = page.getByRole("region", { name: "What its screws do" });
  await expect(does).toContainText(/VR 3/);
  await expect(does).toContainText(/from \d turns? in 1 job/);
  await expect(page.getByRole("article", { name: "Job 0409" })).toBeVisible();

  const plan = page.getByRole("region", { name: "Plan of the underside" });
  const screw = plan.getByRole("button", { name: /^VR 3/ });
  const before = (await screw.boundingBox())!;
  await screw.focus();
  await page.keyboard.press("Space");
  // it is taken up a moment later, and each key moves it from where it is by then
  await expect(screw).toHaveAttribute("aria-pressed", "true");
  const movedBy = async () => (await screw.boundingBox())!.y - before.y;
  for (let i = 0; i < 4; i++) {
    const here = await movedBy();
    await page.keyboard.press("ArrowDown");
    await expect.poll(movedBy).toBeGreaterThan(here + 10);
  }
  await page.keyboard.press("Space");
  await expect(plan).toContainText("Where its adjusters sit");
  await expect(screw).not.toHaveAttribute("aria-pressed", "true");
  await expect.poll(movedBy).toBeGreaterThan(80);
  const after = (await screw.boundingBox())!;
  await page.getByLabel("To be known of every one").fill("The left guide is always stuck.");
  await isStored(page, "The left guide is always stuck.");
  await page.reload();
  await page.getByRole("button", { name: "Ellesby C-3H" }).click();
  await expect(page.getByLabel("To be known of every one")).toHaveValue("The left guide is always stuck.");
  const kept = (await screw.boundingBox())!;
  expect(Math.abs(kept.y - after.y)).toBeLessThan(3);
});
