import { expect, test } from "./test";
import { BenchHands, FOUR_TIMES } from "./bench-hands";
import { COPY, MUSIC } from "./sounds";
import { choose } from "./choose";

test("the guilty part is named, kept, and compared with a run after the work", async ({ page }) => {
  const hands = new BenchHands(page);
  await hands.open("demo-job-0415", "flutter");
  await hands.play("bent capstan", FOUR_TIMES);
  const picture = page.getByRole("region", { name: "Where the flutter comes from" });
  await expect(picture).toContainText("Clean and polish the capstan");
  await expect(
    picture.getByRole("list", { name: "Parts heard" }).getByRole("listitem").first(),
  ).toContainText(/capstan.*±0\.3\d\d %.*9\d %/);
  await expect(picture.getByRole("img", { name: /capstan, once around: wave/ })).toBeVisible();
  await page.getByRole("button", { name: "Keep this run" }).click();

  await hands.choose("It came in", "nothing wrong");
  await expect(picture).toContainText("no part stands out");
  await hands.choose("Against", "run 1");
  await expect(picture.getByRole("listitem").first()).toContainText(/capstan.*less/);
});

test("a long run is watched: slips are listed with their time, the run is kept and exported", async ({
  page,
}) => {
  const hands = new BenchHands(page);
  await hands.open("demo-job-0415", "flutter");
  await hands.play("1 % slow, belt slips", FOUR_TIMES);
  await page.getByRole("button", { name: "watch", exact: true }).click();
  await page.getByRole("button", { name: "Watch from now on" }).click();
  const watching = page.getByRole("region", { name: "Watching a long run" });
  await expect(watching.getByRole("list", { name: "What happened" })).toContainText(/\d:\d\d slip −\d\.\d %/);
  await expect(watching.getByRole("status", { name: "The run" })).toContainText(
    /Speed at start, middle and end: −\d\.\d\d/,
  );
  // the page goes away in the middle of it
  await page.reload();
  await page.getByRole("button", { name: /Practice/ }).click();
  await page.getByRole("button", { name: "Play", exact: true }).click();
  await page.getByRole("button", { name: "watch", exact: true }).click();
  await page.getByRole("button", { name: /Go on with the run from before/ }).click();
  await expect(watching.getByRole("list", { name: "What happened" })).toContainText("slip");
  // what is logged from now on is of one place of the tape
  const place = page.getByRole("group", { name: "Places on the tape" }).getByRole("button").first();
  await expect(place).toHaveAccessibleName("Side A, start: not logged");
  await place.click();
  await expect(place).toHaveAttribute("aria-pressed", "true");
  await page.getByRole("button", { name: "Stop and keep this run" }).click();
  await expect(page.getByRole("button", { name: "Watch from now on" })).toBeVisible();
  const download = page.waitForEvent("download");
  await watching.getByRole("button", { name: "CSV" }).click();
  expect((await download).suggestedFilename()).toBe("watched-run.csv");
  await page.reload();
  await page.getByRole("button", { name: /Practice/ }).click();
  await page.getByRole("button", { name: "Play", exact: true }).click();
  await page.getByRole("button", { name: "watch", exact: true }).click();
  await expect(watching.getByRole("list", { name: "What happened" })).toContainText("slip");
});

test("sides that differ share the error, or one is set alone", async ({ page }) => {
  const hands = new BenchHands(page);
  await hands.open("demo-job-0415", "speed");
  await hands.play("sides differ by 1 %", FOUR_TIMES);
  const keys = page.getByRole("group", { name: "Transport keys" });
  // away from the beginning, where the other side ends
  await keys.getByRole("button", { name: "Wind", exact: true }).click();
  await hands.tapeRuns(20);
  await keys.getByRole("button", { name: "Play" }).click();
  await hands.settled();
  await page.keyboard.press("f");
  await expect(hands.slip.getByRole("listitem")).toHaveCount(1);
  await page.getByRole("button", { name: /turn over/ }).click();
  await keys.getByRole("button", { name: "Play" }).click();
  await expect.poll(async () => Number(await hands.speed.getAttribute("aria-valuenow"))).toBeLessThan(-0.8);
  await hands.settled();
  await page.keyboard.press("f");
  const card = page.getByRole("region", { name: "Preparation" });
  await expect(card).toContainText(/B − A −(0\.9|1\.0)\d/);
  await expect(card).toContainText(/Aim at −0\.(4|5)\d/);
  await card.getByRole("button", { name: "Set on this side instead" }).click();
  await expect(card).toContainText("Aim at right speed on this side");
});

test("the guide tone follows the reading and can be turned off", async ({ page }) => {
  const hands = new BenchHands(page);
  await hands.open("demo-job-0415", "speed");
  await hands.play("1.2 % fast", FOUR_TIMES);
  await hands.settled();
  const button = page.getByRole("button", { name: /Guide tone/ });
  await expect(button).toHaveAttribute("aria-pressed", "false");
  await page.keyboard.press("g");
  await expect(button).toHaveAttribute("aria-pressed", "true");
  await page.keyboard.press("g");
  await expect(button).toHaveAttribute("aria-pressed", "false");
});

test("a machine's parts are entered by hand and by counting; bad ones are refused", async ({ page }) => {
  await page.goto("/machines");
  await page.getByRole("button", { name: "New machine" }).click();
  await page.getByLabel("Name", { exact: true }).fill("Bench <b>test</b>");
  await page.getByRole("button", { name: "Add a part" }).click();
  await page.getByLabel("Part", { exact: true }).fill("capstan");
  await page.getByLabel("Diameter, mm").fill("2,5");
  await expect(page.getByRole("img", { name: /Rates of the parts/ })).toContainText("6.06 Hz");
  await page.getByRole("button", { name: "Add a part" }).click();
  const second = page.getByRole("listitem", { name: "Part 2" });
  await second.getByLabel("Part", { exact: true }).fill("idler");
  await choose(second.getByRole("combobox", { name: "How it turns" }), "turns counted");
  await page.getByRole("button", { name: "Save machine" }).click();
  await expect(page.getByRole("main").getByRole("alert")).toContainText("parts 2");
  const count = second.getByRole("button", { name: /Count|turn/ });
  for (let i = 0; i < 4; i++) {
    await count.click();
    await page.waitForTimeout(300);
  }
  await page.getByRole("button", { name: "Add an adjuster" }).click();
  const adjuster = page.getByRole("listitem", { name: "Adjuster 1" });
  await page.getByRole("button", { name: "Save machine" }).click();
  await expect(page.getByRole("main").getByRole("alert")).toContainText(/Give it a name/);
  await adjuster.getByLabel("Adjuster", { exact: true }).fill("VR 9");
  await adjuster.getByLabel("Where it sits").fill("under the fan");
  await adjuster.getByLabel("Only at, cm/s").fill("4,76");
  await page.getByRole("button", { name: "Save machine" }).click();
  await expect(page.getByRole("heading", { name: "Bench <b>test</b>" })).toBeVisible();
  await page.getByRole("button", { name: "Change" }).click();
  await expect(adjuster.getByLabel("Only at, cm/s")).toHaveValue("4.76");
  await page.getByRole("button", { name: "Throw away" }).click();

  await page.getByLabel("Machine file").setInputFiles({
    name: "bad.json",
    mimeType: "application/json",
    buffer: Buffer.from(
      '{"format":"unzel-machine","version":1,"id":"x","name":"X","speedsCmPerS":[4.76],"parts":[{"name":"a"}]}',
    ),
  });
  await expect(page.getByRole("main").getByRole("alert")).toContainText(
    "bad.json: The machine file cannot be used",
  );
  await page.getByRole("button", { name: "Ellesby C-1R" }).click();
  const download = page.waitForEvent("download");
  await page.getByRole("button", { name: "Export" }).click();
  await page.getByLabel("Machine file").setInputFiles(await (await download).path());
  await expect(page.getByRole("main").getByRole("alert")).toContainText("Imported Ellesby C-1R");
  await page.getByRole("button", { name: "Delete" }).click();
  await expect(page.getByRole("main").getByRole("alert")).toContainText(/Job .* is about this machine/);
});

test("slide rules: a timed tape, music against a copy, a belt from stock; the result is kept in a job", async ({
  page,
}) => {
  await page.goto("/");
  await expect(page.getByRole("article").first()).toBeVisible();
  await page.goto("/rules");
  await page.getByLabel("Length, m").fill("2.856");
  await page.getByLabel("Time, s").fill("58.8");
  await expect(page.getByRole("meter", { name: /timed length/ })).toHaveAttribute("aria-valuetext", "+2.0 %");

  await page.getByLabel("Recording of the tape").setInputFiles(COPY);
  await page.getByLabel("The other copy").setInputFiles(MUSIC);
  await page.getByRole("button", { name: "Compare" }).click();
  const answer = page.getByRole("meter", { name: /music against/ });
  await expect(answer).toBeVisible();
  expect(Math.abs(Number(await answer.getAttribute("aria-valuenow")) - 2.5)).toBeLessThan(0.02);
  const card = page.getByRole("region", { name: /Music against/ });
  await choose(card.getByRole("combobox", { name: "Keep in job" }), "0415");
  await card.getByRole("button", { name: "Keep", exact: true }).click();
  await expect(card.getByRole("status")).toContainText("Kept in job 0415");

  await page.getByLabel("Stock list").setInputFiles({
    name: "belts.csv",
    mimeType: "text/csv",
    buffer: Buffer.from("name,section,insideMm,thicknessMm\nS 210,square,210,1.2\nS 180,square,180,1.2\n"),
  });
  await expect(page.getByRole("list", { name: "From stock" }).getByRole("listitem").first()).toContainText(
    "fits",
  );
  await page.getByLabel("Stock list").setInputFiles({
    name: "bad.csv",
    mimeType: "text/csv",
    buffer: Buffer.from("name,section,insideMm,thicknessMm\nS 210,oval,210,1.2\n"),
  });
  await expect(page.getByRole("main").getByRole("alert")).toContainText("Row 2: section");
});

test("two speeds whose trimmers move each other are both set by doing what the card says", async ({
  page,
}) => {
  const hands = new BenchHands(page);
  await page.goto("/jobs/new");
  await hands.choose("Machine", "Tarnvik T-2");
  await expect(page.getByRole("checkbox", { name: /Also at 38.1 cm\/s/ })).toBeChecked();
  await page.getByRole("button", { name: "Start the job" }).click();
  await page.waitForURL(/bench\/intake/);
  await page
    .getByRole("link", { name: /^Speed/ })
    .first()
    .click();
  await hands.play("0.8 % slow, 0.6 % fast at the other speed", FOUR_TIMES);
  const card = page.getByRole("region", { name: "Turn", exact: true });
  await hands.settled();
  await page.keyboard.press("f");
  await expect(hands.slip).toContainText("as found");

  const read: Record<string, number> = {};
  let turns = 0;
  for (let step = 0; step < 40; step++) {
    await expect(card).not.toContainText("let it settle");
    const value = await hands.settled();
    const speed = (
      await page
        .getByRole("group", { name: "Tape speed, cm/s" })
        .getByRole("button", { pressed: true })
        .innerText()
    ).trim();
    read[speed] = value;
    const words = await card.innerText();
    if (words.includes("leave it there")) break;
    const elsewhere = page.getByRole("button", { name: /^Go to/ });
    if (await elsewhere.isVisible()) {
      await hands.log();
      // what was logged just now may have told enough, and then the card says so
      if (!(await hands.clicked(elsewhere))) continue;
      await expect(page.getByRole("meter", { name: "Speed error" })).not.toHaveAttribute(
        "aria-valuetext",
        /(pass|close|fail)$/,
      );
      await hands.settled();
      await hands.log();
      await expect(card).not.toContainText(/^Turn\s*read/);
      continue;
    }
    const degrees = words.includes("try ") ? 45 : Number(/(\d+)°/.exec(words)?.[1]);
    // a reading that came meanwhile made it say something else
    if (Number.isNaN(degrees)) continue;
    // which one and how far belong together: the card may say something else by now
    await hands.turn(words.includes("anticlockwise,") ? -degrees : degrees, /SPEED \d+/.exec(words)![0]);
    turns++;
  }
  expect(Object.keys(read).sort()).toEqual(["19.05", "38.1"]);
  expect(Math.abs(read["19.05"])).toBeLessThan(0.1);
  expect(Math.abs(read["38.1"])).toBeLessThan(0.1);
  expect(turns).toBeLessThanOrEqual(12);
});
