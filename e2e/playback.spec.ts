import { expect, test, type Page } from "./test";
import { readFile } from "node:fs/promises";
import { BenchHands, FOUR_TIMES } from "./bench-hands";

/** Opens a playback station with a tape in the practice machine, and plays it. */
async function play(page: Page, station: string, tape: RegExp, condition: string): Promise<BenchHands> {
  const hands = new BenchHands(page);
  await hands.open("demo-job-0415", station);
  await hands.choose("Tape in the machine", tape);
  await hands.play(condition, FOUR_TIMES);
  return hands;
}

test("azimuth: the ladder counts whole cycles, and a turn is followed through them", async ({ page }) => {
  const hands = await play(page, "azimuth", /SSA-14/, "azimuth several cycles off");
  const phase = page.getByRole("meter", { name: "Azimuth phase at 10 kHz" });
  const card = page.getByRole("region", { name: "Turn", exact: true });
  await expect(page.getByRole("contentinfo")).toContainText("10 kHz");
  await expect(phase).toHaveAttribute("aria-valuetext", /fail$/);
  // 26′ on this head are 515°: more than a whole cycle, counted by the ladder
  expect(Number(await phase.getAttribute("aria-valuenow"))).toBeGreaterThan(480);
  await page.keyboard.press("f");
  await expect(hands.slip.getByRole("listitem").first()).toContainText("as found");

  await expect(page.getByRole("list", { name: "Both directions" })).toContainText("fail");
  await expect(card).toContainText("try an eighth of a turn");
  // so slowly that no whole cycle is missed
  await hands.turn(-90, "AZ FWD", true);
  // a quarter turn of 40′ a turn takes about 200° off, whole cycles followed
  await expect(phase).toHaveAttribute("aria-valuetext", /(pass|close|fail)$/);
  expect(Number(await phase.getAttribute("aria-valuenow"))).toBeLessThan(400);
  expect(Number(await phase.getAttribute("aria-valuenow"))).toBeGreaterThan(250);
  await expect(page.getByRole("link", { name: "Azimuth found" })).toBeVisible();
});

test("level: both channels, balance, the arithmetic, and the machine's own meter", async ({ page }) => {
  const hands = await play(page, "level", /SSA-10/, "channels 3 dB apart");
  const level = (channel: string) => page.getByRole("meter", { name: `Playback level error ${channel}` });
  await expect(level("left")).toHaveAttribute("aria-valuetext", /fail$/);
  expect(Number(await level("left").getAttribute("aria-valuenow"))).toBeCloseTo(-1.6, 0);
  expect(Number(await level("right").getAttribute("aria-valuenow"))).toBeCloseTo(1.4, 0);
  await expect(page.getByRole("meter", { name: "Channel balance" })).toHaveAttribute(
    "aria-valuetext",
    /^−3\./,
  );
  await expect(page.getByRole("table")).toContainText("certificate, left");
  await page.keyboard.press("f");
  await expect(hands.slip.getByRole("listitem")).toHaveCount(3);
  await page.getByLabel("Meter, left").fill("-2");
  await page
    .getByRole("region", { name: "The machine's own meter shows, dB" })
    .getByRole("button", { name: "Log" })
    .first()
    .click();
  await expect(page.getByRole("region", { name: "The machine's own meter shows, dB" })).toContainText(
    "off by −0.4",
  );
  await expect(page.getByRole("link", { name: "Level found" })).toBeVisible();
  // back from the sheet, what was measured of the running source is still there, though its band has gone by
  await page.getByRole("banner").getByRole("link", { name: "Sheet" }).click();
  await expect(page).toHaveURL(/\/sheet$/);
  await page.goBack();
  await expect(level("left")).toHaveAttribute("aria-valuetext", /^−1\.\d+/);
  await expect(level("right")).toHaveAttribute("aria-valuetext", /^\+?1\.4\d*/);
});

test("response: a sweep draws the curve while it plays, noise draws it again, and it goes out as CSV", async ({
  page,
}) => {
  const hands = await play(page, "response", /SSA-16/, "dull and bright: equalisers off");
  const worst = page.getByRole("meter", { name: "Largest response error" });
  const panel = page.getByRole("region", { name: "Response" });
  await expect(panel).toContainText("the sweep to its end");
  await page.keyboard.press("f");
  await expect(page.getByRole("alert").first()).toContainText("Not heard yet");
  await expect(panel).not.toContainText("the sweep to its end");
  const swept = Number(await worst.getAttribute("aria-valuenow"));
  expect(swept).toBeLessThan(-3);
  expect(swept).toBeGreaterThan(-4);
  await page.keyboard.press("f");
  await expect(hands.slip.getByRole("listitem").first()).toContainText("as found");

  const sources = page.getByRole("group", { name: "Read from" });
  await expect(sources.getByRole("button", { name: "noise" })).toHaveAttribute("aria-pressed", "true");
  await expect(panel).not.toContainText("more of the noise");
  expect(Math.abs(Number(await worst.getAttribute("aria-valuenow")) - swept)).toBeLessThan(0.5);
  await sources.getByRole("button", { name: "sweep" }).click();
  await expect(worst).toHaveAttribute("aria-valuenow", String(swept));

  const download = page.waitForEvent("download");
  await page.getByRole("button", { name: "CSV" }).click();
  const file = await download;
  expect(file.suggestedFilename()).toMatch(/response.*\.csv$/);
  const text = await readFile(await file.path(), "utf8");
  expect(text.split("\r\n")[0]).toMatch(/^channel,frequencyHz,levelDb/);
  expect(text.split("\r\n").length).toBeGreaterThan(90);
  await page.getByRole("button", { name: "what it means" }).click();
  await expect(page.getByRole("region", { name: "What left looks like" })).toContainText(
    "treble time constant",
  );
});

test("a tape that cannot tell says so, and the path is written down", async ({ page }) => {
  const hands = new BenchHands(page);
  await hands.open("demo-job-0415", "azimuth");
  await expect(page.getByRole("region", { name: "Azimuth" })).toContainText("has no tone above 4 kHz");
  await page.keyboard.press("f");
  await expect(page.getByRole("alert").first()).toContainText("start a source first");

  await page.goto("/jobs/demo-job-0415/bench/path");
  await page.getByLabel("Guide or head").fill("Supply guide");
  await page.getByLabel("Height, mm").fill("1,9");
  await page.getByLabel("sealed", { exact: true }).check();
  await page.getByRole("button", { name: "Write it down" }).click();
  await expect(page.getByRole("list", { name: "Gauged" })).toContainText("1.90");
  await page.getByLabel("Guide or head").fill("Head");
  await page.getByLabel("Height, mm").fill("high");
  await expect(page.getByText("The height is a number of millimetres")).toBeVisible();
  await expect(page.getByRole("button", { name: "Write it down" })).toBeDisabled();
  await page.goto("/jobs/demo-job-0415/sheet");
  await expect(page.getByRole("article")).toContainText("Supply guide, direction A: 1.90");
});

test("a station can be left out of the route", async ({ page }) => {
  await page.goto("/jobs/demo-job-0415");
  await page.getByRole("checkbox", { name: "Response", exact: true }).click();
  await expect(page.getByRole("link", { name: /^Response/ })).toHaveCount(0);
  await expect(page.getByRole("link", { name: /^Level/ })).toBeVisible();
});
