import { expect, test, type Locator, type Page } from "./test";
import { BenchHands } from "./bench-hands";
import { choose } from "./choose";
import { NOT_WAV } from "./sounds";

const JOB = "demo-job-0415";

async function openService(page: Page, job = JOB): Promise<void> {
  await page.goto(`/jobs/${job}/bench/service`);
  await expect(logOf(page)).toBeVisible();
}
const logOf = (page: Page) => page.getByRole("region", { name: "Strip-down log" });
const lineOf = (page: Page) => page.getByRole("textbox", { name: /what and where/ });

/** One key, and its line where one is written. */
async function off(page: Page, key: string, line: string, place: number): Promise<void> {
  await page.keyboard.press(key);
  await expect(page.getByRole("textbox", { name: `Line ${place}: what and where` })).toBeFocused();
  await page.keyboard.type(line);
  await page.keyboard.press("Enter");
  await expect(lineOf(page)).not.toBeFocused();
}

/** Chooses a line; the keys are the bench's again then. */
async function chosen(token: Locator): Promise<void> {
  await token.click();
  await expect(token).toHaveAttribute("aria-pressed", "true");
  await expect(token).not.toBeFocused();
}

/** Two assemblies, one inside the other, and a cover. */
const CAME_OFF: ReadonlyArray<[key: string, line: string]> = [
  ["1", "top cover"],
  ["2", "M3x12 cross x4, corners"],
  ["7", "ribbon to the meter board"],
  ["1", "transport"],
  ["2", "M2.6x8 cross x3, motor bracket"],
  ["9", "motor bracket, mark at the scribed line"],
  ["8", "main belt"],
  ["5", "3 mm, flywheel shaft"],
  ["3", "0.25 mm, under the flywheel, stays with the flywheel"],
  ["6", "2 mm, thrust bearing"],
  ["4", "idler, hooked in the second hole"],
];

test("a strip-down by keyboard alone is put together backwards; a forgotten washer is noticed", async ({
  page,
  context,
}) => {
  await openService(page);
  for (const [i, [key, line]] of CAME_OFF.entries()) {
    await off(page, key, line, i + 1);
    // half of it is there, whatever becomes of the page
    if (i === 5) await openService(page);
  }
  await expect(logOf(page)).toContainText("11 of 11 to go back");
  await page.keyboard.press("z");
  await expect(logOf(page)).toContainText("10 of 10 to go back");
  await page.getByRole("button", { name: "Put it back" }).click();
  await expect(logOf(page)).toContainText("11 of 11 to go back");

  const other = await context.newPage();
  await other.goto(`/jobs/${JOB}/bench/service`);
  await expect(logOf(other)).toContainText("11 of 11 to go back");

  await page.keyboard.press("r");
  for (const next of ["spring idler", "ball thrust bearing"]) {
    await expect(logOf(page).getByText(next, { exact: true }).first()).toBeVisible();
    await page.keyboard.press(" ");
    await expect(page.getByRole("button", { name: new RegExp(`${next}.*fitted`) })).toBeVisible();
  }
  // the washer is forgotten: everything else of the transport goes back, one by one
  for (const name of [
    /clip flywheel shaft/,
    /main belt/,
    /slotted position motor bracket/,
    /screw motor bracket/,
  ]) {
    await chosen(page.getByRole("button", { name }));
    await page.keyboard.press(" ");
    await expect(page.getByRole("button", { name: new RegExp(`${name.source}.*fitted`) })).toBeVisible();
  }
  await chosen(page.getByRole("button", { name: /^transport/ }));
  await page.getByRole("button", { name: /^Closed/ }).click();
  await expect(page.getByText(/one line is open \(washer under the flywheel\)/)).toBeVisible();
  await expect(page.getByText("Not done while 5 lines are open.")).toBeVisible();
  await expect(logOf(other)).toContainText("5 of 11 to go back");

  // it is lost: it becomes a part to get, and service waits for it
  await chosen(page.getByRole("button", { name: /^washer under the flywheel/ }));
  await page.keyboard.press("x");
  const parts = page.getByRole("list", { name: "Parts" });
  await expect(parts).toContainText("washer under the flywheel (missing)");
  await page.goto(`/jobs/${JOB}/sheet`);
  await expect(page.getByText("washer under the flywheel (missing)").first()).toBeVisible();
  await expect(page.getByText("Not finished")).toBeVisible();
});

test("pictures are taken down to size, drawn on and kept; what is none is refused with a sentence", async ({
  page,
}) => {
  await openService(page, "demo-job-0398");
  await page.getByLabel("Pictures", { exact: true }).setInputFiles(NOT_WAV);
  await expect(page.getByText(/cannot be read as a picture/)).toBeVisible();
  const image = await page.evaluate(async () => {
    const canvas = new OffscreenCanvas(4000, 2000);
    canvas.getContext("2d")!.fillRect(100, 100, 900, 900);
    const blob = await canvas.convertToBlob({ type: "image/png" });
    return [...new Uint8Array(await blob.arrayBuffer())];
  });
  await page
    .getByLabel("Pictures", { exact: true })
    .setInputFiles({ name: "bracket.png", mimeType: "image/png", buffer: Buffer.from(image) });
  const open = page.getByRole("button", { name: /^Open: Picture of/ });
  await open.click();
  const drawing = page.getByRole("dialog").locator("svg[viewBox='0 0 1600 800']");
  const box = (await drawing.boundingBox())!;
  await page.mouse.move(box.x + 0.7 * box.width, box.y + 0.2 * box.height);
  await page.mouse.down();
  await page.mouse.move(box.x + 0.3 * box.width, box.y + 0.6 * box.height, { steps: 4 });
  await page.mouse.up();
  await expect(drawing.locator("path").first()).toBeVisible();
  await page.getByRole("button", { name: "Done" }).click();
  await page.reload();
  await expect(open.locator("svg path").first()).toBeAttached();
  await expect(open.getByRole("img")).toBeVisible();
});

test("parts: a station waits for its own, the floor says what is overdue and what can go on", async ({
  page,
}) => {
  const day = (after: number) => new Date(Date.now() + after * 86_400_000).toISOString().slice(0, 10);
  await openService(page, "demo-job-0412");
  await page.getByRole("button", { name: "A part is needed" }).click();
  await page.getByRole("textbox", { name: "Part", exact: true }).fill("pinch roller");
  await page.getByLabel("How many").fill("0");
  await expect(page.getByRole("button", { name: "Write it down" })).toBeDisabled();
  await page.getByLabel("How many").fill("2");
  await choose(page.getByRole("combobox", { name: "Needed for" }), "Speed");
  await page.getByRole("button", { name: "Write it down" }).click();
  const part = page.getByRole("listitem", { name: "2 × pinch roller" });
  await expect(part).toContainText("to be ordered · for speed");
  await part.getByLabel("Expected").fill(day(9));
  await part.getByRole("button", { name: "Ordered" }).click();
  await expect(part).toContainText("ordered, expected");

  await page.goto("/");
  const job = page.getByRole("article", { name: /Tarnvik T-2/ });
  await expect(job).toContainText("waiting: 2 × pinch roller");
  await expect(page.getByRole("region", { name: "What arrives when" })).toContainText(
    "2 × pinch roller · Tarnvik T-2",
  );
  // speed waits: what can be done is what comes after it
  await expect(
    page.getByRole("link", { name: /Tarnvik T-2 .*speed waits for 2 × pinch roller/ }),
  ).toBeVisible();

  await page.goto("/jobs/demo-job-0412");
  await part.getByLabel("Expected").fill(day(-3));
  await expect(part).toContainText("was expected");
  await page.goto("/");
  await expect(page.getByRole("list", { name: "Overdue" })).toContainText("2 × pinch roller");
  await page.goto("/jobs/demo-job-0412");
  await part.getByRole("button", { name: "It fits" }).click();
  await expect(part).toContainText("arrived, fits");
  await page.goto("/");
  await expect(page.getByRole("list", { name: "Here, to be fitted" })).toContainText("2 × pinch roller");
  await expect(job).not.toContainText("waiting");
});

test("intake: what the complaint means says what to do first; it travels with its pictures in one archive", async ({
  page,
  browser,
}) => {
  await page.goto("/jobs/demo-job-0412/bench/intake");
  const steps = page.getByRole("list", { name: "Before anything is opened" });
  await expect(steps).toContainText("a shell that binds");
  await page.getByRole("button", { name: "Dead" }).click();
  await expect(steps).toContainText("Leaked cells");
  await page.getByRole("button", { name: "Sounds dull" }).click();
  const found = page.getByRole("region", { name: "As found, before anything is opened" });
  await expect(found.getByRole("link", { name: "Speed: taken" })).toBeVisible();
  await expect(found.getByRole("link", { name: "Azimuth" })).toBeVisible();
  await page.getByRole("textbox", { name: "What came with it" }).fill("two reels");
  await page.getByLabel("Wanted by").fill("2026-11-01");
  const buffer = await page.screenshot();
  await page
    .getByLabel("Pictures", { exact: true })
    .setInputFiles(
      ["front", "back", "inside"].map((name) => ({ name: `${name}.png`, mimeType: "image/png", buffer })),
    );
  // they are kept though their page is left for another one at once
  await page
    .getByRole("link", { name: /^Speed/ })
    .first()
    .click();
  await expect(page.getByRole("meter", { name: "Speed error" })).toBeVisible();
  await page.goBack();
  await expect(page.getByRole("button", { name: /^Open: Picture of the machine/ })).toHaveCount(3);

  await page.goto("/jobs/demo-job-0412");
  const saved = page.waitForEvent("download");
  await page.getByRole("button", { name: "Export with pictures and sounds" }).click();
  const archive = await (await saved).path();
  const elsewhere = await (await browser.newContext({ baseURL: new URL(page.url()).origin })).newPage();
  await elsewhere.goto("/");
  await expect(elsewhere.getByRole("article")).toHaveCount(4);
  await elsewhere.getByLabel("Job file").setInputFiles(archive);
  await expect(elsewhere.getByText("Imported job 0412 with its pictures and sounds.")).toBeVisible();
  await expect(elsewhere.getByText("wanted by 1 Nov")).toBeVisible();
  await elsewhere.goto("/jobs/demo-job-0412/bench/intake");
  await expect(elsewhere.getByRole("textbox", { name: "What came with it" })).toHaveValue("two reels");
  await expect(elsewhere.getByRole("button", { name: /^Open: Picture of the machine/ })).toHaveCount(3);
});

test("a tape that sheds is not baked without consent, and once played nothing is logged before the path is clean", async ({
  page,
}) => {
  await page.goto("/jobs/demo-job-0412/bench/clean");
  await page.getByLabel("Which tape").fill("Interview 12");
  await page.getByRole("button", { name: "Look at it" }).click();
  const tape = page.getByRole("region", { name: "Interview 12" });
  await expect(tape).toContainText("It may be played");
  await tape.getByRole("button", { name: "squeals" }).click();
  await expect(tape).toContainText("Not yet");
  await expect(tape).toContainText("Only with the owner's consent");
  await tape.getByRole("button", { name: "unknown base" }).click();
  await expect(tape).toContainText("Its base has to be known first");
  await tape.getByRole("button", { name: "unknown base" }).click();
  await tape.getByRole("checkbox").click();
  await expect(tape.getByRole("checkbox")).toBeChecked();
  await tape.getByLabel("Temperature, °C").fill("90");
  await expect(tape).toContainText("Between 45 and 57");
  await tape.getByLabel("Temperature, °C").fill("54");
  await tape.getByRole("button", { name: "It was baked like that" }).click();
  await expect(tape).toContainText("it may be played for 21 more days");
  await tape.getByRole("button", { name: /It was played/ }).click();
  await expect(page.getByRole("checkbox", { checked: true })).toHaveCount(0);

  const hands = new BenchHands(page);
  await hands.open("demo-job-0412", "speed");
  await expect(page.getByText(/Interview 12 was played and may have left oxide/)).toBeVisible();
  const rows = hands.slip.getByRole("listitem");
  await expect(rows.first()).toBeVisible();
  const before = await rows.count();
  await hands.play("nothing wrong");
  await hands.settled();
  await page.keyboard.press("Space");
  await page.keyboard.press("p");
  await page.getByRole("button", { name: "To cleaning" }).click();
  const lines = page.getByRole("region", { name: /^Clean:/ }).getByRole("checkbox");
  await expect(lines).toHaveCount(5);
  for (const line of await lines.all()) {
    await line.click();
    await expect(line).toBeChecked();
  }
  await page.keyboard.press("]");
  await expect(hands.speed).toBeVisible();
  await expect(page.getByText(/may have left oxide/)).toHaveCount(0);
  await expect(rows).toHaveCount(before);
  await hands.settled();
  await page.keyboard.press("Space");
  await expect(rows).toHaveCount(before + 1);
});

test("a part comes out of the spare-parts box when it is fitted; the box goes out as CSV and comes back", async ({
  page,
}) => {
  await page.goto("/");
  await expect(page.getByRole("article")).toHaveCount(4);
  await page.goto("/spares");
  const clips = page.getByRole("article", { name: "clip 3 mm" });
  await expect(clips).toContainText("25");
  await clips.getByRole("button", { name: "One clip 3 mm out" }).click();
  await expect(clips).toContainText("24");
  await page.getByLabel("What, with its size").fill("felt pad 4 mm");
  await page.getByLabel("How many").fill("half a dozen");
  await page.getByRole("button", { name: "Into the box" }).click();
  await expect(page.getByText(/count: a number/)).toBeVisible();
  await page.getByLabel("How many").fill("6");
  await page.getByRole("button", { name: "Into the box" }).click();
  await expect(page.getByRole("article", { name: "felt pad 4 mm" })).toContainText("6");
  await page.getByLabel("Spare parts file").setInputFiles({
    name: "bad.csv",
    mimeType: "text/csv",
    buffer: Buffer.from("name,kind,count\nclip 3 mm,clip,many\n"),
  });
  await expect(page.getByText(/bad.csv: Row 2: count/)).toBeVisible();
  await expect(clips).toContainText("24");

  await page.goto(`/jobs/${JOB}/bench/service`);
  await page.getByRole("button", { name: "A part is needed" }).click();
  await page.getByRole("textbox", { name: "Part", exact: true }).fill("clip 3 mm");
  await page.getByRole("textbox", { name: "How many" }).fill("2");
  await page.getByRole("button", { name: "Write it down" }).click();
  const part = page.getByRole("listitem", { name: "2 × clip 3 mm" });
  await choose(part.getByRole("combobox", { name: "From the box" }), /^clip 3 mm: 24/);
  await expect(part).toContainText("from spare-parts box, lid");
  await part.getByRole("button", { name: "Fitted" }).click();
  await expect(part).toContainText("fitted");
  await page.goto("/spares");
  await expect(clips).toContainText("22");
});

test("cleaning goes part by part of this very machine, with what it is done with, and stands on the sheet", async ({
  page,
}) => {
  await page.goto(`/jobs/${JOB}/bench/clean`);
  const parts = page.getByRole("region", { name: "Part by part" });
  await parts
    .getByRole("button", { name: /^pinch roller/ })
    .first()
    .click();
  await expect(parts).toContainText("Schools differ on alcohol");
  await expect(parts.getByRole("group", { name: "Done" }).getByRole("button").first()).toBeDisabled();
  await parts.getByRole("button", { name: "dirty", exact: true }).click();
  await parts.getByRole("button", { name: "rubber cleaner", exact: true }).click();
  await parts.getByRole("button", { name: "cleaned", exact: true }).click();
  await expect(parts).toContainText("dirty; cleaned with rubber cleaner");
  await page.goto(`/jobs/${JOB}/sheet`);
  await expect(page.getByRole("article")).toContainText("pinch roller: dirty; cleaned with rubber cleaner");
});
