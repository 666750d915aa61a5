// Runs a TypeScript program of the repository: bundled first, since the loop that measures is faster that way.
import { spawn } from "node:child_process";
import { mkdirSync } from "node:fs";
import { basename } from "node:path";
import { ensureInstalled } from "./install.mjs";

ensureInstalled();
const { build } = await import("esbuild");
const [entry, ...args] = process.argv.slice(2);
const outfile = `node_modules/.cache/unzel/${basename(entry, ".ts")}-${process.pid}.mjs`;
mkdirSync("node_modules/.cache/unzel", { recursive: true });
await build({
  entryPoints: [entry],
  outfile,
  bundle: true,
  platform: "node",
  format: "esm",
  packages: "external",
  alias: { "@": "./src" },
  logLevel: "error",
});
const child = spawn(process.execPath, [outfile, ...args], { stdio: "inherit" });
for (const signal of ["SIGINT", "SIGTERM"]) process.on(signal, () => child.kill(signal));
child.on("exit", async (code) => {
  const { rm } = await import("node:fs/promises");
  await rm(outfile, { force: true });
  process.exit(code ?? 1);
});
