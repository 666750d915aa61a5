import { ImportError } from "./import-error";

/** No record of Unzel is nested deeper by far. */
const MOST_DEPTH = 60;

/**
 * What a JSON text says.
 * @returns undefined for a text that is no JSON
 * @throws ImportError for one that is nested deeper than anything Unzel writes
 */
export function valueOfJson(text: string): unknown {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    return undefined;
  }
  if (isDeeper(value, MOST_DEPTH))
    throw new ImportError(
      `The file is nested more than ${MOST_DEPTH} levels deep, which nothing that Unzel writes is. Choose another file.`,
    );
  return value;
}

/** Without calls in calls, which run out where a text is nested deep enough. */
function isDeeper(value: unknown, most: number): boolean {
  let level: unknown[] = [value];
  for (let depth = 0; level.length > 0; depth++) {
    if (depth > most) return true;
    level = level.flatMap((one) => (typeof one === "object" && one !== null ? Object.values(one) : []));
  }
  return false;
}
