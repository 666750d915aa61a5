import { defineConfig } from "@playwright/test";
import { CLIP, STEADY, TONE } from "./e2e/sounds";

const PORT = 3217;
const ARGUMENTS = [
  "--no-sandbox",
  "--disable-gpu",
  "--disable-quic",
  "--no-first-run",
  "--disable-background-networking",
  "--disable-component-update",
  "--disable-sync",
  // pages that follow each other in one window are shown by one process (e2e/test.ts)
  "--process-per-site",
];
/** Chromium plays this file as if it were the sound card. */
const soundCard = (file: string) => [
  ...ARGUMENTS,
  "--use-fake-ui-for-media-stream",
  "--use-fake-device-for-media-stream",
  `--use-file-for-fake-audio-capture=${file}`,
];
const launch = (args: string[]) => ({
  launchOptions: { executablePath: process.env.CHROMIUM ?? "/usr/bin/chromium", args },
});

export default defineConfig({
  testDir: "e2e",
  globalSetup: "./e2e/make-sounds.ts",
  fullyParallel: true,
  // more than there are processors: while sound plays in real time a test waits more than it works
  workers: 3,
  // a busy machine is slow, not wrong
  timeout: 900_000,
  expect: { timeout: 400_000 },
  reporter: [["list"], ["json"]],
  use: {
    actionTimeout: 400_000,
    baseURL: `http://localhost:${PORT}`,
    viewport: { width: 1280, height: 800 },
    acceptDownloads: true,
    // what keeps the application for later is tested where it is meant; elsewhere each test would fetch all of it anew
    serviceWorkers: "block",
    // of a drawer that slides in every picture is drawn by the processor: a tenth of the whole
    contextOptions: { reducedMotion: "reduce" },
  },
  projects: [
    { name: "bench", testIgnore: /sound-card/, use: launch(ARGUMENTS) },
    { name: "sound card", testMatch: /sound-card\.spec/, use: launch(soundCard(STEADY)) },
    { name: "flutter", testMatch: /sound-card-flutter\.spec/, use: launch(soundCard(TONE)) },
    { name: "wrong tone", testMatch: /sound-card-wrong\.spec/, use: launch(soundCard(CLIP)) },
  ],
  webServer: {
    command: `node_modules/.bin/next start --port ${PORT}`,
    cwd: process.cwd(),
    port: PORT,
    env: { UNZEL_DEMO: "1", NEXT_TELEMETRY_DISABLED: "1" },
  },
});
