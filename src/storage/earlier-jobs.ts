import type { Job } from "@/core/records/job";
import type { JobRecords } from "@/core/records/job-records";
import { database } from "./database";
import { recordsOf, withMachines } from "./job-records";

const MOST = 6;
/** A name of fewer letters is of too many people. */
const SHORTEST_CONTACT = 3;

const plain = (text: string) => text.trim().toLowerCase();

export interface EarlierJob {
  records: JobRecords;
  by: "machine" | "owner";
}

/** Jobs about a machine, or of somebody, the latest first; only those are read whole. */
export async function earlierJobs(machineId: string | null, contact: string): Promise<EarlierJob[]> {
  const who = plain(contact);
  const whyShown = ({ contact: of = "", machineId: about }: Job): EarlierJob["by"] | null =>
    who.length >= SHORTEST_CONTACT && plain(of).includes(who)
      ? "owner"
      : about === machineId
        ? "machine"
        : null;
  const jobs = await database.jobs.orderBy("updatedAt").reverse().toArray();
  const wanted = jobs.filter((job) => whyShown(job) !== null).slice(0, MOST);
  const all = await recordsOf(await withMachines(wanted));
  return all.flatMap((records) => {
    const by = whyShown(records.job);
    return by ? [{ records, by }] : [];
  });
}
