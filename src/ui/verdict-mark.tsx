import Box from "@mui/material/Box";
import type { Verdict } from "@/core/judging/verdict";
import { GLYPH_PATHS, type Glyph } from "./glyph-paths";

const MARKS: Record<Verdict, { glyph: Glyph; color: string }> = {
  pass: { glyph: "check", color: "success.main" },
  close: { glyph: "wave", color: "warning.main" },
  fail: { glyph: "cross", color: "error.main" },
  "cannot be told": { glyph: "question", color: "text.secondary" },
};

/** A verdict as glyph, word and colour together. */
export function VerdictMark({ verdict, detail }: { verdict: Verdict | null; detail?: string }) {
  if (verdict === null) return null;
  const { glyph, color } = MARKS[verdict];
  return (
    <Box
      component="span"
      sx={{
        color,
        fontWeight: 650,
        whiteSpace: "nowrap",
        display: "inline-flex",
        alignItems: "center",
        gap: 0.5,
      }}
    >
      <svg width="0.85em" height="0.85em" viewBox="0 0 12 12" aria-hidden>
        <path d={GLYPH_PATHS[glyph]} fill="none" stroke="currentColor" strokeWidth={2.2} />
      </svg>
      {detail ?? verdict}
    </Box>
  );
}
