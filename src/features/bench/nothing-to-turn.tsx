import Typography from "@mui/material/Typography";
import Link from "next/link";
import type { StationId } from "@/core/alignment/records";
import { Card } from "@/ui/card";

const ADVICE: Partial<Record<StationId, string>> = {
  azimuth: "This machine has no azimuth screw written down for this direction and head.",
  level: "This machine has no playback level trimmer written down.",
  response: "This machine has no playback equaliser written down: clean, then azimuth, then parts.",
};

/** A machine without an adjuster at a playback station. */
export function NothingToTurn({ station }: { station: StationId }) {
  return (
    <Card title="Turn" tone="oxide">
      <Typography>
        {ADVICE[station]} <Link href="/machines">Write it down</Link>
      </Typography>
    </Card>
  );
}
