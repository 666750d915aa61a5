import { readFile } from "node:fs/promises";
import { expect, test } from "./test";
import { BenchHands } from "./bench-hands";
import { choose } from "./choose";
import { isStored } from "./stored";

test("from a new job to a printed sheet, through an emptied browser and back", async ({ page }) => {
  await page.goto("/");
  await expect(page.getByRole("article", { name: /0412/ })).toBeVisible();
  await page.keyboard.press("n");
  await choose(page.getByRole("combobox", { name: "Machine" }), "Ellesby C-1R");
  await page.getByLabel("Complaint, in the owner's words").fill("Runs slow and gurgles.");

  // what was typed is still there after a reload
  await isStored(page, "Runs slow and gurgles.");
  await page.reload();
  await expect(page.getByLabel("Complaint, in the owner's words")).toHaveValue("Runs slow and gurgles.");
  await page.getByRole("button", { name: "Start the job" }).click();
  await page.waitForURL(/bench\/intake/);
  await page
    .getByRole("link", { name: /^Speed/ })
    .first()
    .click();

  const hands = new BenchHands(page);
  await hands.play("2 % slow, lumpy belt");
  const found = await hands.settled();
  expect(found).toBeGreaterThan(-2.2);
  expect(found).toBeLessThan(-1.7);
  await page.keyboard.press("f");
  await expect(hands.slip).toContainText("as found");

  await hands.turn(45); // the trial turn
  await hands.settled();
  let further = 0;
  for (let advice = await hands.advice(); advice !== null && further < 4; advice = await hands.advice()) {
    await hands.turn(advice);
    await hands.settled();
    further++;
  }
  expect(further).toBeLessThanOrEqual(3);
  expect(Math.abs(await hands.settled())).toBeLessThan(0.1);
  await page.keyboard.press("l");
  await expect(hands.slip).toContainText("as left");
  await expect(page.getByRole("link", { name: "Speed settled" })).toBeVisible();

  await page.keyboard.press("]");
  await page.waitForURL(/flutter/);
  const flutter = page.getByRole("meter", { name: "Weighted peak flutter" });
  await expect(flutter).not.toHaveAttribute("aria-valuetext", /settling|Listening|Waiting/);
  await page.keyboard.press("f");
  await expect(hands.slip).toContainText("as found");

  await page.getByRole("banner").getByRole("link", { name: "Sheet" }).click();
  const sheet = page.getByRole("article");
  await expect(sheet).toContainText("Runs slow and gurgles.");
  await expect(sheet.getByRole("row", { name: /Speed error/ })).toContainText(/fail.*pass/);
  const before = await sheet.innerText();

  const jsonDownload = page.waitForEvent("download");
  await page.getByRole("button", { name: "Export job" }).click();
  const bundle = await (await jsonDownload).path();
  const htmlDownload = page.waitForEvent("download");
  await page.getByRole("button", { name: "Sheet HTML" }).click();
  const html = await readFile(await (await htmlDownload).path(), "utf8");
  expect(html).toContain("Runs slow and gurgles.");
  expect(html).not.toMatch(/<script|(src|href)="?(https?:)?\//);
  const csvDownload = page.waitForEvent("download");
  await page.getByRole("button", { name: "Readings CSV" }).click();
  expect(await readFile(await (await csvDownload).path(), "utf8")).toMatch(/Speed error,as left/);

  await page.goto("/");
  await page.evaluate(
    () =>
      new Promise((done, failed) => {
        const request = indexedDB.deleteDatabase("unzel");
        request.onsuccess = () => done(null);
        request.onerror = () => failed(request.error);
      }),
  );
  await page.goto("/");
  await expect(page.getByRole("article", { name: /0412/ })).toBeVisible();
  await expect(page.getByText("Runs slow and gurgles.")).toHaveCount(0);
  await page.getByLabel("Job file").setInputFiles(bundle);
  await expect(page.getByRole("alert").first()).toContainText("Imported job");
  await page
    .getByRole("article")
    .filter({ hasText: "Runs slow and gurgles." })
    .getByRole("link", { name: "Sheet" })
    .click();
  await page.waitForURL(/sheet/);
  await expect(page.getByRole("article")).toContainText("Runs slow and gurgles.");
  expect(await page.getByRole("article").innerText()).toBe(before);
});

test("turning the trimmer after flutter was logged marks flutter for repeating", async ({ page }) => {
  const hands = new BenchHands(page);
  await hands.open("demo-job-0409", "speed");
  await expect(page.getByRole("link", { name: "Wow and flutter settled" })).toBeVisible();
  await hands.play("1.2 % fast");
  await hands.settled();
  await hands.turn(-20);
  await expect(page.getByRole("link", { name: "Wow and flutter again" })).toBeVisible();
  // speed itself was read again by then; what the turn upset elsewhere was not
  await expect(page.getByText("To repeat: wow and flutter, azimuth, level, response")).toBeVisible();
});

test("the practice trimmer stays where it was left while stations and pages change", async ({ page }) => {
  const hands = new BenchHands(page);
  await hands.open("demo-job-0415", "speed");
  await hands.play("1.2 % fast");
  await hands.settled();
  await hands.turn(-40);
  const set = await hands.settled();
  await page.reload();
  await expect(page.getByText("No source")).toBeVisible();
  await page.keyboard.press("p");
  await expect(page.getByRole("combobox", { name: "It came in" })).toContainText("1.2 % fast");
  await page.getByRole("button", { name: "Play" }).click();
  expect(Math.abs((await hands.settled()) - set)).toBeLessThan(0.05);
});

test("what was logged by mistake is corrected without being lost", async ({ page }) => {
  const hands = new BenchHands(page);
  await hands.open("demo-job-0412", "speed");
  await hands.slip.getByRole("button", { name: "working" }).first().click();
  await page.getByRole("menuitem", { name: "this was as left" }).click();
  await expect(hands.slip.getByRole("button", { name: "as left" })).toBeVisible();
  const turn = hands.slip.getByRole("button", { name: /SPEED 19: half a turn/ });
  await turn.click();
  await page.getByRole("menuitem", { name: "it was a third of a turn clockwise" }).click();
  await expect(
    hands.slip.getByRole("button", { name: "SPEED 19: a third of a turn clockwise" }),
  ).toBeVisible();
  await expect(turn).toHaveCount(0);
});
