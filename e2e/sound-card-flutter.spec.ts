import type { Locator } from "@playwright/test";
import { expect, test } from "./test";
import { BenchHands } from "./bench-hands";

test("the sound card is heard live: speed and level as they are in the file", async ({ page }) => {
  const hands = new BenchHands(page);
  await hands.open("demo-job-0415", "speed");
  await page.getByRole("button", { name: "Sound card" }).click();
  // looked at in one moment: in the next it may be gone, where a busy machine loses sound
  const look = (figure: Locator, truth: number) =>
    figure.evaluate(
      (meter, expected) => ({
        settled: /(pass|close|fail)$/.test(meter.getAttribute("aria-valuetext") ?? ""),
        off: Math.abs(Number(meter.getAttribute("aria-valuenow")) - expected),
        told: Number(/±\s*([\d.]+)/.exec(meter.textContent ?? "")?.[1]),
      }),
      truth,
    );
  let speed = await look(hands.speed, 1.25);
  await expect.poll(async () => (speed = await look(hands.speed, 1.25)).settled).toBe(true);
  // a few lost places are bridged, and widen the ±; without them it is a hundredth
  expect(speed.off).toBeLessThan(speed.told + 0.005);
  const level = async (channel: string) =>
    Number(await page.getByRole("meter", { name: `Level ${channel}` }).getAttribute("aria-valuenow"));
  expect(Math.abs((await level("left")) - 20 * Math.log10(0.5))).toBeLessThanOrEqual(0.1);
  expect(Math.abs((await level("right")) - 20 * Math.log10(0.25))).toBeLessThanOrEqual(0.1);

  await page.getByRole("link", { name: /Wow and flutter/ }).click();
  const flutter = page.getByRole("meter", { name: "Weighted peak flutter" });
  // on a busy machine sound may be lost: then that is said, and no figure is called settled
  const lost = page.getByText(/Sound was lost in \d+ places/);
  let seen = await look(flutter, 0.2);
  await expect
    .poll(async () => (seen = await look(flutter, 0.2)).settled || (await lost.count()) > 0, {
      intervals: [200],
    })
    .toBe(true);
  if (seen.settled) expect(seen.off).toBeLessThan(seen.told + 0.005);
});
