import { expect, test } from "./test";
import { BenchHands, FOUR_TIMES } from "./bench-hands";

test("one pass of a tape from intake takes what went by, and says why not the rest", async ({ page }) => {
  const hands = new BenchHands(page);
  await hands.open("demo-job-0415", "speed");
  await hands.choose("Tape in the machine", /full alignment/);
  await page.getByRole("link", { name: /^Intake/ }).click();
  await page.getByRole("button", { name: "All in one pass of a tape" }).click();
  await page.waitForURL(/bench\/speed/);
  const pass = page.getByRole("region", { name: "One pass" });
  await expect(pass).toContainText("Start a source below");
  await hands.play("2 % slow, lumpy belt", FOUR_TIMES);
  const stations = pass.getByRole("list", { name: "Stations of the pass" }).getByRole("listitem");
  for (const name of ["Level", "Speed", "Wow and flutter"])
    await expect(stations.filter({ hasText: name })).toContainText("taken");
  await pass.getByRole("button", { name: "End the pass here" }).click();
  await expect(pass.getByRole("status")).toContainText(/of 5 taken/);
  await expect(stations.filter({ hasText: "Response" })).toContainText(/Not heard yet.*not taken/s);
  await pass.getByRole("button", { name: "Back to the station" }).click();
  const found = Number(await hands.speed.getAttribute("aria-valuenow"));
  await expect(hands.slip.getByRole("listitem")).toHaveCount(1);
  await expect(hands.slip).toContainText("as found");
  expect(await hands.slip.innerText()).toMatch(/−(1\.9|2\.0)/);
  expect(found).not.toBeNaN();
});

test("functions are tried by one key each, timed by a watch, and stand on the sheet as found and as left", async ({
  page,
}) => {
  await page.goto("/jobs/demo-job-0415/bench/functions");
  const desk = page.getByRole("region", { name: "Functions", exact: true });
  await expect(desk.getByRole("status")).toContainText("Door");
  for (const next of ["Play and stop", "Pause", "Meters"]) {
    await page.keyboard.press("1");
    await expect(desk.getByRole("status")).toContainText(next);
  }
  // what the machine has not is asked for no more, in this job and in later ones
  await page.keyboard.press("3");
  await expect(page.getByRole("button", { name: "Meters: it has" })).toBeVisible();
  await expect(desk.getByRole("status")).toContainText("Lamps");

  const list = page.getByRole("list", { name: "Functions, as found and as left" }).getByRole("listitem");
  await list.filter({ hasText: "Wind forwards" }).getByRole("button").click();
  const from = Date.now();
  await page.keyboard.press(" ");
  await page.waitForTimeout(1200);
  await page.keyboard.press(" ");
  const pressedFor = (Date.now() - from) / 1000;
  await page.keyboard.press("1");
  const wound = list.filter({ hasText: "Wind forwards" });
  await expect(wound).toContainText(/found: works \d+\.\d/);
  const timed = Number(/works (\d+\.\d)/.exec((await wound.textContent())!)![1]);
  expect(timed).toBeGreaterThanOrEqual(1.1);
  expect(timed).toBeLessThanOrEqual(pressedFor + 0.1);

  await list.filter({ hasText: "Pause" }).getByRole("button").click();
  await desk.getByLabel("What it does").fill("lets a loop go");
  await desk.getByRole("button", { name: "Faulty" }).click();
  await expect(list.filter({ hasText: "Pause" })).toContainText("found: faulty, lets a loop go");
  await page.keyboard.press("l");
  await list.filter({ hasText: "Pause" }).getByRole("button").click();
  await page.keyboard.press("2");
  await expect(list.filter({ hasText: "Pause" })).toContainText("left: faulty");
  await page.keyboard.press("z");
  await expect(list.filter({ hasText: "Pause" })).not.toContainText("left");
  await list.filter({ hasText: "Pause" }).getByRole("button").click();
  await page.keyboard.press("1");
  await expect(list.filter({ hasText: "Pause" })).toContainText("left: works");

  await page.reload();
  await expect(list.filter({ hasText: "Pause" })).toContainText("left: works");
  await page.goto("/jobs/demo-job-0415/sheet");
  await expect(page.getByRole("article")).toContainText(
    "Pause: as found faulty, lets a loop go; as left works",
  );
});

test("a motor's current is kept as it was typed, and demagnetising asks for what shows it", async ({
  page,
}) => {
  await page.goto("/jobs/demo-job-0415/bench/clean");
  const parts = page.getByRole("region", { name: "Part by part" });
  await parts.getByRole("button", { name: /^motor/ }).click();
  await parts.getByRole("button", { name: "dirty", exact: true }).click();
  await parts.getByLabel("It drew, mA").fill("142");
  await parts.getByLabel("Run in, mA").fill("-3");
  await parts.getByRole("button", { name: "lubricated", exact: true }).click();
  await expect(parts.getByRole("alert")).toHaveText("A motor that runs draws more than 0 mA.");
  await parts.getByLabel("Run in, mA").fill("118 ");
  await expect(parts.getByText("It draws less: it runs more freely.")).toBeVisible();
  await parts.getByRole("button", { name: "lubricated", exact: true }).click();
  await expect(parts.getByRole("button", { name: /^motor/ })).toContainText("142 → 118 mA");

  const heads = page.getByRole("region", { name: "Demagnetising, before and after" });
  await heads.getByRole("button", { name: "Demagnetised just now" }).click();
  await expect(heads.getByRole("button", { name: "Demagnetised again" })).toBeVisible();
  await page.goto("/jobs/demo-job-0415/sheet");
  await expect(page.getByRole("article")).toContainText("142 → 118 mA");
  await expect(page.getByRole("article")).toContainText("Demagnetised heads and guides");
});

test("a control is worked while a tone plays: its crackles are counted and kept by its name", async ({
  page,
}) => {
  const hands = new BenchHands(page);
  await hands.open("demo-job-0415", "level");
  await hands.choose("Tape in the machine", /full alignment/);
  await hands.play("right channel jumps");
  await page.getByRole("button", { name: "control test" }).click();
  const status = page.getByRole("status", { name: "Control test" });
  await expect(status).toContainText("Say which control");
  await page.getByRole("combobox", { name: "Which control or switch" }).fill("balance");
  await page.keyboard.press("Tab");
  await page.getByRole("button", { name: "Begin", exact: true }).click();
  await expect(status).toContainText("log it as found");
  await expect(page.getByRole("meter", { name: "Crackles left" })).toHaveAttribute(
    "aria-valuetext",
    /^0 crackles/,
  );
  await expect(page.getByRole("meter", { name: "Crackles right" })).toHaveAttribute(
    "aria-valuetext",
    /^[1-9]/,
  );
  await page
    .getByRole("button", { name: /^As found/ })
    .last()
    .click();
  await expect(page.getByRole("list", { name: "This control before" })).toContainText(
    /Crackles of a control, right.*\/min(close|fail)/s,
  );
});

test("half-minutes are kept and compared by ear, equally loud, blind if wanted", async ({ page }) => {
  const hands = new BenchHands(page);
  await hands.open("demo-job-0415", "listening");
  const ear = page.getByRole("region", { name: "Compared by ear" });
  const [found, left] = ["as found", "as left"].map((name) => ear.getByRole("article", { name }));
  await found.getByRole("button", { name: "Keep the last half-minute" }).click();
  await expect(ear).toContainText("Less than five seconds were heard");
  await hands.play("channels 3 dB apart");
  await hands.tapeRuns(7);
  await page.keyboard.press("p");
  await found.getByRole("button", { name: "Keep the last half-minute" }).click();
  await expect(found).toContainText(/\d+\u2009s, kept/);
  await left.getByRole("button", { name: "Keep the last half-minute" }).click();
  await expect(left).toContainText(/\d+\u2009s, kept/);

  await page.keyboard.press(" ");
  await expect(ear.getByRole("status")).toContainText(/as found is heard.*LU apart/);
  await page.keyboard.press(" ");
  await expect(ear.getByRole("status")).toContainText("as left is heard");
  await page.keyboard.press("x");
  await expect(ear.getByRole("status")).toContainText("Space plays them");

  await ear.getByRole("button", { name: "blind" }).click();
  await ear.getByRole("button", { name: "Play one" }).click();
  await ear.getByRole("button", { name: "as left" }).last().click();
  await expect(ear).toContainText(/(Right|Wrong): it was as (found|left)/);
  await expect(ear).toContainText(/[01] of 1 right/);

  const image = await page.evaluate(async () => {
    const canvas = new OffscreenCanvas(40, 20);
    canvas.getContext("2d")!.fillRect(5, 5, 9, 9);
    const blob = await canvas.convertToBlob({ type: "image/png" });
    return [...new Uint8Array(await blob.arrayBuffer())];
  });
  await page
    .getByLabel("Pictures", { exact: true })
    .setInputFiles({ name: "after.png", mimeType: "image/png", buffer: Buffer.from(image) });
  await expect(
    page.getByRole("button", { name: /^Open: Picture of the machine as it goes out/ }),
  ).toBeVisible();
  await page.getByLabel("To be minded").fill("Clean the heads every twenty hours.");
  await page.getByLabel("To be looked at again by").fill("2027-11-20");
  await page
    .getByRole("link", { name: /^Sheet/ })
    .first()
    .click();
  const sheet = page.getByRole("article");
  await expect(sheet).toContainText("Clean the heads every twenty hours.");
  await expect(sheet).toContainText("To be looked at again by 20 November 2027");
  await expect(sheet.getByRole("img", { name: "As it goes out, picture 1" })).toHaveAttribute(
    "src",
    /^data:image/,
  );
});
