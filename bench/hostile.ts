import { hostileFiles } from "./hostile-files";
import { say } from "./say";

const HOSTILE_FILES = Number(process.env.UNZEL_BENCH_FILES ?? 10_000);

/** How every reader of outside bytes meets what was damaged or made to harm. */
export async function hostileFigures(): Promise<void> {
  for await (const { name, faults, slowestSeconds, megabytes } of hostileFiles(HOSTILE_FILES))
    say(
      `${HOSTILE_FILES} damaged or hostile files: ${name}`,
      `${faults.length} met badly${faults.length > 0 ? ` (${faults[0]})` : ""}, the slowest in ${slowestSeconds.toFixed(2)} s, ${megabytes.toFixed(0)} MB in all`,
    );
}
