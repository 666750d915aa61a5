import Box from "@mui/material/Box";
import type { ComponentType } from "react";
import type { ChecklistStationId } from "@/core/stations";
import type { JobView } from "../job/use-job-records";
import { PathLog } from "./path-log";

type Extra = ComponentType<{ view: JobView }>;

/** What a checklist has beside its lines; null for nothing. */
export const CHECKLIST_EXTRAS: { readonly [Id in ChecklistStationId]: Extra | null } = {
  intake: Complaint,
  service: null,
  path: PathLog,
  clean: null,
};

function Complaint({ view }: { view: JobView }) {
  return view.job.complaint ? (
    <Box sx={{ mt: 2, borderTop: "1px dashed", borderColor: "divider", pt: 1.5 }}>
      <Box sx={{ color: "text.secondary" }}>The owner says</Box>
      <Box sx={{ fontSize: 21 }}>“{view.job.complaint}”</Box>
    </Box>
  ) : null;
}
