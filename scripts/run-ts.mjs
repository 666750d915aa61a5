// Runs a TypeScript program of the repository: bundled first, since the loop that measures is faster that way.
import { spawn } from "node:child_process";
import { basename } from "node:path";
import { ensureInstalled } from "./install.mjs";

ensureInstalled();
const { bundle } = await import("./bundle.mjs");
const [entry, ...args] = process.argv.slice(2);
const outfile = `node_modules/.cache/unzel/${basename(entry, ".ts")}-${process.pid}.mjs`;
await bundle(entry, outfile);
const child = spawn(process.execPath, [outfile, ...args], { stdio: "inherit" });
for (const signal of ["SIGINT", "SIGTERM"]) process.on(signal, () => child.kill(signal));
child.on("exit", async (code) => {
  const { rm } = await import("node:fs/promises");
  await rm(outfile, { force: true });
  process.exit(code ?? 1);
});
