import { expect, test } from "./test";
import { BenchHands, settledFigure } from "./bench-hands";
import { workersToKill } from "./kill-workers";

test("results keep coming, and the page follows them", async ({ page }) => {
  const hands = new BenchHands(page);
  await hands.open("demo-job-0415", "speed");
  await page.getByRole("button", { name: "Sound card" }).click();
  const speed = await settledFigure(hands.speed);
  expect(Math.abs(speed.value - 1.25)).toBeLessThan(speed.told + 0.005);
  const bars = page.getByLabel("Level left").locator("..");
  const results = bars.evaluate(
    (shown) =>
      new Promise<number>((done) => {
        let results = 0;
        const watch = new MutationObserver(() => {
          results++;
          if (results < 30) return;
          watch.disconnect();
          done(results);
        });
        watch.observe(shown, { subtree: true, attributes: true, characterData: true, childList: true });
      }),
  );
  expect(await results).toBe(30);
});

test("a mechanism is timed by ear: what never is quiet is never said to have begun", async ({ page }) => {
  const hands = new BenchHands(page);
  await hands.open("demo-job-0415", "functions");
  const list = page.getByRole("list", { name: "Functions, as found and as left" }).getByRole("listitem");
  await list.filter({ hasText: "Wind forwards" }).getByRole("button").click();
  await expect(page.getByText(/By ear: start a microphone/)).toBeVisible();
  await page.getByRole("button", { name: "Sound card" }).click();
  await page.getByRole("button", { name: /Time it by ear/ }).click();
  const ear = page.getByRole("status", { name: "By ear" });
  await expect(ear).toContainText("Hush for two seconds");
  // nothing that was not timed is kept as a time
  await page.keyboard.press("1");
  await expect(list.filter({ hasText: "Wind forwards" })).toContainText("works");
  await expect(list.filter({ hasText: "Wind forwards" })).not.toContainText(/\d s/);
});

test("the signal check finds the level of each channel within a twentieth of a decibel", async ({ page }) => {
  const hands = new BenchHands(page);
  await hands.open("demo-job-0415", "speed");
  await page.getByRole("button", { name: "Sound card" }).click();
  await page.getByRole("button", { name: "Check" }).click();
  const rows = page.getByRole("dialog").getByRole("table", { name: "Levels" }).getByRole("row");
  const rms = async (row: number) =>
    Number(
      (await rows.nth(row).getByRole("cell").nth(2).innerText()).replace("−", "-").replace(/[^-\d.]/g, ""),
    );
  await expect(async () => {
    expect(Math.abs((await rms(1)) - (20 * Math.log10(0.5) - 3.01))).toBeLessThan(0.05);
    expect(Math.abs((await rms(2)) - (20 * Math.log10(0.25) - 3.01))).toBeLessThan(0.05);
  }).toPass({ timeout: 400_000 });
  await expect(page.getByRole("dialog")).toContainText(/unprocessed channels? at \d+ Hz|the browser applies/);
});

test("unplugged in the middle: what was logged is kept, and there is a way back", async ({ page }) => {
  await page.addInitScript(() => {
    const open = navigator.mediaDevices.getUserMedia.bind(navigator.mediaDevices);
    navigator.mediaDevices.getUserMedia = async (wanted) => {
      const stream = await open(wanted);
      (window as unknown as { unplug(): void }).unplug = () => {
        const [track] = stream.getAudioTracks();
        track.stop();
        track.dispatchEvent(new Event("ended"));
      };
      return stream;
    };
  });
  const hands = new BenchHands(page);
  await hands.open("demo-job-0415", "speed");
  await page.getByRole("button", { name: "Sound card" }).click();
  // where sound is lost, the number may be unsettled again by the time that the key is pressed
  await expect(async () => {
    await hands.settled();
    await page.keyboard.press("f");
    await expect(hands.slip).toContainText("as found", { timeout: 5000 });
  }).toPass({ timeout: 400_000 });
  await page.evaluate(() => (window as unknown as { unplug(): void }).unplug());
  await expect(page.getByRole("alert").first()).toContainText("went away");
  await expect(hands.slip).toContainText("as found");
  await page.getByRole("button", { name: "Start again" }).click();
  await expect(hands.speed).toHaveAttribute("aria-valuetext", /^\+1\.\d+/);
  await expect(hands.slip.getByRole("listitem")).toHaveCount(1);
});

test("a refused microphone leaves a sentence and a way back", async ({ page }) => {
  await page.addInitScript(() => {
    navigator.mediaDevices.getUserMedia = () => Promise.reject(new DOMException("no", "NotAllowedError"));
  });
  const hands = new BenchHands(page);
  await hands.open("demo-job-0415", "speed");
  await page.getByRole("button", { name: "Sound card" }).click();
  await expect(page.getByRole("alert").first()).toContainText("Allow the microphone");
  await expect(page.getByRole("button", { name: "Start again" })).toBeVisible();
});

test("clock and level of the card are calibrated and kept", async ({ page }) => {
  await page.goto("/settings");
  await page.getByLabel("True frequency, Hz").fill("3189.06");
  await page.getByRole("button", { name: "Listen to it" }).click();
  const clock = page.getByRole("region", { name: "Clock" });
  // the file plays 3189.375 Hz: a true 3189.06 Hz would say that the clock is 98.8 ppm slow
  await clock.getByRole("button", { name: "Keep" }).click();
  await expect(clock).toContainText("Kept: ");
  const [, ppm, uncertainty] = /Kept: −([\d.]+) ± ([\d.]+)/.exec((await clock.textContent()) ?? "") ?? [];
  expect(Math.abs(Number(ppm) - 98.8)).toBeLessThan(Number(uncertainty));
  expect(Number(uncertainty)).toBeLessThan(5.2);
  await page.getByLabel("Volts RMS").fill("0.775");
  const level = page.getByRole("region", { name: "Level", exact: true });
  await level.getByRole("button", { name: "Keep" }).click();
  await expect(level).toContainText(/full scale is \+6\.0\d dBu left, \+12\.0\d dBu right/);
  await expect(page.getByRole("table", { name: "Levels" })).toContainText("dBu");
});

test("an input that is asked for twice is listened to once; a loop-back ends with its input", async ({
  page,
}) => {
  await page.addInitScript(() => {
    const open = navigator.mediaDevices.getUserMedia.bind(navigator.mediaDevices);
    const opened: MediaStream[] = [];
    (window as unknown as { states(): string[] }).states = () =>
      opened.map((stream) => stream.getAudioTracks()[0].readyState);
    navigator.mediaDevices.getUserMedia = async (wanted) => {
      const stream = await open(wanted);
      opened.push(stream);
      return stream;
    };
  });
  const states = () => page.evaluate(() => (window as unknown as { states(): string[] }).states());
  await page.goto("/settings");
  await page.getByRole("button", { name: "Listen", exact: true }).dblclick();
  await expect(page.getByRole("table", { name: "Levels" })).toBeVisible();
  await expect.poll(async () => (await states()).toSorted()).toEqual(["ended", "live"]);
  const loopBack = page.getByRole("region", { name: "Loop-back" });
  await loopBack.getByRole("button", { name: "Measure" }).click();
  await expect(loopBack.getByRole("progressbar")).toBeVisible();
  await page.getByRole("button", { name: "Stop listening" }).click();
  await expect(loopBack.getByRole("alert")).toContainText("The input was changed");
  await expect(loopBack.getByRole("progressbar")).toBeHidden();
  await expect(page.getByRole("region", { name: "Level", exact: true })).toContainText(
    "nothing is heard yet",
  );
  expect(await states()).toEqual(["ended", "ended"]);
});

test("a worker that is killed while the card is calibrated is noticed, and its numbers are gone", async ({
  page,
}) => {
  const killWorkers = await workersToKill(page);
  await page.goto("/settings");
  const listen = page.getByRole("button", { name: "Listen", exact: true });
  await listen.click();
  const level = page.getByRole("region", { name: "Level", exact: true });
  await expect(level).toContainText("reads");
  await killWorkers();
  await expect(page.getByRole("alert").filter({ hasText: "was ended by the browser" })).toBeVisible();
  await expect(level).toContainText("nothing is heard yet");
  await expect(level.getByRole("button", { name: "Keep" })).toBeDisabled();
  await listen.click();
  await expect(level).toContainText("reads");
});
