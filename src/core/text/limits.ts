import * as z from "./zod";

/**
 * Limits are for files that were made to harm, not for work: nothing that is typed, drawn or photographed on a bench
 * comes near them.
 */
export const text = z.string().max(1_000_000);
/** Entries of a list that a record holds itself. */
export const MOST_ENTRIES = 20_000;
