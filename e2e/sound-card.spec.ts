import { expect, test } from "@playwright/test";
import { BenchHands } from "./bench-hands";

test("the sound card is heard live: speed and level as they are in the file", async ({ page }) => {
  const hands = new BenchHands(page);
  await hands.open("demo-job-0415", "speed");
  await page.getByRole("button", { name: "Sound card" }).click();
  await expect(hands.speed).toHaveAttribute("aria-valuetext", /fail$/, { timeout: 20_000 });
  expect(Math.abs(Number(await hands.speed.getAttribute("aria-valuenow")) - 1.25)).toBeLessThan(0.01);
  const level = async (channel: string) =>
    Number(await page.getByRole("meter", { name: `Level ${channel}` }).getAttribute("aria-valuenow"));
  expect(Math.abs((await level("left")) - 20 * Math.log10(0.5))).toBeLessThanOrEqual(0.1);
  expect(Math.abs((await level("right")) - 20 * Math.log10(0.25))).toBeLessThanOrEqual(0.1);

  await page.getByRole("link", { name: /Wow and flutter/ }).click();
  const flutter = page.getByRole("meter", { name: "Weighted peak flutter" });
  await expect(flutter).toHaveAttribute("aria-valuetext", /(pass|close|fail)$/, { timeout: 40_000 });
  expect(Math.abs(Number(await flutter.getAttribute("aria-valuenow")) - 0.2)).toBeLessThan(0.01);
});

test("results come about ten times a second and the page stays free", async ({ page }) => {
  const hands = new BenchHands(page);
  await hands.open("demo-job-0415", "speed");
  await page.getByRole("button", { name: "Sound card" }).click();
  await hands.settled();
  const { results } = await page.evaluate(async () => {
    let results = 0;
    const bars = document.querySelector('[aria-label="Level left"]')!.parentElement!;
    const watch = new MutationObserver(() => results++);
    watch.observe(bars, { subtree: true, attributes: true, characterData: true, childList: true });
    await new Promise((done) => setTimeout(done, 3000));
    watch.disconnect();
    return { results };
  });
  expect(results).toBeGreaterThan(10);
});
