import Box from "@mui/material/Box";
import type { ReactElement } from "react";

/** What a pattern of readings usually means, the likeliest first; nothing where there is nothing to say. */
export function UsualCauses({ children }: { children: ReactElement[] }) {
  if (children.length === 0) return null;
  return (
    <Box component="ol" aria-label="What it usually means" sx={{ m: 0, pl: 2.5, lineHeight: 1.35 }}>
      {children}
    </Box>
  );
}
