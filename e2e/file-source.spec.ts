import { expect, test } from "./test";
import { BenchHands } from "./bench-hands";
import { CUT, LONG, NOT_WAV, SLOW } from "./sounds";

test("a dropped WAV is measured by the same stations and can be logged", async ({ page }) => {
  const hands = new BenchHands(page);
  await hands.open("demo-job-0415", "speed");
  await page.getByLabel("Sound file").setInputFiles(SLOW);
  await expect(hands.speed).toHaveAttribute("aria-valuetext", /fail/);
  expect(Number(await hands.speed.getAttribute("aria-valuenow"))).toBeCloseTo(-0.8, 3);
  await page.keyboard.press("Space");
  await expect(hands.slip).toContainText("−0.80");

  await page.getByRole("link", { name: /Wow and flutter/ }).click();
  const flutter = page.getByRole("meter", { name: "Weighted peak flutter" });
  await expect(flutter).toHaveAttribute("aria-valuenow", /0\.03/); // ±0.05 % at 1 Hz, weighted −4.2 dB
  await page.keyboard.press("f");
  await expect(hands.slip).toContainText("as found");
});

test.describe("files that cannot be measured", () => {
  for (const [name, file, why] of [
    ["not a WAV file", NOT_WAV, /not a WAV file/],
    ["a WAV file cut short", CUT, /cut short|format chunk/],
  ] as const)
    test(`${name}: says why and loses nothing`, async ({ page }) => {
      const hands = new BenchHands(page);
      await hands.open("demo-job-0412", "speed");
      const logged = await hands.slip.getByRole("listitem").count();
      await page.getByLabel("Sound file").setInputFiles(file);
      await expect(page.getByRole("alert").first()).toContainText(why);
      await expect(hands.slip.getByRole("listitem")).toHaveCount(logged);
      await page.keyboard.press("Space");
      await expect(page.getByRole("alert").first()).toContainText("start a source first");
    });
});

test("a long file shows progress and can be cancelled", async ({ page }) => {
  const hands = new BenchHands(page);
  await hands.open("demo-job-0412", "speed");
  await page.getByLabel("Sound file").setInputFiles(LONG);
  await expect(page.getByRole("progressbar", { name: "Measuring the file" })).toBeVisible();
  await page.getByRole("button", { name: "Cancel" }).click();
  await expect(page.getByText("No source")).toBeVisible();
});
