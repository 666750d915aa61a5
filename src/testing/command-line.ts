import { spawnSync } from "node:child_process";
import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";

/** The command line as a user starts it, and a folder of its own for the files of a test. */
export function commandLine() {
  const folder = mkdtempSync(join(tmpdir(), "unzel-cli-"));
  return {
    folder,
    at: (name: string) => join(folder, name),
    run: (command: "measure" | "practice" | "signals", ...args: string[]) => {
      const { status, stdout, stderr } = spawnSync(
        process.execPath,
        ["scripts/run-ts.mjs", `src/cli/${command}.ts`, ...args],
        { encoding: "utf8" },
      );
      return { status, stderr, answer: stdout === "" ? null : JSON.parse(stdout) };
    },
  };
}
