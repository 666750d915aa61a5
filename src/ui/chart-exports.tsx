import Box from "@mui/material/Box";
import Button from "@mui/material/Button";

/** Takes a chart out of the program: as it is drawn, or its numbers. */
export function ChartExports({ onPng, onCsv }: { onPng(): void; onCsv(): void }) {
  return (
    <Box sx={{ textAlign: "right" }}>
      <Button size="small" color="inherit" onClick={onPng}>
        PNG
      </Button>
      <Button size="small" color="inherit" onClick={onCsv}>
        CSV
      </Button>
    </Box>
  );
}
