import { expect, test } from "./test";
import { BenchHands, figureOf, settledFigure } from "./bench-hands";

test("the sound card is heard live: speed and level as they are in the file", async ({ page }) => {
  const hands = new BenchHands(page);
  await hands.open("demo-job-0415", "speed");
  await page.getByRole("button", { name: "Sound card" }).click();
  const speed = await settledFigure(hands.speed);
  // a few lost places are bridged, and widen the ±
  expect(Math.abs(speed.value - 1.25)).toBeLessThan(speed.told + 0.005);
  const level = async (channel: string) =>
    Number(await page.getByRole("meter", { name: `Level ${channel}` }).getAttribute("aria-valuenow"));
  expect(Math.abs((await level("left")) - 20 * Math.log10(0.5))).toBeLessThanOrEqual(0.1);
  expect(Math.abs((await level("right")) - 20 * Math.log10(0.25))).toBeLessThanOrEqual(0.1);

  await page.getByRole("link", { name: /Wow and flutter/ }).click();
  const flutter = page.getByRole("meter", { name: "Weighted peak flutter" });
  // on a busy machine sound may be lost: then that is said, and no figure is called settled
  const lost = page.getByText(/Sound was lost in \d+ places/);
  let seen = await figureOf(flutter);
  await expect
    .poll(async () => (seen = await figureOf(flutter)).settled || (await lost.count()) > 0, {
      intervals: [200],
    })
    .toBe(true);
  if (seen.settled) expect(Math.abs(seen.value - 0.2)).toBeLessThan(seen.told + 0.005);
});
