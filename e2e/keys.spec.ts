import { expect, test } from "./test";
import { BenchHands } from "./bench-hands";

test("a held key logs once, and none acts while a dialog is open", async ({ page }) => {
  const hands = new BenchHands(page);
  await hands.open("demo-job-0415", "speed");
  await hands.play("nothing wrong");
  await page.keyboard.press("p");
  await hands.settled();
  await page.keyboard.down("f");
  for (let i = 0; i < 4; i++) await page.keyboard.down("f");
  await page.keyboard.up("f");
  await expect(hands.slip.getByRole("listitem")).toHaveCount(1);
  await page.keyboard.press("?");
  await expect(page.getByRole("dialog", { name: "Keys" })).toBeVisible();
  await page.keyboard.press("l");
  await page.keyboard.press("Escape");
  await expect(page.getByRole("dialog")).toHaveCount(0);
  await expect(hands.slip.getByRole("listitem")).toHaveCount(1);
});

test("after a choice from a list the next key is the bench's, and chooses nothing in the list", async ({
  page,
}) => {
  const hands = new BenchHands(page);
  await hands.open("demo-job-0415", "azimuth");
  const tape = page.getByRole("combobox", { name: "Tape in the machine" });
  await hands.choose("Tape in the machine", /SSA-14/);
  await expect(tape).toContainText("SSA-14");
  await expect(tape).not.toBeFocused();
  await page.keyboard.press("s");
  await page.keyboard.press("f");
  await expect(page.getByText(/There is nothing to log yet/)).toBeVisible();
  await expect(tape).toContainText("SSA-14");
});
