import type { ReturnedPass } from "./returned";

/**
 * Passes that were recorded and not found, by their numbers: every number below the highest that was found, and up to as many
 * as are known to have been recorded. In sentences.
 */
export function missingPasses(passes: ReadonlyArray<Pick<ReturnedPass, "pass">>, recorded: number): string[] {
  if (passes.length === 0) return [];
  const found = new Set(passes.map(({ pass }) => pass));
  const last = Math.max(recorded, ...found);
  const missing = Array.from({ length: last }, (_, i) => i + 1).filter((pass) => !found.has(pass));
  return missing.map((pass) => `Pass ${pass} is missing: it was not found in the recording.`);
}
