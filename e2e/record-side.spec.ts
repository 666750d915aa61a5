import { expect, test } from "@playwright/test";
import { BenchHands } from "./bench-hands";

test("bias: the sequence is recorded, heard off the tape, learned from a trial turn, and the card says how far", async ({
  page,
}) => {
  test.setTimeout(240_000);
  const hands = new BenchHands(page);
  await hands.open("demo-job-0409", "bias");
  const said = page.getByRole("status", { name: "Recording" });
  await expect(said).toContainText("Say which blank tape");
  await page.keyboard.press("b");
  await expect(
    page.getByRole("group", { name: "Recording on" }).getByRole("button", { name: /SSA plain cassette/ }),
  ).toHaveAttribute("aria-pressed", "true");
  await hands.play("under-biased: bright and harsh");
  await page.keyboard.press("p");
  const logged = await hands.slip.getByRole("listitem").count();
  const record = page.getByRole("button", { name: /^Record the sequence/ });
  await record.click();
  await expect(said).toContainText("came back whole", { timeout: 60_000 });
  const left = page.getByRole("meter", { name: "Bias error left" });
  await page.keyboard.press("f");
  await expect(hands.slip.getByRole("listitem")).not.toHaveCount(logged);
  expect(Number(await left.getAttribute("aria-valuenow"))).toBeLessThan(-0.5);
  // a trial turn, and once more
  await page.keyboard.press("p");
  const slot = page.getByRole("slider", { name: /BIAS L I, practice trimmer/ });
  await slot.focus();
  for (let i = 0; i < 8; i++) await page.keyboard.press("ArrowRight");
  await expect(slot).toHaveAttribute("aria-valuenow", "45");
  await slot.blur();
  await page.keyboard.press("t");
  await expect(said).toContainText("turned since");
  await page.keyboard.press("p");
  await record.click();
  await expect(said).toContainText("came back whole", { timeout: 60_000 });
  await expect(page.getByRole("img", { name: /Bias of the left channel/ })).toBeVisible();
  await expect(left).toHaveAttribute("aria-valuetext", /(pass|close|fail)$/);
});
