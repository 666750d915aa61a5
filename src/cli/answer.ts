/** What a measurement prints, beside the head that all have. */
export type Answer = { warnings?: string[]; [field: string]: unknown };
