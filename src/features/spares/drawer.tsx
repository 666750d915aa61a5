import Box from "@mui/material/Box";
import type { Spare } from "@/core/workshop/spare";
import { READING_FONT } from "@/ui/theme";

interface DrawerProps {
  spare: Spare;
  isOpen: boolean;
  onOpen(): void;
  onCount(by: number): void;
}

const buttonSx = {
  width: 44,
  minHeight: 44,
  font: "inherit",
  fontSize: 22,
  color: "inherit",
  bgcolor: "transparent",
  border: 0,
  cursor: "pointer",
} as const;

/** The front of a drawer: its label, how many lie in it, one in, one out. */
export function Drawer({ spare: { name, count, place }, isOpen, onOpen, onCount }: DrawerProps) {
  return (
    <Box
      component="article"
      aria-label={name}
      sx={{
        border: 1,
        borderColor: isOpen ? "primary.main" : "divider",
        outline: isOpen ? 2 : 0,
        outlineColor: "primary.main",
        borderRadius: 1,
        bgcolor: "background.paper",
        borderBottomWidth: 5,
        display: "flex",
        flexDirection: "column",
      }}
    >
      <Box
        component="button"
        type="button"
        aria-pressed={isOpen}
        onClick={onOpen}
        sx={{
          flex: 1,
          font: "inherit",
          color: "inherit",
          textAlign: "left",
          bgcolor: "transparent",
          border: 0,
          cursor: "pointer",
          px: 1.25,
          pt: 1,
        }}
      >
        <Box sx={{ fontWeight: 700, fontSize: 17, lineHeight: 1.2, overflowWrap: "anywhere" }}>{name}</Box>
        <Box sx={{ color: "text.secondary", fontSize: 14 }}>{place || "no place written down"}</Box>
      </Box>
      <Box sx={{ display: "flex", alignItems: "center", justifyContent: "space-between" }}>
        <Box
          component="button"
          type="button"
          aria-label={`One ${name} out`}
          disabled={count === 0}
          onClick={() => onCount(-1)}
          sx={buttonSx}
        >
          −
        </Box>
        <Box
          sx={{
            fontFamily: READING_FONT,
            fontSize: 26,
            fontWeight: 700,
            color: count === 0 ? "error.main" : undefined,
          }}
        >
          {count === 0 ? "none" : count}
        </Box>
        <Box
          component="button"
          type="button"
          aria-label={`One ${name} in`}
          onClick={() => onCount(1)}
          sx={buttonSx}
        >
          +
        </Box>
      </Box>
    </Box>
  );
}
