import Box from "@mui/material/Box";
import type { StripEntry } from "@/core/workshop/strip-entry";
import { readStripLine } from "@/core/workshop/strip-line";
import { fixed, THIN_SPACE } from "@/core/text/number-text";

/** What was understood of a line, piece by piece. */
export function LineChips({ entry, size = 15 }: { entry: StripEntry; size?: number }) {
  const { count, thread, lengthMm, heads, where, staysWith, mark, nextTime } = readStripLine(
    entry.kind,
    entry.line,
  );
  const pieces = [
    count > 1 ? `${count} of them` : null,
    thread,
    lengthMm === null ? null : `${fixed(lengthMm, Number.isInteger(lengthMm) ? 0 : 2)}${THIN_SPACE}mm`,
    heads.length > 0 ? heads.join(", ") : null,
    where && `where: ${where}`,
    staysWith && `stays with ${staysWith}`,
    mark && `mark at ${mark}`,
    nextTime && `next time: ${nextTime}`,
  ].filter((one) => one !== null);
  if (pieces.length === 0) return null;
  return (
    <Box
      component="ul"
      aria-label="Understood"
      sx={{ display: "flex", flexWrap: "wrap", gap: 0.75, listStyle: "none", p: 0, m: 0 }}
    >
      {pieces.map((piece) => (
        <Box
          component="li"
          key={piece}
          sx={{
            border: 1,
            borderColor: "divider",
            borderRadius: 4,
            px: 1.25,
            py: 0.25,
            fontSize: size,
            bgcolor: "tape.leader",
          }}
        >
          {piece}
        </Box>
      ))}
    </Box>
  );
}
