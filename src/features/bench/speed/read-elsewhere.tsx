import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import type { CoupledAdvice } from "@/core/guidance/coupled-adjusters";
import { speedsOf, workAt } from "@/core/records/job-speeds";
import { changeJob } from "@/storage/jobs";
import type { JobView } from "@/features/job/use-job-records";

type Read = NonNullable<CoupledAdvice["read"]>;

const WHY_ELSEWHERE: Record<Read["why"], string> = {
  "as found": "Log it there too: what is turned here may move it.",
  effect: "What the last turn did there is not known yet.",
  "turn there": "What is left to set is set there.",
  confirm: "Here all is well; there something was turned after the last reading.",
};

/** A reading to take at another speed first, and why. */
export function ReadElsewhere({ view, read }: { view: JobView; read: Read }) {
  const speed = speedsOf(view.job).find(({ speedCmPerS }) => speedCmPerS === read.speedCmPerS);
  return (
    <>
      <Typography sx={{ color: "text.secondary", mt: 1, lineHeight: 1.35 }}>
        {WHY_ELSEWHERE[read.why]}
      </Typography>
      <Button
        fullWidth
        variant="outlined"
        sx={{ mt: 1 }}
        onClick={() => speed && void changeJob(view.job.id, workAt(view.job, speed))}
      >
        Go to {read.speedCmPerS} cm/s
      </Button>
    </>
  );
}
