import { spawnSync } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll } from "vitest";

type Command = "measure" | "practice" | "signals";

/** As a user starts it. */
const started = (command: Command, args: string[]) =>
  spawnSync(process.execPath, ["scripts/run-ts.mjs", `src/cli/${command}.ts`, ...args], { encoding: "utf8" });

/** The command line, and a folder of its own for the files of a test. */
export function commandLine() {
  const folder = mkdtempSync(join(tmpdir(), "unzel-cli-"));
  afterAll(() => {
    rmSync(folder, { recursive: true, force: true });
  });
  return {
    folder,
    at: (name: string) => join(folder, name),
    /** What it answers, as data. */
    run: (command: Command, ...args: string[]) => {
      const { status, stdout, stderr } = started(command, args);
      return { status, stderr, answer: stdout === "" ? null : JSON.parse(stdout) };
    },
    runText: (command: Command, ...args: string[]) => started(command, args),
  };
}
