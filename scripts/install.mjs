import { spawnSync } from "node:child_process";
import { existsSync, readFileSync, statSync } from "node:fs";

/** Installs the packages of the lock file when they are missing or older than it; talks on standard error. */
export function ensureInstalled() {
  const marker = "node_modules/.package-lock.json";
  if (existsSync(marker) && statSync(marker).mtimeMs >= statSync("package-lock.json").mtimeMs - 1) return;
  if (existsSync(marker) && sameVersions(marker)) return;
  console.error("Installing packages…");
  const { status } = spawnSync("npm", ["install", "--no-save", "--no-audit", "--no-fund"], {
    stdio: ["ignore", 2, 2],
  });
  if (status !== 0) {
    console.error(
      "The packages could not be installed. Check the connection to the npm registry and try again.",
    );
    process.exit(1);
  }
}

function sameVersions(marker) {
  const versions = (file) =>
    Object.entries(JSON.parse(readFileSync(file, "utf8")).packages)
      .filter(([name, entry]) => name !== "" && !entry.optional)
      .map(([name, entry]) => `${name}@${entry.version}`)
      .sort()
      .join();
  return versions(marker) === versions("package-lock.json");
}
