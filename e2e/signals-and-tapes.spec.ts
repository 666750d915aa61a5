import { readFile } from "node:fs/promises";
import { expect, test } from "./test";
import { PRESETS } from "@/core/signals/presets";
import { choose } from "./choose";

test.describe("signals", () => {
  test("a preset is exported as a WAV file of the length that was said", async ({ page }) => {
    await page.goto("/signals");
    await page
      .getByRole("navigation", { name: "Sequences" })
      .getByRole("button", { name: /Record level/ })
      .click();
    await choose(page.getByRole("combobox", { name: "Bits" }), "16, dither");
    const download = page.waitForEvent("download");
    await page.getByRole("button", { name: "Export WAV" }).click();
    const bytes = await readFile(await (await download).path());
    expect(bytes.subarray(0, 4).toString()).toBe("RIFF");
    expect(bytes.length).toBe(44 + 4 * Math.round(48000 * (5 + 2 * (0.8 + 15 + 0.5))));
  });

  test("one of one's own: built, kept while it is typed, played, exported and imported", async ({ page }) => {
    await page.goto("/signals");
    await page.getByRole("button", { name: "New sequence" }).click();
    await page.getByRole("button", { name: "Save sequence" }).click();
    await expect(page.getByRole("main").getByRole("alert")).toContainText("Give it a name");
    await page.getByLabel("Name").fill("Head tap <b>test</b>");
    const first = page.getByRole("listitem", { name: "Segment 1" });
    await first.getByLabel("Frequency, Hz").fill("loud");
    await page.getByRole("button", { name: "Save sequence" }).click();
    await expect(page.getByRole("main").getByRole("alert")).toContainText("segments 1 frequencyHz");
    await first.getByLabel("Frequency, Hz").fill("440");
    await first.getByLabel("Length, s").fill("1");
    await page.getByRole("button", { name: "Add a segment" }).click();
    await choose(
      page.getByRole("listitem", { name: "Segment 2" }).getByRole("combobox", { name: "Kind" }),
      "silence",
    );
    await page.getByRole("listitem", { name: "Segment 2" }).getByLabel("Length, s").fill("1");
    await page.getByRole("button", { name: "Save sequence" }).click();
    await expect(page.getByRole("heading", { name: "Head tap <b>test</b>" })).toBeVisible();

    await page.getByRole("button", { name: "Play" }).click();
    await expect(page.getByRole("button", { name: "Stop" })).toBeVisible();
    await expect(page.getByRole("button", { name: "Play" })).toBeVisible(); // it ends by itself

    const download = page.waitForEvent("download");
    await page.getByRole("button", { name: "Export description" }).click();
    const file = await (await download).path();
    await page.getByRole("button", { name: "Delete" }).click();
    await expect(page.getByRole("button", { name: /Head tap/ })).toHaveCount(0);
    await page.getByLabel("Sequence file").setInputFiles(file);
    await expect(page.getByRole("heading", { name: "Head tap <b>test</b>" })).toBeVisible();
    await page.getByLabel("Sequence file").setInputFiles({
      name: "bad.json",
      mimeType: "application/json",
      buffer: Buffer.from("{}"),
    });
    await expect(page.getByRole("main").getByRole("alert")).toContainText("not a test sequence");
  });

  test("the route refuses what is no sequence, in words", async ({ request }) => {
    const refused = await request.get("/api/signals?sequence={}");
    expect(refused.status()).toBe(400);
    expect(((await refused.json()) as { message: string }).message).toContain("cannot be played");
    expect((await request.get("/api/signals?preset=bias&rate=1")).status()).toBe(400);
    expect((await request.post("/api/signals", { data: "{" })).status()).toBe(400);
  });

  test("the route serves pages while somebody takes a long file, asked for by POST", async ({ request }) => {
    const preset = PRESETS.find(({ id }) => id === "left-right")!;
    const long = { ...preset, segments: [{ kind: "pink", levelDb: -20, seconds: 20 }] };
    const file = request.post("/api/signals", { data: { sequence: long, rate: 48000, bits: 16 } });
    expect((await request.get("/signals")).status()).toBe(200);
    const whole = await file;
    expect(whole.status()).toBe(200);
    expect((await whole.body()).length).toBeGreaterThan(20 * 48000 * 4);
  });
});

test.describe("reference tapes", () => {
  test.beforeEach(async ({ page }) => {
    await page.goto("/");
    await expect(page.getByRole("article").first()).toBeVisible();
    await page.goto("/tapes");
  });

  test("a home-made one says whose uncertainty it has", async ({ page }) => {
    await page.getByRole("button", { name: /SSA-07/ }).click();
    await expect(page.getByRole("region", { name: "Home-made" })).toContainText("known to ±1 %");
    await expect(page.getByRole("main")).toContainText("frequencies known to ±1 %");
  });

  test("is made from a layout, changed, exported as CSV and JSON and imported again", async ({ page }) => {
    await page.getByRole("button", { name: /Azimuth ladder, cassette/ }).click();
    await page.getByRole("button", { name: "Make my own from it" }).click();
    await page.getByLabel("Name and number on the box").fill("=SUM(A1) ladder");
    const band = page.getByRole("listitem", { name: "Band 1" });
    await band.getByLabel("Level, dB").fill("low");
    await page.getByRole("button", { name: "Save tape" }).click();
    await expect(page.getByRole("main").getByRole("alert")).toContainText("bands 1 levelDb");
    await band.getByLabel("Level, dB").fill("−12.5");
    await band.getByLabel("Off, left dB").fill("0.4");
    await page.getByRole("button", { name: "Save tape" }).click();
    await expect(page.getByRole("heading", { name: "=SUM(A1) ladder" })).toBeVisible();
    await expect(page.getByRole("row").nth(1)).toContainText("−12.5 dB");

    const csvDownload = page.waitForEvent("download");
    await page.getByRole("button", { name: "Export CSV" }).click();
    const csv = await (await csvDownload).path();
    expect(await readFile(csv, "utf8")).toContain("'=SUM(A1) ladder");
    const jsonDownload = page.waitForEvent("download");
    await page.getByRole("button", { name: "Export JSON" }).click();
    const json = await (await jsonDownload).path();
    await page.getByRole("button", { name: "Delete" }).click();
    await expect(page.getByRole("button", { name: /SUM/ })).toHaveCount(0);
    for (const [name, path] of [
      ["tape.csv", csv],
      ["tape.json", json],
    ]) {
      await page
        .getByLabel("Tape file")
        .setInputFiles({ name, mimeType: "text/plain", buffer: await readFile(path) });
      await expect(page.getByRole("main").getByRole("alert")).toContainText("Imported =SUM(A1) ladder");
    }
    await page.getByLabel("Tape file").setInputFiles({
      name: "bad.csv",
      mimeType: "text/csv",
      buffer: Buffer.from("a,b\n1,2"),
    });
    await expect(page.getByRole("main").getByRole("alert")).toContainText("lacks the columns");
  });

  test("one that a job uses stays", async ({ page }) => {
    await page.getByRole("button", { name: /SSA-01/ }).click();
    await page.getByRole("button", { name: "Delete" }).click();
    await expect(page.getByRole("main").getByRole("alert")).toContainText("uses this tape");
  });
});
