import Box from "@mui/material/Box";
import type { ReactNode } from "react";

interface DeskColumnsProps {
  middle: ReactNode;
  /** What the right-hand column is called. */
  asideName: string;
  /** Both sides are as wide; the right one is narrow otherwise. */
  equal?: boolean;
  /** The cards of the right-hand column. */
  children: ReactNode;
}

/** A desk of the workshop: the work in the middle, what belongs to it on the right. */
export const DeskColumns = ({ middle, asideName, equal = false, children }: DeskColumnsProps) => (
  <Box
    sx={{
      display: "grid",
      gridTemplateColumns: { xs: "1fr", md: `minmax(0, 1fr) ${equal ? "minmax(0, 1fr)" : "290px"}` },
      gridTemplateRows: { md: "minmax(0, 1fr)" },
      gap: 1.5,
      minHeight: 0,
      overflowY: { md: "visible !important" },
      "& > *": { overflowY: { md: "auto" } },
    }}
  >
    {middle}
    <Box
      role="region"
      aria-label={asideName}
      tabIndex={0}
      sx={{ display: "flex", flexDirection: "column", gap: 1.5, minWidth: 0 }}
    >
      {children}
    </Box>
  </Box>
);
