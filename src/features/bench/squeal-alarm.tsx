import Alert from "@mui/material/Alert";
import AlertTitle from "@mui/material/AlertTitle";
import Button from "@mui/material/Button";
import { useEffect, useState } from "react";
import type { Squeal } from "@/core/measure/squeal-watch";
import { THIN_SPACE } from "@/core/text/number-text";
import { tapeSquealed } from "@/storage/jobs";

interface SquealAlarmProps {
  jobId: string;
  /** What plays now; the alarm keeps what played when it began. */
  tapeName: string;
  /** What is heard now. */
  squeal: Squeal | null;
}

/** A tape that squeals or drags: stays to be read after the tape was stopped, until somebody says what it was. */
export function SquealAlarm({ jobId, tapeName, squeal }: SquealAlarmProps) {
  const [told, tell] = useState<(Squeal & { tapeName: string }) | null>(null);
  const [answered, answer] = useState<number | null>(null);
  const since = squeal?.sinceSeconds ?? null;
  useEffect(() => {
    if (squeal !== null && since !== answered) queueMicrotask(() => tell({ ...squeal, tapeName }));
    // eslint-disable-next-line react-hooks/exhaustive-deps -- one alarm for each time it begins
  }, [since, answered]);
  if (told === null) return null;
  const close = () => {
    answer(told.sinceSeconds);
    tell(null);
  };
  return (
    <Alert
      severity="error"
      variant="filled"
      sx={{ mx: 2.5, fontSize: 17 }}
      action={
        <>
          <Button color="inherit" onClick={() => void tapeSquealed(jobId, told.tapeName).then(close)}>
            It was the tape: cleaning is due
          </Button>
          <Button color="inherit" onClick={close}>
            It was not
          </Button>
        </>
      }
    >
      <AlertTitle sx={{ fontSize: 26, fontWeight: 750, lineHeight: 1.1 }}>Stop the tape</AlertTitle>
      {told.kind === "drag"
        ? "It runs slower and rougher: it drags at a guide or head, and leaves oxide there."
        : told.frequencyHz === null
          ? "Something roughens the tone as a squeal does."
          : `It whistles at ${Math.round(told.frequencyHz / 10) * 10}${THIN_SPACE}Hz, as a tape that sticks does.`}{" "}
      Do not let it run on; look at heads and guides before anything else plays.
    </Alert>
  );
}
