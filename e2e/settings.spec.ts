import { expect, test } from "./test";
import { BenchHands, FOUR_TIMES } from "./bench-hands";

test("a new blank: one run gives its passport, the front is kept, and the owner's card says both", async ({
  page,
}) => {
  const hands = new BenchHands(page);
  await hands.open("demo-job-0409", "settings");
  /** How far down the bench a button stands. */
  const down = async (name: RegExp) => {
    const button = await page.getByRole("button", { name }).boundingBox();
    const bench = await page.getByRole("main").boundingBox();
    return Math.round(button!.y - bench!.y);
  };
  const before = await down(/Loud tones will leave/);
  await page.keyboard.press("b");
  await hands.play("nothing wrong", FOUR_TIMES);
  await page.keyboard.press("p");
  await page.keyboard.press("f");
  await expect(
    page.getByRole("alert").filter({ hasText: /None of the sequence|start a source first/ }),
  ).toBeVisible();
  await page.getByRole("button", { name: /Record the sequence/ }).click();
  await expect(page.getByRole("status", { name: "Recording" })).toContainText("still being heard");
  // what is pressed does not move away as sound comes in
  expect(await down(/Record the sequence/)).toBe(before);
  await expect(page.getByRole("status", { name: "Recording" })).toContainText("came back whole");
  await page.keyboard.press("l");
  const passport = page.getByRole("region", { name: "Passport of the tape" });
  await expect(passport).toContainText("comes back as loud as it went in");
  await expect(passport.getByRole("table", { name: "Drop-outs by depth and length" })).toBeVisible();
  await page.getByRole("textbox", { name: "What else is set for it" }).fill("tape switch I");
  await page.getByRole("button", { name: "Keep for this tape" }).click();
  await expect(page.getByRole("button", { name: "Kept for this tape" })).toBeVisible();
  await page.getByRole("link", { name: "Owner's card" }).click();
  const card = page.getByRole("main");
  await expect(card).toContainText("tape switch I");
  await expect(card).toContainText("BIAS at 12 o'clock, its middle");
  await expect(card).toContainText("record peaks up to");
  await page.getByRole("link", { name: "Sheet" }).click();
  await expect(page.getByRole("main")).toContainText("Owner's card");
});
