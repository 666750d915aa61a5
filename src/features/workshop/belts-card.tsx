import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { Link } from "@/ui/link";
import { inForce } from "@/core/records/job-records";
import { fixed, THIN_SPACE } from "@/core/text/number-text";
import { measuredChange, type BeltChange } from "@/core/workshop/belt-change";
import { changeBelts } from "@/storage/jobs";
import { Card } from "@/ui/card";
import { READING_FONT } from "@/ui/theme";
import type { JobView } from "../job/use-job-records";

/** The belts that were changed: old and new, what that was to do to the speed, and what it did. */
export function BeltsCard({ view }: { view: JobView }) {
  const belts = view.job.belts ?? [];
  if (belts.length === 0)
    return (
      <Card title="Belts">
        <Box sx={{ lineHeight: 1.4 }}>
          <Link href="/rules">The belt bench</Link> says which belt goes on; from there it is written in here.
        </Box>
      </Card>
    );
  return (
    <Card title="Belts that were changed">
      {belts.map((belt) => (
        <Belt key={belt.id} belt={belt} view={view} />
      ))}
    </Card>
  );
}

const percent = (value: number) => `${fixed(value, 2, true)}${THIN_SPACE}%`;

function Belt({ belt, view }: { belt: BeltChange; view: JobView }) {
  const { job, readings, adjustments } = view;
  const speeds = inForce(readings)
    .filter(
      ({ quantity, context }) =>
        quantity === "speedError" && context.speedCmPerS === job.speedCmPerS && !context.pitch,
    )
    .toSorted((a, b) => a.at.localeCompare(b.at));
  const turned = inForce(adjustments)
    .filter(({ station, turns }) => station === "speed" && turns !== 0)
    .map(({ at }) => at);
  const measured = measuredChange(belt, speeds, turned);
  return (
    <Box sx={{ borderTop: 1, borderColor: "divider", py: 0.75 }}>
      <Box sx={{ fontWeight: 700, overflowWrap: "anywhere" }}>{belt.name}</Box>
      <Box sx={{ fontFamily: READING_FONT, fontSize: 15, lineHeight: 1.5 }}>
        {belt.oldInsideMm === null ? "?" : fixed(belt.oldInsideMm, 1)} × {belt.oldThicknessMm} →{" "}
        {fixed(belt.newInsideMm, 1)} × {belt.newThicknessMm} mm
        <br />
        predicted {percent(belt.predictedPercent)}
        <br />
        {measured
          ? `measured ${percent(measured.percent)} ± ${fixed(measured.uncertaintyPercent, 2)}`
          : "not measured yet"}
      </Box>
      {!measured && (
        <Box sx={{ color: "text.secondary", lineHeight: 1.35 }}>
          Log the speed before the belt is changed and after it, with nothing turned between.
        </Box>
      )}
      <Button
        size="small"
        color="inherit"
        onClick={() => void changeBelts(job.id, (all) => all.filter(({ id }) => id !== belt.id))}
      >
        It was not changed
      </Button>
    </Box>
  );
}
