import type { Job } from "@/core/records/job";
import type { JobRecords } from "@/core/records/job-records";
import { blanksOf } from "./blanks";
import { database } from "./database";

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
  const read = await Promise.all(
    wanted.map(async (job): Promise<EarlierJob[]> => {
      const [records, by] = [await recordsOf(job), whyShown(job)];
      return records && by ? [{ records, by }] : [];
    }),
  );
  return read.flat();
}

async function recordsOf(job: Job): Promise<JobRecords | null> {
  const of = { jobId: job.id };
  const [machine, readings, adjustments, neededParts, stripDown] = await Promise.all([
    database.machines.get(job.machineId),
    database.readings.where(of).toArray(),
    database.adjustments.where(of).toArray(),
    database.neededParts.where(of).toArray(),
    database.stripDown.where(of).sortBy("place"),
  ]);
  const blanks = await blanksOf(job, readings);
  return machine ? { job, machine, blanks, readings, adjustments, neededParts, stripDown } : null;
}
