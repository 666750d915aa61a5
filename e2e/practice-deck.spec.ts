import { expect, test } from "./test";
import { BenchHands } from "./bench-hands";
import { chooseKept } from "./choose";

test("a blank tape is recorded on, rewound and heard; a sequence is known on it", async ({ page }) => {
  const hands = new BenchHands(page);
  await hands.open("demo-job-0415", "speed");
  await hands.play("nothing wrong");
  const keys = page.getByRole("group", { name: "Transport keys" });
  const level = async () =>
    Number(await page.getByRole("meter", { name: "Level left" }).getAttribute("aria-valuenow"));

  await hands.choose("Tape", "Blank tape");
  await hands.choose("Record takes in", "Which side is which");
  await keys.getByRole("button", { name: "Record" }).click();
  await expect.poll(level).toBeGreaterThan(-20); // a two-head machine gives out what goes in
  await hands.tapeRuns(3);
  await keys.getByRole("button", { name: "Rewind" }).click();
  await expect.poll(level).toBeLessThan(-40);
  await expect(keys.getByRole("button", { name: "Stop" })).toHaveAttribute("aria-pressed", "true");
  await keys.getByRole("button", { name: "Play" }).click();
  await expect.poll(level).toBeGreaterThan(-20);

  // a marked sequence is known while it plays, and no speed is read from it
  await hands.choose("Record takes in", "Record level");
  await keys.getByRole("button", { name: "Record" }).click();
  const source = page.getByRole("contentinfo", { name: "Source" });
  await expect(source).toContainText("Record level, part 1: 315 Hz");
  await expect(source).toContainText("The sequence Record level plays");
  await expect(page.getByRole("region", { name: "Speed", exact: true })).toContainText(
    "by a reference tape only",
  );
  await keys.getByRole("button", { name: "Stop" }).click();
});

test("sides are told apart on a tape of one's own; a full tape tells its bands", async ({ page }) => {
  const hands = new BenchHands(page);
  await hands.open("demo-job-0415", "speed");
  await hands.play("nothing wrong");
  const keys = page.getByRole("group", { name: "Transport keys" });
  await hands.choose("Tape", "Blank tape");
  await hands.choose("Record takes in", "Which side is which");
  await keys.getByRole("button", { name: "Record" }).click();

  await hands.tapeRuns(2);
  await page.getByRole("button", { name: "Check" }).click();
  await page.getByRole("button", { name: "It is on the right now" }).click();
  await expect(page.getByRole("dialog")).toContainText("Swapped: it arrives on the left");
  await page.getByRole("dialog").getByRole("button", { name: "Close" }).click();

  await hands.choose("Tape", /Azimuth ladder, cassette/);
  await keys.getByRole("button", { name: "Play" }).click();
  await expect(page.getByRole("contentinfo", { name: "Source" })).toContainText("no band like the 1000 Hz");
  await page.getByRole("button", { name: /turn over/ }).click();
  await expect(page.getByRole("button", { name: /Side B/ })).toBeVisible();
});

test("logged readings keep what was heard; it can be played, exported and deleted", async ({ page }) => {
  const hands = new BenchHands(page);
  await hands.open("demo-job-0415", "speed");
  await hands.play("nothing wrong");
  await hands.settled();
  await page.keyboard.press("f");
  await hands.slip.getByRole("button", { name: "Hear it" }).click();
  await expect(page.getByLabel("Sound of the reading")).toBeVisible();
  const download = page.waitForEvent("download");
  await page.getByRole("button", { name: "Export WAV" }).click();
  expect((await download).suggestedFilename()).toMatch(/^speed-as-found.*\.wav$/);

  await page.goto("/settings");
  const recordings = page.getByRole("list", { name: "Recordings" });
  await expect(recordings.getByRole("listitem")).toHaveCount(1);
  await recordings.getByRole("button", { name: "Delete" }).click();
  await expect(recordings.getByRole("listitem")).toHaveCount(0);

  await chooseKept(page.getByRole("combobox", { name: "Keep the last" }), "nothing");
  await hands.open("demo-job-0415", "speed");
  await hands.play("nothing wrong");
  await hands.settled();
  await page.keyboard.press(" ");
  await expect(hands.slip.getByRole("listitem")).toHaveCount(2);
  await expect(hands.slip.getByRole("button", { name: "Hear it" })).toHaveCount(1);
});
