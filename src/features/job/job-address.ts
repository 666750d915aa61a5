import { usePathname } from "next/navigation";

/** What an address under /jobs says. */
interface JobAddress {
  jobId: string;
  /** Of the bench; null on the other pages of a job. */
  stationId: string | null;
}

/** @param path such as /jobs/ID, /jobs/ID/sheet or /jobs/ID/bench/STATION */
export function jobAddress(path: string): JobAddress {
  const [, , jobId = "", page, stationId] = path.split("/").map(decoded);
  return { jobId, stationId: page === "bench" && stationId ? stationId : null };
}

/** An address that was typed by hand may be no address at all. */
function decoded(part: string): string {
  try {
    return decodeURIComponent(part);
  } catch {
    return part;
  }
}

/**
 * Which job and station the address names. It is read in the browser, not given by the server: without one, a single
 * page that is kept stands for those of all jobs.
 */
export const useJobAddress = (): JobAddress => jobAddress(usePathname());
