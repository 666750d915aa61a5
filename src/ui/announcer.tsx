import Box from "@mui/material/Box";

/** Says a verdict aloud once it has settled; give nothing while it moves. */
export function Announcer({ words }: { words: string }) {
  return (
    <Box
      aria-live="polite"
      sx={{ position: "absolute", width: 1, height: 1, overflow: "hidden", clipPath: "inset(50%)" }}
    >
      {words}
    </Box>
  );
}
