import Box from "@mui/material/Box";
import { READING_FONT } from "./theme";

/** The key that does the same as the button beside it. */
export function KeyCap({ children }: { children: string }) {
  return (
    <Box
      component="kbd"
      aria-hidden
      sx={{
        fontFamily: READING_FONT,
        fontSize: 12,
        border: 1,
        borderBottomWidth: 2,
        borderColor: "currentColor",
        opacity: 0.75,
        borderRadius: 1,
        px: 0.75,
        ml: 1,
      }}
    >
      {children}
    </Box>
  );
}
