import Box from "@mui/material/Box";
import type { ReactNode } from "react";

/** One row of a list of things being typed. */
export function FormRow({ label, children }: { label: string; children: ReactNode }) {
  return (
    <Box
      component="li"
      aria-label={label}
      sx={{
        display: "flex",
        gap: 1,
        alignItems: "center",
        flexWrap: "wrap",
        py: 1,
        borderTop: 1,
        borderColor: "divider",
      }}
    >
      {children}
    </Box>
  );
}
