// Builds the application and the service worker that keeps it.
import { spawnSync } from "node:child_process";
import { ensureInstalled } from "./install.mjs";

ensureInstalled();
const { status } = spawnSync("node_modules/.bin/next", ["build"], {
  stdio: "inherit",
  env: { ...process.env, NEXT_TELEMETRY_DISABLED: "1" },
});
if (status !== 0) process.exit(status ?? 1);

// once everything that it keeps is there
const { buildServiceWorker } = await import("./service-worker.mjs");
await buildServiceWorker("public/service-worker.js");
