import Box from "@mui/material/Box";
import { useLiveQuery } from "dexie-react-hooks";
import { Link } from "@/ui/link";
import { summaryOf, type JobSummary } from "@/core/alignment/job-summary";
import { earlierJobs, type EarlierJob } from "@/storage/earlier-jobs";
import { Card } from "@/ui/card";
import { shortDay } from "@/ui/short-day";

/**
 * Jobs of the same machine or the same owner; undefined while they are read.
 * @param machineId null while no machine is chosen
 * @param contact who is to be called, as far as it was typed
 */
export const useEarlierJobs = (machineId: string | null, contact: string): EarlierJob[] | undefined =>
  useLiveQuery(() => earlierJobs(machineId, contact), [machineId, contact]);

interface EarlierJobsProps {
  found: EarlierJob[] | undefined;
  /** A machine or an owner is known to look for. */
  asked: boolean;
}

/** What was found and done when the same machine, or the same owner, was here before. */
export function EarlierJobs({ found, asked }: EarlierJobsProps) {
  if (found === undefined) return null;
  return (
    <Card title="Here before" grow>
      {found.length === 0 && (
        <Box sx={{ fontSize: 18, lineHeight: 1.4, color: "text.secondary" }}>
          {asked
            ? "Neither this machine nor whoever brings it was here before, as far as this browser knows."
            : "Choose the machine, or say who brings it: what was found and done the last time stands here then."}
        </Box>
      )}
      {found.map(({ records, by }) => (
        <Earlier key={records.job.id} records={records} by={by} />
      ))}
    </Card>
  );
}

function Earlier({ records, by }: EarlierJob) {
  const { job, machine } = records;
  const summary = summaryOf(records);
  return (
    <Box
      component="article"
      aria-label={`Job ${job.number}`}
      sx={{ borderTop: 1, borderColor: "divider", py: 1 }}
    >
      <Box sx={{ display: "flex", gap: 1, alignItems: "baseline", flexWrap: "wrap" }}>
        <Box sx={{ fontSize: 19, fontWeight: 700 }}>
          <Box component={Link} href={`/jobs/${job.id}`} sx={{ color: "primary.main" }}>
            {job.number}
          </Box>{" "}
          {machine.name}
        </Box>
        <Box sx={{ color: "text.secondary" }}>
          {shortDay(job.createdAt)}, {by === "machine" ? "the same model" : "the same owner"}
        </Box>
      </Box>
      <Box sx={{ fontStyle: "italic", lineHeight: 1.35 }}>{job.complaint}</Box>
      {LINES.map(({ key, words, minds }) =>
        summary[key].length > 0 ? (
          <Box
            key={key}
            sx={{ lineHeight: 1.4, mt: 0.25, ...(minds && { color: "warning.main", fontWeight: 600 }) }}
          >
            {words}: {summary[key].slice(0, MOST).join("; ")}
            {summary[key].length > MOST && `; ${summary[key].length - MOST} more`}.
          </Box>
        ) : null,
      )}
    </Box>
  );
}

const MOST = 5;
const LINES: ReadonlyArray<{ key: Exclude<keyof JobSummary, "overall">; words: string; minds?: true }> = [
  { key: "found", words: "Found" },
  { key: "done", words: "Turned and done" },
  { key: "fitted", words: "Fitted" },
  { key: "missing", words: "Never fitted" },
  { key: "nextTime", words: "The next time", minds: true },
];
