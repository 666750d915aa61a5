import { expect, test } from "./test";
import { BenchHands, FOUR_TIMES } from "./bench-hands";

test("bias: the sequence is recorded, heard off the tape, learned from a trial turn, and the card says how far", async ({
  page,
}) => {
  const hands = new BenchHands(page);
  await hands.open("demo-job-0409", "bias");
  const said = page.getByRole("status", { name: "Recording" });
  await expect(said).toContainText("Say which blank tape");
  await page.keyboard.press("b");
  await hands.recordsOn(/SSA plain cassette/);
  await hands.play("bias left and right apart", FOUR_TIMES);
  await page.keyboard.press("p");
  const logged = await hands.slip.getByRole("listitem").count();
  const record = page.getByRole("button", { name: /^Record the sequence/ });
  await record.click();
  await expect(said).toContainText("came back whole");
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
  await expect(said).toContainText("came back whole");
  await expect(page.getByRole("img", { name: /Bias of the left channel/ })).toBeVisible();
  await expect(left).toHaveAttribute("aria-valuetext", /(pass|close|fail)$/);
});

test("bias is watched off the tape: the number follows the screw, the card says how far yet, and stops", async ({
  page,
}) => {
  const hands = new BenchHands(page);
  await hands.open("demo-job-0409", "bias");
  await page.keyboard.press("b");
  // the tones last for so long of the tape: hurried, they would end before a busy machine has done all that follows
  await hands.play("bias left and right apart");
  const monitor = page.getByRole("group", { name: "Monitor of the deck" });
  await monitor.getByRole("button", { name: "source" }).click();
  await page.getByRole("button", { name: "Both tones, steady" }).click();
  const hears = page.getByRole("status", { name: "Monitor" });
  await expect(hears).toContainText("hears the source");
  const card = page.getByRole("region", { name: "Turn", exact: true });
  await expect(card).toContainText("switch the monitor to tape");
  await monitor.getByRole("button", { name: "tape" }).click();
  await expect(hears).toContainText("hears the tape");
  const left = page.getByRole("meter", { name: "Bias error left" });
  // one setting gives about how far bias is off, and no verdict unless it is far
  await expect(left).toHaveAttribute("aria-valuetext", /^−[1-3]\.\d.dB, (cannot be told|close|fail)$/);
  const logged = await hands.slip.getByRole("listitem").count();
  await page.keyboard.press("f");
  await expect(hands.slip.getByRole("listitem")).not.toHaveCount(logged);
  await expect(card).toContainText("try an eighth");
  await hands.turn(45, "BIAS L I");
  await expect(card).toContainText(/clockwise, /);
  // on by hand, and not told yet: where it is shows all the same
  const slot = page.getByRole("slider", { name: /BIAS L I, practice trimmer/ });
  await slot.focus();
  for (let i = 0; i < 6; i++) await page.keyboard.press("ArrowRight");
  await slot.blur();
  await expect(card).toContainText(/more|stop there|say that you turned it/);
  await page.keyboard.press("l");
  await expect(page.getByRole("alert").filter({ hasText: "say so first" })).toBeVisible();
});

test("bias by the maker's figure: the figure stays with the machine, what the meter shows is judged and turned by", async ({
  page,
}) => {
  const hands = new BenchHands(page);
  await hands.open("demo-job-0409", "bias");
  await page.keyboard.press("b");
  await page.getByRole("button", { name: "maker's figure" }).click();
  const card = page.getByRole("region", { name: "Turn", exact: true });
  await expect(card).toContainText("read the meter");
  const figure = page.getByRole("textbox", { name: "Figure" });
  await figure.fill("-3");
  await expect(page.getByRole("button", { name: "Keep" })).toBeDisabled();
  await figure.fill("4,5");
  await page.getByRole("button", { name: "Keep" }).click();
  await page.getByRole("textbox", { name: "mV, left" }).fill("3.6");
  await page.getByRole("button", { name: "As found, left", exact: true }).click();
  // 20 lg (3.6 / 4.5)
  const left = page.getByRole("meter", { name: "Bias error left" });
  await expect(left).toHaveAttribute("aria-valuenow", /^-1\.9/);
  await expect(left).toHaveAttribute("aria-valuetext", /fail$/);
  await expect(card).toContainText(/clockwise/);
  await page.reload();
  // what is recorded on is kept: the key would go on to the next tape
  await hands.recordsOn(/SSA plain cassette/);
  await expect(page.getByText("4.5 mV")).toBeVisible();
});

test("0 is set once per job, and the meter in record is held against it", async ({ page }) => {
  const hands = new BenchHands(page);
  await hands.open("demo-job-0409", "record-level");
  await page.keyboard.press("b");
  // the tone lasts for so long of the tape: hurried, it could end before a busy machine has seen it stand
  await hands.play("nothing wrong");
  await page.keyboard.press("p");
  await expect(page.getByText("set 0 first")).toHaveCount(2);
  await page.getByRole("button", { name: "Set 0" }).click();
  const shows = page.getByRole("button", { name: "It shows 0" });
  await expect(shows).toBeDisabled();
  await page.getByRole("button", { name: "Send the level tone" }).click();
  await expect(page.getByRole("status", { name: "What goes in" })).toContainText("−12.0");
  await shows.click();
  await expect(page.getByRole("button", { name: "0 is set" })).toBeVisible();
  await expect(page.getByText(/hears the source/)).toBeVisible();
  const meter = page.getByRole("textbox", { name: "Meter, left" });
  await meter.fill("0.5");
  const section = page.getByRole("region", { name: "The machine's own meter shows in record, dB" });
  await section.getByRole("button", { name: "Log" }).first().click();
  await expect(section).toContainText("off by +0.5");
});
