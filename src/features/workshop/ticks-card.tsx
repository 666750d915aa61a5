import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { Card } from "@/ui/card";
import { KeyCap } from "@/ui/key-cap";
import type { ChecklistProps } from "../bench/checklist";
import { ChecklistLines } from "../bench/checklist-lines";

/** The lines of a station beside its work, and the way on; what else keeps it from being done is said. */
export function TicksCard({
  view,
  station,
  onNext,
  lacks = null,
}: ChecklistProps & { lacks?: string | null }) {
  const ticked = view.job.done[station.id] ?? [];
  const isDone = ticked.length === station.checks.length && lacks === null;
  return (
    <Card title={`${station.name}: ${ticked.length} of ${station.checks.length} ticked`}>
      <ChecklistLines view={view} station={station} size="small" />
      {lacks && <Box sx={{ color: "warning.main", fontWeight: 600, mt: 0.5 }}>{lacks}</Box>}
      <Button variant={isDone ? "contained" : "outlined"} fullWidth onClick={onNext} sx={{ mt: 1 }}>
        Next station<KeyCap>]</KeyCap>
      </Button>
    </Card>
  );
}
