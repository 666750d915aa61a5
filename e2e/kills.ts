import { execFileSync } from "node:child_process";
import { mkdtemp, readFile, rm } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { chromium, expect, test } from "@playwright/test";
import { SeededRandom } from "@/core/dsp/seeded-random";
import { SLOW } from "./sounds";
import { stored } from "./stored";

/*
 * The browser is killed at random moments while things are logged, ticked, typed, imported, deleted and restored. What was shown as
 * done has to be there afterwards, and nothing may be half.
 */

const ROUNDS = Number(process.env.UNZEL_KILLS ?? 100);
const TICKED = "/jobs/demo-job-0415/bench/clean";
const TAKEN_APART = "/jobs/demo-job-0415/bench/service";
const LOGGED = "demo-job-0415";
const NOTED = "/jobs/demo-job-0412";
const DELETED = "demo-job-0398";

/** What is known to have been shown, and what may or may not have been done when the browser was killed. */
interface Known {
  /** Whether a line is ticked; both where it was being clicked. */
  ticks: Map<number, Set<boolean>>;
  notes: Set<string>;
  /** Numbers of imported jobs that were shown, and of one that was on its way. */
  imported: Set<string>;
  importing: string | null;
  /** Whether the job that is deleted and brought back is there. */
  there: Set<boolean>;
  /** Lines of the strip-down log that were shown, in their order, and one that was being typed. */
  lines: string[];
  typing: string | null;
  /** How often flutter was logged at least, and at most. */
  logged: [number, number];
}

/** A job file of its own: that of the demo under other ids. */
function jobFile(written: string, number: string) {
  const bundle = JSON.parse(written) as {
    checksum?: string;
    content: {
      jobs: Array<{ id: string; number: string }>;
      readings: Array<{ id: string; jobId: string }>;
      adjustments: Array<{ id: string; jobId: string }>;
      runs: unknown[];
      watches: unknown[];
    };
  };
  delete bundle.checksum;
  const { content } = bundle;
  content.jobs = content.jobs.slice(0, 1).map((job) => ({ ...job, id: number, number }));
  const own = <T extends { id: string }>(records: T[]) =>
    records
      .slice(0, 40)
      .map((one) => ({ ...one, id: `${number}-${one.id}`, jobId: number, supersedes: undefined }));
  content.readings = own(content.readings);
  content.adjustments = own(content.adjustments);
  content.runs = [];
  content.watches = [];
  return {
    readings: content.readings.length,
    adjustments: content.adjustments.length,
    file: {
      name: `${number}.unzel.json`,
      mimeType: "application/json",
      buffer: Buffer.from(JSON.stringify(bundle)),
    },
  };
}

for (const seed of [1, 2])
  test(`killed ${ROUNDS} times, ${seed}`, async ({ baseURL }, { project }) => {
    test.setTimeout(60 * 60_000);
    const random = new SeededRandom(seed);
    const folder = await mkdtemp(join(tmpdir(), "unzel-killed-"));
    const open = () =>
      chromium.launchPersistentContext(folder, {
        ...project.use.launchOptions,
        baseURL,
        acceptDownloads: true,
        serviceWorkers: "block",
      });
    const known: Known = {
      ticks: new Map(),
      notes: new Set(),
      imported: new Set(),
      importing: null,
      there: new Set([true]),
      lines: [],
      typing: null,
      logged: [0, 0],
    };
    let counter = 0;
    let confirmed = 0;
    let browser = await open();
    let page = await browser.newPage();
    await page.goto("/");
    await expect(page.getByRole("article")).toHaveCount(4);
    const whole = await stored(page);
    /** How many readings of flutter were logged at each moment. */
    const logsIn = (readings: Array<Record<string, unknown>>) => {
      const logs = new Map<unknown, number>();
      for (const { jobId, station, at } of readings)
        if (jobId === LOGGED && station === "flutter") logs.set(at, (logs.get(at) ?? 0) + 1);
      return logs;
    };
    const loggedBefore = logsIn(whole.readings).size;
    const ofDeleted = whole.readings.filter(({ jobId }) => jobId === DELETED).length;
    await page.goto("/backup");
    const archive = page.waitForEvent("download");
    await page.getByRole("button", { name: "Back up everything" }).click();
    const backup = await readFile(await (await archive).path());
    await page.goto("/jobs/demo-job-0412/sheet");
    const download = page.waitForEvent("download");
    await page.getByRole("button", { name: "Export job" }).click();
    const job = await readFile(await (await download).path(), "utf8");
    const sizes = jobFile(job, "size");

    const actions: Array<() => Promise<void>> = [
      async () => {
        await page.goto(`/jobs/${LOGGED}/bench/flutter`);
        await page.getByLabel("Sound file").setInputFiles(SLOW);
        await expect(page.getByRole("meter", { name: "Weighted peak flutter" })).toHaveAttribute(
          "aria-valuenow",
          /0\.03/,
        );
        const rows = page.getByRole("list", { name: "Readings" }).getByRole("listitem");
        for (let i = 0; i < 6; i++) {
          const before = await rows.count();
          known.logged[1]++;
          await page.keyboard.press("Space");
          await expect(rows).not.toHaveCount(before);
          known.logged[0] = known.logged[1];
          confirmed++;
        }
      },
      async () => {
        await page.goto(TAKEN_APART);
        const log = page.getByRole("region", { name: "Strip-down log" });
        await expect(log).toBeVisible();
        for (let i = 0; i < 3; i++) {
          const line = `M3x${++counter} cross, place ${counter}`;
          known.typing = line;
          await page.keyboard.press("2");
          const typed = page.getByRole("textbox", { name: /^Line \d+: what and where/ });
          await expect(typed).toBeFocused();
          await typed.fill(line);
          await page.keyboard.press("Enter");
          await expect(typed).not.toBeFocused();
          await expect(log).toContainText(
            `${known.lines.length + 1} of ${known.lines.length + 1} to go back`,
          );
          known.lines.push(line);
          known.typing = null;
          confirmed++;
        }
      },
      async () => {
        await page.goto(TICKED);
        const boxes = page.getByRole("checkbox");
        await expect(boxes.first()).toBeVisible();
        for (let i = 0; i < 6; i++) {
          const at = Math.floor(random.uniform() * (await boxes.count()));
          const box = boxes.nth(at);
          const before = await box.isChecked();
          known.ticks.set(at, new Set([before, !before]));
          await box.click();
          await expect(box).toBeChecked({ checked: !before });
          known.ticks.set(at, new Set([!before]));
          confirmed++;
        }
      },
      async () => {
        await page.goto(NOTED);
        const notes = page.getByLabel("Notes");
        await expect(notes).toBeVisible();
        for (let i = 0; i < 5; i++) {
          const text = `Note ${++counter}. `.repeat(40).trim();
          known.notes.add(text);
          await notes.fill(text);
          await page.waitForTimeout(150);
        }
      },
      async () => {
        await page.goto("/");
        const number = `K${seed}-${++counter}`;
        known.importing = number;
        await page.getByLabel("Job file").setInputFiles(jobFile(job, number).file);
        await expect(page.getByText(`Imported job ${number} `)).toBeVisible();
        known.importing = null;
        known.imported.add(number);
        confirmed++;
      },
      async () => {
        if (known.there.size > 1 || !known.there.has(true)) return;
        await page.goto(`/jobs/${DELETED}`);
        known.there.add(false);
        await page.getByRole("button", { name: "Delete…" }).click();
        await page.getByRole("button", { name: "Delete", exact: true }).click();
        await page.waitForURL(/\/$/);
        await expect(page.getByText(/was deleted within the last day/).first()).toBeVisible();
        known.there.delete(true);
        confirmed++;
      },
      async () => {
        if (known.there.size > 1 || !known.there.has(false)) return;
        await page.goto("/backup");
        known.there.add(true);
        await page
          .getByLabel("Backup file")
          .setInputFiles({ name: "all.zip", mimeType: "application/zip", buffer: backup });
        await page.getByRole("button", { name: /Add what is missing here/ }).click();
        await expect(page.getByRole("main").getByRole("alert")).toContainText("brought back");
        known.there.delete(false);
        confirmed++;
      },
    ];

    const check = async () => {
      await page.goto(TICKED);
      await expect(page.getByRole("checkbox").first()).toBeVisible();
      for (const [at, may] of known.ticks) {
        const is = await page.getByRole("checkbox").nth(at).isChecked();
        expect(may.has(is), `tick ${at}`).toBe(true);
        known.ticks.set(at, new Set([is]));
      }
      // what was typed when the page went is stored when its page opens again
      await page.goto(TAKEN_APART);
      await expect(page.getByRole("region", { name: "Strip-down log" })).toBeVisible();
      await page.waitForTimeout(500);
      const { jobs, readings, adjustments, stripDown } = await stored(page);
      const lines = stripDown
        .filter(({ jobId }) => jobId === LOGGED)
        .sort((a, b) => (a.place as number) - (b.place as number))
        .map(({ line }) => line as string);
      expect(lines.slice(0, known.lines.length), "strip-down").toEqual(known.lines);
      const more = lines.slice(known.lines.length);
      expect(more.length, "strip-down").toBeLessThanOrEqual(known.typing === null ? 0 : 1);
      for (const line of more) expect(known.typing!.startsWith(line), line).toBe(true);
      known.lines = lines;
      known.typing = null;
      const of = (records: Array<Record<string, unknown>>, id: string) =>
        records.filter(({ jobId }) => jobId === id).length;
      const logs = logsIn(readings);
      const logged = logs.size - loggedBefore;
      expect(logged, "logged").toBeGreaterThanOrEqual(known.logged[0]);
      expect(logged, "logged").toBeLessThanOrEqual(known.logged[1]);
      known.logged = [logged, logged];
      const logSizes = [...logs.values()];
      expect(
        logSizes.filter((size) => size !== Math.max(...logSizes)),
        "half a log",
      ).toEqual([]);
      const noted = jobs.find(({ id }) => id === "demo-job-0412")!.notes as string;
      expect(
        noted === "" || known.notes.has(noted) || whole.jobs.some(({ notes }) => notes === noted),
        noted,
      ).toBe(true);
      for (const number of [...known.imported, ...(known.importing ? [known.importing] : [])]) {
        const isThere = jobs.some(({ id }) => id === number);
        if (known.imported.has(number)) expect(isThere, number).toBe(true);
        expect([of(readings, number), of(adjustments, number)], number).toEqual(
          isThere ? [sizes.readings, sizes.adjustments] : [0, 0],
        );
        if (isThere) known.imported.add(number);
      }
      known.importing = null;
      const isThere = jobs.some(({ id }) => id === DELETED);
      expect(known.there.has(isThere), "the deleted job").toBe(true);
      expect(of(readings, DELETED)).toBe(isThere ? ofDeleted : 0);
      known.there = new Set([isThere]);
    };

    try {
      for (let round = 0; round < ROUNDS; round++) {
        // it goes on until the browser is gone
        const killed = new Promise<void>((resolve) =>
          setTimeout(
            () => {
              execFileSync("pkill", ["-9", "-f", folder]);
              resolve();
            },
            300 + 3000 * random.uniform(),
          ),
        );
        let isKilled = false;
        void killed.then(() => (isKilled = true));
        while (!isKilled)
          try {
            await actions[Math.floor(random.uniform() * actions.length)]();
          } catch (error) {
            if (!isKilled) await Promise.race([killed, new Promise((resolve) => setTimeout(resolve, 4000))]);
            if (!isKilled) throw error;
          }
        await browser.close().catch(() => undefined);
        browser = await open();
        page = await browser.newPage();
        await check();
      }
      console.log(
        `killed ${ROUNDS} times, ${confirmed} things were shown as done before: all of them there, none half`,
      );
    } finally {
      await browser.close().catch(() => undefined);
      await rm(folder, { recursive: true, force: true });
    }
  });
