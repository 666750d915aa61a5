import { expect, test } from "./test";
import { choose } from "./choose";

test.beforeEach(async ({ page }) => {
  await page.goto("/");
  await expect(page.getByRole("article").first()).toBeVisible();
  await page.goto("/rules");
});

test("the slide rules of the playback side answer as they are set", async ({ page }) => {
  const rule = (name: string) => page.getByRole("region", { name, exact: true });
  const fluxivity = rule("Fluxivity");
  await expect(fluxivity).toContainText("+1.14 dB");
  await fluxivity.getByLabel("Machine, nWb/m").fill("250");
  await expect(fluxivity).toContainText("−0.80 dB");

  const equalisation = rule("Equalisation");
  await expect(equalisation).toContainText("−3.35 dB");
  await expect(equalisation.getByRole("img", { name: "Equalisation curves" })).toBeVisible();
  await choose(equalisation.getByRole("combobox", { name: "Machine" }), /3180\/120/);
  await expect(equalisation).toContainText("0.00 dB");

  const azimuth = rule("Azimuth");
  await azimuth.getByLabel("Phase, °").fill("19,8");
  await expect(azimuth).toContainText("+1.00′");
  await expect(azimuth).toContainText("+5.5 µs");

  await expect(rule("Wavelength and losses")).toContainText("4.76 µm");
  const load = rule("Head and its load");
  await load.getByLabel("Wanted lift, dB").fill("3");
  await expect(load).toContainText("470 pF");
  await expect(load).toContainText("23.2 kHz");

  const decibels = rule("Decibels");
  await decibels.getByLabel("Level, V or %").fill("1");
  await expect(decibels).toContainText("+2.22 dBu");
  await expect(decibels).toContainText("−40.0 dB");
  await expect(rule("Parts in parallel and in series")).toContainText("exactly 60.00");
});

test("what is typed into a rule is still there after a reload, and nonsense gets no answer", async ({
  page,
}) => {
  const azimuth = page.getByRole("region", { name: "Azimuth", exact: true });
  await azimuth.getByLabel("Phase, °").fill("steep");
  await expect(azimuth.getByLabel("Phase, °")).toHaveAttribute("aria-invalid", "true");
  await expect(azimuth).not.toContainText("of tilt");
  await azimuth.getByLabel("Phase, °").fill("45");
  await expect(azimuth).toContainText("of tilt");
  await page.reload();
  await expect(azimuth.getByLabel("Phase, °")).toHaveValue("45");
});

test("the belt that goes on is written into a job, where what it did to the speed is asked for", async ({
  page,
}) => {
  await page.goto("/");
  await expect(page.getByRole("article")).toHaveCount(4);
  await page.goto("/rules");
  await page.getByLabel("Old belt at rest, mm").fill("212");
  await page.getByLabel("New thickness, mm").fill("1.5");
  await page.getByLabel("Which belt it is").fill("main belt");
  await choose(page.getByRole("combobox", { name: "Into the job" }), /0398/);
  await page.getByRole("button", { name: "It goes on" }).click();
  await page.getByRole("link", { name: "main belt is in the job." }).click();
  const aside = page.getByRole("region", { name: "Service and parts" });
  await expect(aside).toContainText(/main belt.*predicted \+\d\.\d+/s);
  await expect(aside).toContainText("Log the speed before the belt is changed and after it");
});
