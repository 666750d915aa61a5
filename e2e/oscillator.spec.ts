import { expect, test } from "./test";
import { BenchHands } from "./bench-hands";

test("a recorder that dies warm: the second is found, across a page that is loaded anew, and the counter's figure is kept", async ({
  page,
}) => {
  const hands = new BenchHands(page);
  await hands.open("demo-job-0409", "oscillator");
  await hands.play("recordings die: the oscillator, warm");
  await page.keyboard.press("p");
  // forty seconds of recording until it dies, some of them over the old tone
  await page.getByRole("button", { name: "First the tone to be erased" }).click();
  await hands.tapeHasRun(20);
  await page.getByRole("button", { name: "Both tones, steady" }).click();
  const holds = page.getByRole("meter", { name: "Recording holds" });
  const says = page.getByRole("status", { name: "The watch" });
  await expect(says).toContainText("Everything holds so far");
  await expect(holds).toHaveAttribute("aria-valuetext", /not told yet/);
  await page.keyboard.press("f");
  await expect(page.getByRole("alert").filter({ hasText: "Leave it running" })).toBeVisible();
  await page.reload();
  // it went on by itself, from where it was
  const causes = page.getByRole("list", { name: "What it usually means" });
  await expect(causes).toContainText(/the oscillator stopped/i);
  const seconds = Number(await holds.getAttribute("aria-valuenow"));
  expect(seconds).toBeGreaterThan(8);
  expect(seconds).toBeLessThan(21);
  await page.keyboard.press("f");
  await expect(hands.slip.getByRole("listitem").first()).toContainText("as found");

  await page.getByRole("textbox", { name: "kHz" }).fill("8,5");
  await expect(page.getByText("is that in kHz?")).toBeVisible();
  await page.getByRole("textbox", { name: "kHz" }).fill("85,2");
  await page.getByRole("button", { name: "As found, both" }).click();
  await expect(page.getByRole("region", { name: /A counter across/ })).toContainText("85.2");
});
