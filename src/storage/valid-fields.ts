import { firstIssue } from "@/core/formats/import-error";
import type * as z from "@/core/text/zod";

/**
 * Changed fields of a record as its schema has them, by the schema that reads them back from a backup: what is stored can
 * always be read again. A field that is to go stays undefined.
 * @throws Error with a sentence for a field that cannot be stored
 */
export function validFields<Fields extends object>(
  shape: Partial<Record<string, z.ZodType>>,
  fields: Fields,
): Fields {
  const valid = Object.entries(fields).map(([name, value]) => {
    const schema = shape[name];
    if (value === undefined || !schema) return [name, value];
    const parsed = schema.safeParse(value);
    if (!parsed.success) throw new Error(`This was not stored: ${name}: ${firstIssue(parsed.error)}.`);
    return [name, parsed.data];
  });
  return Object.fromEntries(valid) as Fields;
}
