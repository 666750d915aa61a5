import Paper from "@mui/material/Paper";
import type { ReactNode } from "react";

interface DeskPaperProps {
  /** The name of the region. */
  label: string;
  /** Its pieces are spread over its height. */
  spread?: boolean;
  gap?: number;
  children: ReactNode;
}

/** The sheet in the middle of the bench, on which a station's picture or a desk's work lies. */
export const DeskPaper = ({ label, spread = false, gap = 1.25, children }: DeskPaperProps) => (
  <Paper
    component="section"
    aria-label={label}
    tabIndex={0}
    elevation={0}
    sx={{
      position: "relative",
      border: 1,
      borderColor: "divider",
      px: 2,
      py: 1.25,
      minHeight: 0,
      display: "flex",
      flexDirection: "column",
      justifyContent: spread ? "space-between" : undefined,
      gap,
      "& > *": { flexShrink: 0 },
    }}
  >
    {children}
  </Paper>
);
