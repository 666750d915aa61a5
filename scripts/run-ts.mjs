// Runs a TypeScript program of the repository: bundled first, since the loop that measures is faster that way.
import { resolve } from "node:path";
import { pathToFileURL } from "node:url";
import { ensureInstalled } from "./install.mjs";

ensureInstalled();
const [entry, ...args] = process.argv.slice(2);
const { bundled } = await import("./bundled.mjs");
const program = resolve(await bundled(entry));
process.argv.splice(1, Infinity, program, ...args);
await import(pathToFileURL(program).href);
