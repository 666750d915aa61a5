import { formatISO } from "date-fns";

/** The day that it is here, as an ISO date. */
export const today = (now = new Date()): string => formatISO(now, { representation: "date" });
