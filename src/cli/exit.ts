/** The command was used wrongly: exit status 2, with the usage. */
export class UsageError extends Error {}

/** Runs a command, or tells its usage where that is asked for: a message on standard error and status 2 for wrong usage, 1 for anything else. */
export function runCommand(main: () => Promise<void>, usage: string): void {
  // whoever reads the answer may have read enough of it
  process.stdout.on("error", (error: NodeJS.ErrnoException) => {
    if (error.code === "EPIPE") process.exit(0);
    throw error;
  });
  if (process.argv.slice(2).some((one) => one === "--help" || one === "-h")) {
    console.log(usage);
    return;
  }
  main().catch((error: unknown) => {
    if (error instanceof UsageError) {
      console.error(`${error.message}\n${usage.split("\n")[0]}\n--help tells the rest.`);
      process.exit(2);
    }
    console.error(error instanceof Error ? error.message : String(error));
    process.exit(1);
  });
}
