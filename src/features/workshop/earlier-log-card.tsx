"use client";
import Box from "@mui/material/Box";
import { useLiveQuery } from "dexie-react-hooks";
import { minds } from "@/core/workshop/strip-down";
import { earlierLog } from "@/storage/strip-down";
import { Card } from "@/ui/card";
import { KindGlyph } from "./kind-glyph";

/** How the same machine came apart in an earlier job, and what was to be minded the next time. */
export function EarlierLogCard({ jobId, machineId }: { jobId: string; machineId: string }) {
  const earlier = useLiveQuery(() => earlierLog(jobId, machineId), [jobId, machineId]);
  if (!earlier) return null;
  return (
    <Card title={`How it came apart in job ${earlier.number}`}>
      {minds(earlier.log).map((line, i) => (
        <Box key={`${i} ${line}`} sx={{ color: "warning.main", fontWeight: 650, mb: 0.75 }}>
          {line}
        </Box>
      ))}
      <Box
        component="ol"
        sx={{ listStyle: "none", p: 0, m: 0, maxHeight: 220, overflowY: "auto" }}
        tabIndex={0}
      >
        {earlier.log.map((entry) => (
          <Box
            component="li"
            key={entry.id}
            sx={{ display: "flex", gap: 0.75, alignItems: "center", py: 0.25 }}
          >
            <KindGlyph kind={entry.kind} size={20} />
            <Box sx={{ minWidth: 0, overflowWrap: "anywhere" }}>
              {entry.place} · {entry.line || entry.kind}
            </Box>
          </Box>
        ))}
      </Box>
    </Card>
  );
}
