import { expect, test, type Page } from "./test";
import { BenchHands, FOUR_TIMES } from "./bench-hands";

const monitor = (page: Page) => page.getByRole("status", { name: "Monitor" });
const returned = (page: Page, channel: string) =>
  page.getByRole("meter", { name: `Record level error ${channel}` });

test("record level: source and tape are told apart, read, turned and logged for a blank tape", async ({
  page,
}) => {
  const hands = new BenchHands(page);
  await hands.open("demo-job-0409", "record-level");
  await page
    .getByRole("group", { name: "Recording on" })
    .getByRole("button", { name: /SSA plain cassette/ })
    .click();
  const logged = await hands.slip.getByRole("listitem").count();
  await hands.play("record levels off", FOUR_TIMES);
  await hands.choose("Tape", "Blank tape");
  await hands.choose("Record takes in", "Level tone");
  const switchTo = (what: string) =>
    page.getByRole("group", { name: "Monitor of the deck" }).getByRole("button", { name: what }).click();
  await switchTo("source");
  await page.getByRole("group", { name: "Transport keys" }).getByRole("button", { name: "Record" }).click();
  await expect(monitor(page)).toContainText("hears the source");
  await switchTo("tape");
  await expect(monitor(page)).toContainText("hears the tape");
  await expect(returned(page, "left")).toHaveAttribute("aria-valuetext", /fail$/);
  expect(Number(await returned(page, "left").getAttribute("aria-valuenow"))).toBeLessThan(-2);
  expect(Number(await returned(page, "right").getAttribute("aria-valuenow"))).toBeGreaterThan(1);
  await page.keyboard.press("f");
  await expect(hands.slip.getByRole("listitem")).toHaveCount(logged + 2);
  await expect(hands.slip.getByRole("listitem").first()).toContainText(
    /as found, (left|right), SSA plain cassette/,
  );
  await hands.turn(45, "REC LEVEL L I");
  await expect(returned(page, "left")).toHaveAttribute("aria-valuetext", /(pass|close|fail)$/);
  const advice = await hands.advice();
  expect(advice).toBeGreaterThan(20);
  // said by hand it stays so, until it is taken back
  await page.keyboard.press("m");
  await expect(monitor(page)).toContainText("hears the source");
  await expect(monitor(page)).toContainText("said by hand");
});
