import Box from "@mui/material/Box";
import { READING_FONT } from "@/ui/theme";

/** What a slide rule answers: a value in large figures, and what it is. */
export function AnswerLine({ value, says }: { value: string; says: string }) {
  return (
    <Box sx={{ display: "flex", alignItems: "baseline", columnGap: 1.5, flexWrap: "wrap", mt: 0.75 }}>
      <Box sx={{ fontFamily: READING_FONT, fontSize: 26, fontWeight: 700 }}>{value}</Box>
      <Box sx={{ color: "text.secondary" }}>{says}</Box>
    </Box>
  );
}
