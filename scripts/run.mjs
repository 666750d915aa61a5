// Runs a package's command (next, tsx, eslint …) after making sure that the packages are installed.
import { spawn } from "node:child_process";
import { resolve } from "node:path";
import { ensureInstalled } from "./install.mjs";

ensureInstalled();
const [command, ...args] = process.argv.slice(2);
const child = spawn(resolve("node_modules/.bin", command), args, { stdio: "inherit" });
for (const signal of ["SIGINT", "SIGTERM"]) process.on(signal, () => child.kill(signal));
child.on("exit", (code) => process.exit(code ?? 1));
