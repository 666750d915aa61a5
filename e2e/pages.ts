/** Every page that belongs to no job and has a heading of its own in the list of pages. */
export const PAGES = [
  "/",
  "/listen",
  "/signals",
  "/tapes",
  "/machines",
  "/spares",
  "/rules",
  "/settings",
  "/backup",
] as const;
