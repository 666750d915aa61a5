import { expect, test } from "@playwright/test";
import { BenchHands, FOUR_TIMES, REAL_TIME } from "./bench-hands";
import { BANDS, SLOW } from "./sounds";
import { choose } from "./choose";

const shot = (name: string) => ({ path: `docs/screenshots/${name}.png` });

test("pictures of every main view", async ({ page }) => {
  test.setTimeout(900_000);
  const hands = new BenchHands(page);
  await page.goto("/");
  await expect(page.getByRole("article")).toHaveCount(4);
  await page.screenshot(shot("floor"));

  await page.goto("/jobs/new");
  await choose(page.getByRole("combobox", { name: "Machine" }), "Ellesby C-3H");
  await page.getByLabel("Who to call").fill("transfer room");
  await page.getByLabel("Complaint, in the owner's words").fill("Slow, and the left side comes and goes.");
  await page.getByRole("button", { name: "Runs slow" }).click();
  await expect(page.getByRole("article", { name: "Job 0409" })).toBeVisible();
  await expect(page.getByRole("article", { name: "Job 0415" })).toBeVisible();
  await page.screenshot(shot("new-job"));
  await page.getByRole("button", { name: "Clear" }).click();

  await page.goto("/jobs/demo-job-0415/bench/functions");
  const tried = page.getByRole("region", { name: "Functions", exact: true }).getByRole("status");
  for (const next of ["Door", "Play and stop", "Pause", "Meters", "Lamps"]) {
    await expect(tried).toContainText(next);
    await page.keyboard.press("1");
  }
  await expect(tried).toContainText("Headphone output");
  await page.getByLabel("What it does").fill("right side crackles");
  await page.getByRole("button", { name: "Faulty" }).click();
  await page.waitForTimeout(300);
  await page.screenshot(shot("bench-functions"));

  await page.goto("/jobs/demo-job-0415/bench/intake");
  await expect(page.getByRole("list", { name: "Before anything is opened" })).toBeVisible();
  await page.screenshot(shot("bench-intake"));

  await hands.open("demo-job-0415", "speed");
  await hands.play("2 % slow, lumpy belt");
  await hands.settled();
  await page.keyboard.press("f");
  await hands.turn(45);
  await hands.settled();
  const advice = await hands.advice();
  await page.screenshot(shot("bench-speed-practice"));
  await page.keyboard.press("p");
  await page.screenshot(shot("bench-speed"));
  await page.keyboard.press("p");
  await hands.turn(advice ?? 0);
  await hands.settled();
  await page.keyboard.press("l");
  await page.keyboard.press("p");

  await page.getByRole("link", { name: /Wow and flutter/ }).click();
  await page.waitForTimeout(25_000);
  await page.keyboard.press("f");
  await expect(hands.slip).toContainText("as found");
  await page.screenshot(shot("bench-flutter"));

  await page.emulateMedia({ colorScheme: "dark" });
  await page.getByRole("link", { name: /^Speed/ }).click();
  await expect(hands.speed).toBeVisible();
  await page.waitForTimeout(500);
  await page.goto("/jobs/demo-job-0398/bench/service");
  await expect(page.getByRole("region", { name: "Strip-down log" })).toContainText("Goes on next");
  await page.screenshot(shot("bench-service"));
  await page.emulateMedia({ colorScheme: "light" });

  await hands.open("demo-job-0412", "azimuth");
  await page.goto("/jobs/demo-job-0415/bench/azimuth");
  await hands.choose("Tape in the machine", /SSA-14/);
  await hands.play("azimuth off, differently each way");
  await expect(page.getByRole("contentinfo")).toContainText("10 kHz", { timeout: 90_000 });
  const phase = page.getByRole("meter", { name: "Azimuth phase at 10 kHz" });
  await expect(phase).toHaveAttribute("aria-valuetext", /fail$/, { timeout: 30_000 });
  await page.keyboard.press("f");
  await hands.turn(-20, "AZ FWD");
  await expect(phase).toHaveAttribute("aria-valuetext", /(pass|close|fail)$/, { timeout: 30_000 });
  await page.keyboard.press("p");
  await page.waitForTimeout(1500);
  await page.screenshot(shot("bench-azimuth"));
  await page.getByRole("button", { name: "Stop" }).click();

  await page.goto("/jobs/demo-job-0415/bench/level");
  await hands.choose("Tape in the machine", /SSA-10/);
  await hands.play("dull and bright: equalisers off", FOUR_TIMES);
  await page.keyboard.press("p");
  await expect(page.getByRole("meter", { name: "Channel balance" })).toHaveAttribute(
    "aria-valuetext",
    /(pass|close|fail)$/,
    { timeout: 30_000 },
  );
  await page.getByRole("link", { name: /^Response/ }).click();
  await expect(page.getByRole("contentinfo")).toContainText("12.5 kHz", { timeout: 300_000 });
  await page.waitForTimeout(6000);
  await page.screenshot(shot("bench-response"));

  await hands.open("demo-job-0409", "record-level");
  await page.getByRole("group", { name: "Recording on" }).getByRole("button").first().click();
  await hands.play("record levels off", REAL_TIME);
  await hands.choose("Tape", "Blank tape");
  await hands.choose("Record takes in", "Level tone");
  const monitor = page.getByRole("group", { name: "Monitor of the deck" });
  await monitor.getByRole("button", { name: "source" }).click();
  await page.getByRole("group", { name: "Transport keys" }).getByRole("button", { name: "Record" }).click();
  await expect(page.getByRole("status", { name: "Monitor" })).toContainText("the source", {
    timeout: 30_000,
  });
  await monitor.getByRole("button", { name: "tape" }).click();
  await expect(page.getByRole("meter", { name: "Record level error left" })).toHaveAttribute(
    "aria-valuetext",
    /fail$/,
    { timeout: 30_000 },
  );
  await page.waitForTimeout(9000); // until it has firmed up
  await page.keyboard.press("p");
  await page.getByRole("button", { name: "Stop" }).click();

  // bias watched off the tape at three places of the screw, on the other tape
  await hands.open("demo-job-0409", "bias");
  await page.keyboard.press("b");
  await hands.play("bias left and right apart");
  await monitor.getByRole("button", { name: "source" }).click();
  await page.getByRole("button", { name: "Both tones, steady" }).click();
  const hears = page.getByRole("status", { name: "Monitor" });
  await expect(hears).toContainText("hears the source", { timeout: 30_000 });
  await monitor.getByRole("button", { name: "tape" }).click();
  await expect(hears).toContainText("hears the tape", { timeout: 30_000 });
  const error = page.getByRole("meter", { name: "Bias error left" });
  await expect(error).toHaveAttribute("aria-valuetext", /(pass|close|fail|cannot be told)$/, {
    timeout: 30_000,
  });
  await page.keyboard.press("f");
  for (const degrees of [30, 15]) await hands.turn(degrees, "BIAS L I");
  await page.keyboard.press("p");
  await page.waitForTimeout(5000);
  await page.getByRole("region", { name: "Bias", exact: true }).evaluate((region) => (region.scrollTop = 0));
  await page.screenshot(shot("bench-bias"));
  await page.getByRole("button", { name: "Stop" }).click();

  // a tone is recorded, and the erase sequence over it
  await hands.open("demo-job-0409", "erase");
  await page.keyboard.press("b");
  await hands.play("old programme stays: weak erase", FOUR_TIMES);
  await page.keyboard.press("p");
  await page.getByRole("button", { name: "First the tone to be erased" }).click();
  await hands.tapeHasRun(75);
  await page.getByRole("button", { name: /^Record the sequence/ }).click();
  await expect(page.getByRole("meter", { name: "Erase depth left" })).toHaveAttribute(
    "aria-valuetext",
    /(pass|close|fail)$/,
    { timeout: 120_000 },
  );
  await page.screenshot(shot("bench-erase"));

  // every station takes its figures while the whole tape goes by
  await hands.open("demo-job-0412", "azimuth");
  await page.goto("/jobs/demo-job-0415/bench/speed");
  await hands.choose("Tape in the machine", /SSA-10/);
  await page.waitForTimeout(500);
  await page.keyboard.press("o");
  const pass = page.getByRole("region", { name: "One pass" });
  await hands.play("dirty head, tilted, 0.4 % slow", FOUR_TIMES);
  await page.keyboard.press("p");
  await expect(pass.getByRole("listitem").filter({ hasText: "Level" })).toContainText("taken");
  await expect(page.getByRole("contentinfo")).toContainText("1 kHz", { timeout: 150_000 });
  await expect(pass.getByRole("listitem").filter({ hasText: "Azimuth" })).toContainText(/°.*taken/s, {
    timeout: 150_000,
  });
  await page.waitForTimeout(4000);
  await page.screenshot(shot("bench-pass"));
  await page.getByRole("button", { name: "Stop" }).click();

  await page.goto("/signals");
  await expect(page.getByRole("heading", { name: "Record response" })).toBeVisible();
  await page.screenshot(shot("signals"));
  await page.goto("/tapes");
  await page.getByRole("button", { name: /SSA-10/ }).click();
  await expect(page.getByRole("heading", { name: /SSA-10/ })).toBeVisible();
  await page.screenshot(shot("tapes"));
  await page.goto("/machines");
  await page.getByRole("button", { name: "Ellesby C-1R" }).click();
  await expect(page.getByRole("img", { name: /Rates of the parts/ })).toBeVisible();
  await page.screenshot(shot("machines"));
  await page.goto("/rules");
  await page.getByLabel("Length, m").fill("2.856");
  await page.getByLabel("Time, s").fill("59.1");
  await expect(page.getByRole("meter", { name: /timed length/ })).toBeVisible();
  await page.screenshot(shot("rules"));
  await page.goto("/listen");
  await choose(page.getByRole("combobox", { name: "Tape that was played" }), /Azimuth ladder, cassette/);
  await page.getByLabel("Recordings").setInputFiles([BANDS, SLOW]);
  await expect(page.getByRole("article").getByText("6.3 kHz")).toBeVisible({ timeout: 60_000 });
  await expect(page.getByRole("article", { name: "slow.wav" }).getByRole("row").nth(1)).toBeVisible({
    timeout: 60_000,
  });
  await page.screenshot(shot("listen"));
  await page.goto("/jobs/demo-job-0409/sheet");
  await expect(page.getByRole("article")).toBeVisible();
  await page.screenshot(shot("sheet"));
});
