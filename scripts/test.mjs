// Everything that must pass: formatting, lint, types, build, unit tests, browser tests. Ends with one line.
import { spawn, spawnSync } from "node:child_process";
import { once } from "node:events";
import { existsSync, mkdirSync, readFileSync, rmSync } from "node:fs";
import { constants, setPriority } from "node:os";
import { ensureInstalled } from "./install.mjs";

const REPORTS = ".tmp/reports";
const CHROMIUM = process.env.CHROMIUM ?? "/usr/bin/chromium";
let passed = 0;
let failed = 0;

const ENVIRONMENT = { ...process.env, NEXT_TELEMETRY_DISABLED: "1" };
const run = (command, args, env = {}) =>
  spawnSync(command, args, {
    stdio: "inherit",
    env: { ...ENVIRONMENT, ...env },
  }).status;

ensureInstalled();
ensureChromium();
rmSync(REPORTS, { recursive: true, force: true });
mkdirSync(REPORTS, { recursive: true });

// two at a time: each keeps one core busy
const [, built] = await Promise.all([
  checks(
    ["formatting", "node_modules/.bin/prettier", ["--check", "--log-level", "warn", "."]],
    ["lint", "node_modules/.bin/eslint", [".", "--max-warnings", "0"]],
  ),
  checks(
    ["types", "node_modules/.bin/tsc", ["--noEmit"]],
    ["build", process.execPath, ["scripts/build.mjs"]],
  ),
]);
// browser tests mostly wait for sound that plays in real time: the unit tests have the cores meanwhile
const counts = [
  counted(
    "unit tests",
    "node_modules/.bin/vitest",
    ["run", "--reporter=default", "--reporter=json", `--outputFile.json=${REPORTS}/unit.json`],
    "unit.json",
    (report) => [
      report.numPassedTests,
      report.numFailedTests +
        (report.success
          ? 0
          : report.testResults.filter((f) => f.status === "failed" && f.assertionResults.length === 0)
              .length),
    ],
    true,
  ),
];
if (built)
  counts.push(
    counted("browser tests", "node_modules/.bin/playwright", ["test"], "browser.json", ({ stats }) => [
      stats.expected + stats.flaky,
      stats.unexpected,
    ]),
  );
await Promise.all(counts);

console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed === 0 && passed > 0 ? 0 : 1);

/**
 * Checks one after the other, beside other work; each prints what it has to say in one piece.
 * @returns whether the last one passed
 */
async function checks(...list) {
  let good = false;
  for (const [name, command, args] of list) {
    const { status, said } = await finished(command, args);
    console.log(`\n== ${name}\n${said}`);
    good = status === 0;
    if (good) passed++;
    else failed++;
  }
  return good;
}

/** A step that says in a report how many of its tests passed; without a report it has failed as a whole. */
async function counted(name, command, args, report, count, yields = false) {
  const env = { PLAYWRIGHT_JSON_OUTPUT_NAME: `${REPORTS}/${report}`, CHROMIUM };
  const { status, said } = await finished(command, args, env, yields);
  console.log(`\n== ${name}\n${said}`);
  const path = `${REPORTS}/${report}`;
  const [good, bad] = existsSync(path) ? count(JSON.parse(readFileSync(path, "utf8"))) : [0, 1];
  passed += good;
  failed += status !== 0 && bad === 0 ? 1 : bad;
}

/** Runs a command beside others to its end, and gives what it had to say in one piece. One that yields takes what cores are idle. */
async function finished(command, args, env = {}, yields = false) {
  const child = spawn(command, args, { env: { ...ENVIRONMENT, ...env } });
  if (yields && child.pid) setPriority(child.pid, constants.priority.PRIORITY_LOW);
  let said = "";
  for (const stream of [child.stdout, child.stderr]) stream.on("data", (text) => (said += text));
  const [status] = await once(child, "close");
  return { status, said };
}

function ensureChromium() {
  if (existsSync(CHROMIUM)) return;
  const root = process.getuid?.() === 0;
  if (root && !process.env.CHROMIUM) {
    console.error("Installing Debian's Chromium for the browser tests…");
    run("apt-get", ["update", "-qq"]);
    if (run("apt-get", ["install", "-y", "-qq", "chromium"]) === 0 && existsSync(CHROMIUM)) return;
  }
  console.error(
    `The browser tests need Chromium at ${CHROMIUM}. Install Debian's package with: sudo apt-get install chromium (or set CHROMIUM to where it is).`,
  );
  process.exit(1);
}
