import { expect, test } from "./test";
import { BenchHands } from "./bench-hands";

test("another tone than the tape's is named, not measured", async ({ page }) => {
  const hands = new BenchHands(page);
  await hands.open("demo-job-0415", "speed");
  await page.getByRole("button", { name: "Sound card" }).click();
  await expect(hands.speed).toHaveAttribute(
    "aria-valuetext",
    /strongest tone is (999|1000|1002) Hz, not 3150 Hz/,
  );
  await page.keyboard.press("f");
  await expect(page.getByRole("alert").first()).toContainText("no steady tone");
});
