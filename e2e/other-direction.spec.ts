import { expect, test } from "./test";
import { BenchHands, FOUR_TIMES } from "./bench-hands";

test("what comes across from tracks of the other direction is heard on a blank place, and told re 0", async ({
  page,
}) => {
  const hands = new BenchHands(page);
  const turnOver = () => page.getByRole("button", { name: "Turn over" }).click();
  await hands.open("demo-job-0409", "noise");
  await page.keyboard.press("b");
  await hands.play("the other side is heard: head too low", FOUR_TIMES);
  await page.keyboard.press("p");
  // what the noise is held against comes first
  await page.getByRole("button", { name: /Record the sequence/ }).click();
  await expect(page.getByRole("status", { name: "Recording" })).toContainText("came back whole");
  await page.getByRole("button", { name: "the other direction's tones" }).click();
  await page.keyboard.press("p");
  await turnOver();
  await page.keyboard.press("p");
  await page.getByRole("button", { name: "First the tones on the other side" }).click();
  await hands.tapeHasRun(18);
  await page.keyboard.press("p");
  await turnOver();
  await page.getByRole("button", { name: "Play", exact: true }).click();
  await page.keyboard.press("p");
  const right = page.getByRole("meter", { name: "Crosstalk of the other direction at 1 kHz right" });
  await expect
    .poll(async () => Math.abs(Number(await right.getAttribute("aria-valuenow")) + 30))
    .toBeLessThan(1.5);
  await expect(page.getByText("10 kHz of the other direction", { exact: true }).first()).toBeVisible();
});
