import { createHash } from "node:crypto";
import { mkdirSync, readFileSync, renameSync, statSync, writeFileSync } from "node:fs";
import { basename } from "node:path";

const KEPT_IN = "node_modules/.cache/unzel";
/** What the bundle depends on beside its sources. */
const ALSO = ["package-lock.json", "scripts/bundle.mjs"];

/** The bundle of a program, made anew only when one of its sources has changed since. */
export async function bundled(entry) {
  const name = `${KEPT_IN}/${basename(entry, ".ts")}-${createHash("sha256").update(entry).digest("hex").slice(0, 8)}`;
  if (isCurrent(`${name}.json`)) return `${name}.mjs`;
  mkdirSync(KEPT_IN, { recursive: true });
  // another run may be reading the old one: it is replaced in one step, the list of its sources last
  const { bundle } = await import("./bundle.mjs");
  const own = `${name}-${process.pid}`;
  const { metafile } = await bundle(entry, `${own}.mjs`);
  const sources = [...ALSO, ...Object.keys(metafile.inputs)].map((file) => [file, stampOf(file)]);
  writeFileSync(`${own}.json`, JSON.stringify(sources));
  renameSync(`${own}.mjs`, `${name}.mjs`);
  renameSync(`${own}.json`, `${name}.json`);
  return `${name}.mjs`;
}

const stampOf = (file) => {
  const { mtimeMs, size } = statSync(file);
  return `${mtimeMs} ${size}`;
};

function isCurrent(list) {
  try {
    return JSON.parse(readFileSync(list, "utf8")).every(([file, stamp]) => stampOf(file) === stamp);
  } catch {
    // never bundled, or one of its sources is gone
    return false;
  }
}
