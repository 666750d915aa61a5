const day = new Intl.DateTimeFormat("en-GB", { day: "numeric", month: "short" });

/** A day as it is read beside other work: "12 Nov". @param at ISO 8601 */
export const shortDay = (at: string): string => day.format(new Date(at));
