import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { Link } from "@/ui/link";
import { memo } from "react";
import type { Station } from "@/core/stations/station";
import type { JobView } from "../job/use-job-records";
import { ThemeSwitch } from "../shell/theme-switch";

interface BenchHeaderProps {
  view: JobView;
  station: Station;
  onKeys(): void;
}

/** Which machine is on the bench, and the way to everything else. */
export const BenchHeader = memo(function BenchHeader({ view, station, onKeys }: BenchHeaderProps) {
  const { job, machine } = view;
  return (
    <Box
      component="header"
      sx={{ display: "flex", alignItems: "center", gap: 1.5, px: 2.5, minHeight: 46, minWidth: 0 }}
    >
      <Typography
        variant="h1"
        sx={{ fontSize: 17.5, whiteSpace: "nowrap", overflow: "hidden", textOverflow: "ellipsis" }}
      >
        {machine.name}
      </Typography>
      <Box
        sx={{
          color: "text.secondary",
          flex: 1,
          overflow: "hidden",
          textOverflow: "ellipsis",
          whiteSpace: "nowrap",
        }}
      >
        job {job.number} · {job.speedCmPerS} cm/s · {station.name}
      </Box>
      <Button color="inherit" component={Link} href="/">
        Floor
      </Button>
      <Button color="inherit" component={Link} href={`/jobs/${job.id}`}>
        Job
      </Button>
      <Button color="inherit" component={Link} href={`/jobs/${job.id}/sheet`}>
        Sheet
      </Button>
      <ThemeSwitch />
      <Button color="inherit" onClick={onKeys}>
        Keys
      </Button>
    </Box>
  );
});
