import { expect, test } from "./test";
import { BenchHands } from "./bench-hands";
import { SLOW } from "./sounds";

test("file, turn, another file: each is logged, and nothing of the first after the turn", async ({
  page,
}) => {
  const hands = new BenchHands(page);
  await hands.open("demo-job-0415", "speed");
  const logged = await hands.slip.getByRole("listitem").count();
  const file = page.getByLabel("Sound file");
  await file.setInputFiles(SLOW);
  await expect(hands.speed).toHaveAttribute("aria-valuetext", /fail/);
  await page.keyboard.press("f");
  await expect(hands.slip.getByRole("listitem")).toHaveCount(logged + 1);
  await page.keyboard.press("t");
  await expect(hands.slip.getByRole("listitem")).toHaveCount(logged + 2);
  // what was measured before the turn is not logged as left
  await page.keyboard.press("l");
  await expect(page.getByRole("alert").first()).toContainText("was turned after this recording");
  await expect(hands.slip.getByRole("listitem")).toHaveCount(logged + 2);
  await file.setInputFiles(SLOW);
  await expect(hands.speed).toHaveAttribute("aria-valuetext", /fail/);
  // what the turn did is kept automatically, as it is of a live source
  await expect(hands.slip.getByRole("listitem")).toHaveCount(logged + 3);
  await page.keyboard.press("l");
  await expect(hands.slip).toContainText("as left");
  await expect(hands.slip.getByRole("listitem")).toHaveCount(logged + 4);
});
