/** Pages that are kept in the browser, without their query. Of those under a job one stands for all jobs and stations: a name of its own comes before it. */
const KEPT_PAGES = [
  "/",
  "/backup",
  "/jobs/new",
  "/jobs/-",
  "/jobs/-/sheet",
  "/jobs/-/card",
  "/jobs/-/bench/-",
  "/listen",
  "/machines",
  "/spares",
  "/rules",
  "/settings",
  "/signals",
  "/tapes",
  "/tapes/blank",
] as const;

/** They are kept under an address that nobody goes to, so that the server's own page comes first while there is one. */
const keptAddress = (page: string): string => `${page}?kept`;

/** Every page as it is kept. */
export const KEPT_ADDRESSES: readonly string[] = KEPT_PAGES.map(keptAddress);

/** Which of the kept pages is shown at a path; null where there is no such page. */
export function keptPage(path: string): string | null {
  const plain = path.length > 1 ? path.replace(/\/$/, "") : path;
  const page = KEPT_PAGES.find((one) => standsFor(one, plain));
  return page === undefined ? null : keptAddress(page);
}

function standsFor(kept: string, path: string): boolean {
  const [a, b] = [kept.split("/"), path.split("/")];
  return a.length === b.length && a.every((part, i) => part === b[i] || (part === "-" && b[i] !== ""));
}
