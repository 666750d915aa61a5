import { spawnSync } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll } from "vitest";

type Command = "measure" | "practice" | "signals";

function started(args: string[]) {
  const { status, stdout, stderr } = spawnSync(process.execPath, args, { encoding: "utf8" });
  return { status, stderr, answer: stdout === "" ? null : JSON.parse(stdout) };
}

/** The command line, and a folder of its own for the files of a test. */
export function commandLine() {
  const folder = mkdtempSync(join(tmpdir(), "unzel-cli-"));
  const bundles = new Map<Command, string>();
  const bundleOf = (command: Command): string => {
    const before = bundles.get(command);
    if (before) return before;
    const outfile = `node_modules/.cache/unzel/${command}-${process.pid}-${Math.random()}.mjs`;
    spawnSync(process.execPath, ["scripts/bundle.mjs", `src/cli/${command}.ts`, outfile], {
      stdio: "inherit",
    });
    bundles.set(command, outfile);
    return outfile;
  };
  afterAll(() => {
    for (const file of [folder, ...bundles.values()]) rmSync(file, { recursive: true, force: true });
  });
  return {
    folder,
    at: (name: string) => join(folder, name),
    /** Bundled once for all. */
    run: (command: Command, ...args: string[]) => started([bundleOf(command), ...args]),
    /** As a user starts it. */
    runAsUser: (command: Command, ...args: string[]) =>
      started(["scripts/run-ts.mjs", `src/cli/${command}.ts`, ...args]),
  };
}
