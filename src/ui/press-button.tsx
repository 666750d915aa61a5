import Box from "@mui/material/Box";
import type { ReactNode } from "react";

interface PressButtonProps {
  /** It is the one of its group that is in force. */
  chosen: boolean;
  disabled?: boolean;
  onClick(): void;
  children: ReactNode;
}

/** One of a few that stand side by side; the one in force is pressed. */
export function PressButton({ chosen, disabled = false, onClick, children }: PressButtonProps) {
  return (
    <Box
      component="button"
      type="button"
      aria-pressed={chosen}
      disabled={disabled}
      onClick={onClick}
      sx={{
        minHeight: 44,
        px: 1.25,
        font: "inherit",
        color: "inherit",
        cursor: "pointer",
        bgcolor: chosen ? "action.selected" : "transparent",
        border: 1,
        borderColor: "divider",
        borderRadius: 1,
        fontWeight: chosen ? 700 : 400,
      }}
    >
      {children}
    </Box>
  );
}
