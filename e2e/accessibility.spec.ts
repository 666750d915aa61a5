import { readFile } from "node:fs/promises";
import { createRequire } from "node:module";
import { expect, test, type Page } from "./test";
import { BenchHands } from "./bench-hands";
import { PAGES } from "./pages";

test.beforeEach(({ page }) => page.emulateMedia({ colorScheme: "light" }));

const axePath = createRequire(`${process.cwd()}/`).resolve("axe-core/axe.min.js");

const LEVELS = ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"];
/** What may be another in another theme. */
const COLOURS = { type: "rule", values: ["color-contrast", "link-in-text-block"] };

/** What axe objects to: everything in the light theme, the colours in the dark one. */
async function violations(page: Page): Promise<string[]> {
  await page.evaluate(await readFile(axePath, "utf8"));
  const light = await objections(page, LEVELS);
  await page.emulateMedia({ colorScheme: "dark" });
  await expect(page.locator("html")).toHaveAttribute("data-theme", "dark");
  const dark = await objections(page, COLOURS);
  await page.emulateMedia({ colorScheme: "light" });
  await expect(page.locator("html")).toHaveAttribute("data-theme", "light");
  return [...light, ...dark.map((one) => `dark theme, ${one}`)];
}

const objections = (page: Page, runOnly: object): Promise<string[]> =>
  page.evaluate(async (only) => {
    const { axe } = window as unknown as {
      axe: { run(o: object): Promise<{ violations: Array<{ id: string; nodes: Array<{ html: string }> }> }> };
    };
    const result = await axe.run({ runOnly: only, resultTypes: ["violations"] });
    return result.violations.map(
      ({ id, nodes }) => `${id}: ${nodes.map(({ html }) => html.slice(0, 160)).join(" | ")}`,
    );
  }, runOnly);

const LOOKED_AT = [
  ...PAGES,
  "/jobs/new",
  "/jobs/demo-job-0412",
  "/jobs/demo-job-0398",
  "/jobs/demo-job-0415/bench/intake",
  "/jobs/demo-job-0398/bench/service",
  "/jobs/demo-job-0412/bench/service",
  "/jobs/demo-job-0412/bench/clean",
  "/jobs/demo-job-0409/bench/azimuth",
  "/jobs/demo-job-0409/bench/level",
  "/jobs/demo-job-0409/bench/response",
  "/jobs/demo-job-0409/bench/record-level",
  "/jobs/demo-job-0409/sheet",
];

// one visit for all: each by itself would load the demo anew
test("no page has anything that axe objects to", async ({ page }) => {
  await page.goto("/");
  await expect(page.getByRole("article")).toHaveCount(4);
  for (const path of LOOKED_AT)
    await test.step(path, async () => {
      await page.goto(path);
      await expect(page.getByRole("heading", { level: 1 })).toBeVisible();
      expect.soft(await violations(page), path).toEqual([]);
    });
});

test("the bench at work has nothing that axe objects to", async ({ page }) => {
  const hands = new BenchHands(page);
  await hands.open("demo-job-0412", "speed");
  await hands.play("nothing wrong");
  await hands.settled();
  expect(await violations(page)).toEqual([]);
  await page.getByRole("button", { name: "Check" }).click();
  await expect(page.getByRole("table", { name: "Levels" })).toBeVisible();
  expect(await violations(page)).toEqual([]);
  await page.getByRole("dialog").getByRole("button", { name: "Close" }).click();
  await page.getByRole("link", { name: /Wow and flutter/ }).click();
  await expect(page.getByRole("region", { name: "Where the flutter comes from" })).toBeVisible();
  expect(await violations(page)).toEqual([]);
  await page.getByRole("button", { name: "waveform" }).click();
  await expect(page.getByRole("img", { name: /Deviation of the speed over/ })).toBeVisible();
  await page.getByRole("button", { name: "spectrum and meters" }).click();
  await expect(page.getByRole("img", { name: /spectrum/ })).toBeVisible();
  expect(await violations(page)).toEqual([]);
});
