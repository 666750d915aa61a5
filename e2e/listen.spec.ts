import { readFile } from "node:fs/promises";
import { expect, test, type Locator } from "./test";
import { BANDS, BANDS_FLAC, LONG, NOT_WAV, SLOW, TILTED } from "./sounds";
import { choose } from "./choose";

/** A recording of 24 bits that was taken far too high. */
async function clipped(path: string) {
  const buffer = await readFile(path);
  for (let at = buffer.indexOf("data") + 8; at + 3 <= buffer.length; at += 3)
    buffer.writeIntLE(Math.max(-(2 ** 23), Math.min(2 ** 23 - 1, 20 * buffer.readIntLE(at, 3))), at, 3);
  return { name: "clipped.wav", mimeType: "audio/wav", buffer };
}

test.beforeEach(async ({ page }) => {
  await page.goto("/");
  await expect(page.getByRole("article").first()).toBeVisible();
  await page.goto("/listen");
});

test("many recordings at once: each measured, what is doubtful said, a bad one refused by itself", async ({
  page,
}) => {
  await page.getByLabel("Recordings").setInputFiles([SLOW, NOT_WAV]);
  const slow = page.getByRole("article", { name: "slow.wav" });
  await expect(slow).toContainText("tone near 3150 Hz");
  await expect(slow.getByRole("row").nth(1)).toContainText("−0.80");
  await expect(page.getByRole("article", { name: "not-a-wav.wav" }).getByRole("alert")).toContainText(
    "not a WAV file",
  );
  await expect(slow.getByRole("list", { name: "Doubts" })).toHaveCount(0);

  await page.getByLabel("Recordings").setInputFiles(await clipped(SLOW));
  const doubts = page.getByRole("article", { name: "clipped.wav" }).getByRole("list", { name: "Doubts" });
  await expect(doubts).toContainText(/tone near 3150 Hz: left: clipped in \d+ places/);
});

test("FLAC and WAV of one tape give the same bands, and one goes into a job", async ({ page }) => {
  await choose(page.getByRole("combobox", { name: "Tape that was played" }), /Azimuth ladder, cassette/);
  await page.getByLabel("Recordings").setInputFiles([BANDS, BANDS_FLAC]);
  const [wav, flac] = ["bands.wav", "bands.flac"].map((name) => page.getByRole("article", { name }));
  const bandsOf = (article: Locator) => article.getByRole("region", { name: "Measured stretches" });
  for (const article of [wav, flac]) await expect(bandsOf(article).getByRole("row")).toHaveCount(4);
  expect(await flac.innerText()).toBe((await wav.innerText()).replace("bands.wav", "bands.flac"));
  const third = bandsOf(wav).getByRole("row").nth(2);
  await expect(third).toContainText("3.15 kHz, −10 dB");
  await expect(third).toContainText("+1.5");
  await expect(wav).toContainText("No drop-out of 6 dB or more in 13 s of 3.15 kHz");

  await wav.getByRole("button", { name: "Attach to a job" }).click();
  await choose(page.getByRole("combobox", { name: "Job" }), /0415/);
  await choose(page.getByRole("combobox", { name: "Stretch" }), /3.15 kHz/);
  await page.getByRole("button", { name: "Log it" }).click();
  await expect(page.getByRole("dialog").getByRole("alert")).toContainText("Logged in job 0415 as as found");
  await page.goto("/jobs/demo-job-0415/bench/speed");
  await expect(page.getByRole("list", { name: "Readings" })).toContainText("+1.5");
});

test("a recording that is cancelled the moment it begins is not measured", async ({ page }) => {
  await page.evaluate(() =>
    new MutationObserver((_, observer) => {
      const cancel = [...document.querySelectorAll("article button")].find(
        ({ textContent }) => textContent === "Cancel",
      );
      if (!cancel) return;
      observer.disconnect();
      (cancel as HTMLButtonElement).click();
    }).observe(document.body, { childList: true, subtree: true }),
  );
  await page.getByLabel("Recordings").setInputFiles(LONG);
  const article = page.getByRole("article", { name: "long.wav" });
  await expect(article).toContainText("Cancelled");
  await expect(article.getByRole("progressbar")).toHaveCount(0);
});

test("a long recording can be cancelled, and put away", async ({ page }) => {
  await page.getByLabel("Recordings").setInputFiles(LONG);
  const article = page.getByRole("article", { name: "long.wav" });
  await article.getByRole("button", { name: "Cancel" }).click();
  await expect(article).toContainText("Cancelled");
  await article.getByRole("button", { name: "Put away" }).click();
  await expect(article).toHaveCount(0);
});

test("what the browser can decode is measured with a warning; a damaged file is refused", async ({
  page,
}) => {
  const wav = await readFile(SLOW);
  // the same sound under a name that is decoded by the browser as a whole
  await page.getByLabel("Recordings").setInputFiles([
    { name: "noise.mp3", mimeType: "audio/mpeg", buffer: Buffer.from("this is no music") },
    { name: "tone.flac", mimeType: "audio/flac", buffer: Buffer.from("fLaC and nothing more") },
    { name: "tone.wav", mimeType: "audio/wav", buffer: wav },
  ]);
  await expect(page.getByRole("article", { name: "noise.mp3" }).getByRole("alert")).toContainText(
    "not a sound file",
  );
  await expect(page.getByRole("article", { name: "tone.flac" }).getByRole("alert")).toContainText(
    "FLAC file",
  );
  await expect(page.getByRole("article", { name: "tone.wav" })).toContainText("tone near 3150 Hz");
});

test("the ladder of a tape tells azimuth, and its levels what is wrong with the head", async ({ page }) => {
  await choose(page.getByRole("combobox", { name: "Tape that was played" }), /Azimuth ladder, cassette/);
  await page.getByLabel("Recordings").setInputFiles(TILTED);
  const azimuth = page.getByRole("region", { name: "Azimuth" });
  const meter = azimuth.getByRole("meter", { name: "Azimuth phase at 10000 Hz" });
  await expect(meter).toHaveAttribute("aria-valuetext", /^\+7[12]\.\d°$/);
  await expect(azimuth).toContainText("no cycle is missed");
  await expect(azimuth).toContainText("gap tilted 3.6′");
  await expect(azimuth.getByRole("img", { name: /Phase of right behind left/ })).toBeVisible();
  const response = page.getByRole("region", { name: "Response" });
  await expect(response).toContainText(/left: It looks like spacing between tape and head.*1\.0 µm/);
  await expect(response.getByRole("img", { name: "Response of each channel" })).toBeVisible();

  await page.getByLabel("Recordings").setInputFiles(await clipped(TILTED));
  await expect(page.getByRole("article", { name: "clipped.wav" })).toContainText(
    /Clipped: .*Its level is higher than what arrives/,
  );
});
