// Everything that must pass: formatting, lint, types, build, unit tests, browser tests. Ends with one line.
import { spawn, spawnSync } from "node:child_process";
import { once } from "node:events";
import { existsSync, mkdirSync, readFileSync, rmSync } from "node:fs";
import { ensureInstalled } from "./install.mjs";

const REPORTS = ".tmp/reports";
const CHROMIUM = process.env.CHROMIUM ?? "/usr/bin/chromium";
let passed = 0;
/** What did not pass, by name: said once more at the end, where it is looked for. */
const failed = [];

/** What makes short-lived objects by the million is collected less often so: an eighth of the unit tests' time. */
const ROOM_FOR_THE_YOUNG = "--max-semi-space-size=64";
const ENVIRONMENT = {
  ...process.env,
  NEXT_TELEMETRY_DISABLED: "1",
  NODE_OPTIONS: `${process.env.NODE_OPTIONS ?? ""} ${ROOM_FOR_THE_YOUNG}`,
};
const run = (command, args, env = {}) =>
  spawnSync(command, args, {
    stdio: "inherit",
    env: { ...ENVIRONMENT, ...env },
  }).status;

ensureInstalled();
ensureChromium();
rmSync(REPORTS, { recursive: true, force: true });
mkdirSync(REPORTS, { recursive: true });

// beside the build, at the same priority: of a lower one they were given next to nothing
const units = counted(
  "unit tests",
  "node_modules/.bin/vitest",
  ["run", "--reporter=default", "--reporter=json", `--outputFile.json=${REPORTS}/unit.json`],
  "unit.json",
  ({ numPassedTests, testResults }) => [numPassedTests, testResults.flatMap(failuresOfFile)],
);
// two at a time: each keeps one core busy
const [, built] = await Promise.all([
  checks(
    ["formatting", "node_modules/.bin/prettier", ["--check", "--log-level", "warn", "."]],
    ["lint", "node_modules/.bin/eslint", [".", "--max-warnings", "0"]],
    ["types", "node_modules/.bin/tsc", ["--noEmit"]],
  ),
  checks(["build", process.execPath, ["scripts/build.mjs"]]),
]);
// they play sound in real time: nothing else may run beside them
await units;
if (built)
  await counted(
    "browser tests",
    "node_modules/.bin/playwright",
    ["test"],
    "browser.json",
    ({ stats, suites }) => [stats.expected, suites.flatMap(failuresOfSuite)],
  );

for (const one of failed) console.log(`\n== did not pass: ${one}`);
console.log(`\n${passed} passed, ${failed.length} failed`);
process.exit(failed.length === 0 && passed > 0 ? 0 : 1);

/** What failed in a file of unit tests; one that could not even be read has failed as a whole. */
function failuresOfFile({ name, status, message, assertionResults }) {
  const bad = assertionResults
    .filter((test) => test.status === "failed")
    .map((test) => `${name} › ${test.fullName}\n${test.failureMessages.join("\n")}`);
  return status === "failed" && bad.length === 0 ? [`${name}\n${message}`] : bad;
}

/** What failed in a file of browser tests or a group of them. A test that passed only when it was tried again has failed. */
function failuresOfSuite({ title, suites = [], specs = [] }) {
  const bad = specs
    .flatMap((spec) => spec.tests.map((test) => ({ spec, test })))
    .filter(({ test }) => test.status !== "expected" && test.status !== "skipped")
    .map(({ spec, test }) => {
      const errors = test.results.flatMap((result) => result.errors.map((error) => error.message));
      return `${title} › ${spec.title}\n${errors.join("\n")}`;
    });
  return [...bad, ...suites.flatMap(failuresOfSuite)];
}

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
    else failed.push(name);
  }
  return good;
}

/** A step that says in a report how many of its tests passed; without a report it has failed as a whole. */
async function counted(name, command, args, report, count) {
  const env = { PLAYWRIGHT_JSON_OUTPUT_NAME: `${REPORTS}/${report}`, CHROMIUM };
  const { status, said } = await finished(command, args, env);
  console.log(`\n== ${name}\n${said}`);
  const path = `${REPORTS}/${report}`;
  const [good, bad] = existsSync(path) ? count(JSON.parse(readFileSync(path, "utf8"))) : [0, []];
  passed += good;
  failed.push(...bad);
  if (status !== 0 && bad.length === 0) failed.push(`${name} as a whole: see above`);
}

/** Runs a command beside others to its end, and gives what it had to say in one piece. */
async function finished(command, args, env = {}) {
  const child = spawn(command, args, { env: { ...ENVIRONMENT, ...env } });
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
