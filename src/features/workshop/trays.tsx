import Box from "@mui/material/Box";
import { isClosed, nameOf } from "@/core/workshop/strip-down";
import type { StripEntry } from "@/core/workshop/strip-entry";
import { readStripLine } from "@/core/workshop/strip-line";
import { KindGlyph } from "./kind-glyph";

interface TraysProps {
  log: readonly StripEntry[];
  chosenId: string | null;
  onChoose(id: string): void;
  /** The assembly whose inside is drawn; null for the machine. */
  inside?: string | null;
}

/** What lies on the table: everything that was taken off in its order, each assembly a tray with its own in it. */
export function Trays({ log, chosenId, onChoose, inside = null }: TraysProps) {
  const own = log.filter((entry) => entry.inside === inside);
  return (
    <Box component="ol" sx={{ display: "flex", flexWrap: "wrap", gap: 0.75, listStyle: "none", p: 0, m: 0 }}>
      {own.map((entry) => (
        <Box
          component="li"
          key={entry.id}
          sx={entry.kind === "assembly" ? { flexBasis: "100%", minWidth: 0 } : undefined}
        >
          {entry.kind === "assembly" ? (
            <Box
              sx={{
                border: 2,
                borderColor: isClosed(log, entry) ? "success.main" : "divider",
                borderTop: 0,
                borderRadius: "4px 4px 12px 12px",
                bgcolor: "tape.leader",
                p: 0.75,
              }}
            >
              <Token entry={entry} wide isChosen={entry.id === chosenId} onChoose={onChoose} />
              <Box sx={{ mt: 0.75 }}>
                <Trays log={log} chosenId={chosenId} onChoose={onChoose} inside={entry.id} />
              </Box>
            </Box>
          ) : (
            <Token entry={entry} isChosen={entry.id === chosenId} onChoose={onChoose} />
          )}
        </Box>
      ))}
    </Box>
  );
}

/** How an entry stands, in a word. */
export function standing({ fittedAt, trouble, apartAt, kind }: StripEntry): string {
  if (fittedAt !== null) return "fitted";
  if (trouble !== null) return trouble.what;
  if (kind === "assembly") return apartAt === null ? "coming apart" : "apart";
  return "off";
}

interface TokenProps {
  entry: StripEntry;
  wide?: boolean;
  isChosen: boolean;
  onChoose(id: string): void;
}

function Token({ entry, wide = false, isChosen, onChoose }: TokenProps) {
  const { id, place, kind, fittedAt, trouble, pictures } = entry;
  const { count } = readStripLine(kind, entry.line);
  const isBad = trouble !== null && fittedAt === null;
  const word = standing(entry);
  return (
    <Box
      component="button"
      type="button"
      aria-pressed={isChosen}
      onClick={() => onChoose(id)}
      sx={{
        display: "flex",
        alignItems: "center",
        gap: 0.75,
        width: wide ? "100%" : 148,
        minHeight: 48,
        p: 0.5,
        font: "inherit",
        fontSize: 13.5,
        lineHeight: 1.15,
        textAlign: "left",
        cursor: "pointer",
        color: fittedAt !== null ? "text.secondary" : isBad ? "error.main" : "text.primary",
        bgcolor: wide ? "transparent" : "background.paper",
        border: 1,
        borderStyle: isBad ? "dashed" : "solid",
        borderColor: isChosen ? "primary.main" : isBad ? "error.main" : wide ? "transparent" : "divider",
        outline: isChosen ? "2px solid" : "none",
        outlineColor: "var(--unzel-palette-primary-main)",
        borderRadius: 1,
        fontWeight: wide ? 700 : 400,
      }}
    >
      <KindGlyph kind={kind} size={wide ? 26 : 24} />
      <Box sx={{ minWidth: 0, flex: 1 }}>
        <Box
          sx={{
            overflow: "hidden",
            textOverflow: "ellipsis",
            whiteSpace: "nowrap",
            textDecoration: fittedAt !== null ? "line-through" : undefined,
          }}
        >
          {nameOf(entry)}
          {count > 1 ? ` ×${count}` : ""}
        </Box>
        <Box sx={{ color: isBad ? "error.main" : "text.secondary", fontWeight: isBad ? 700 : 400 }}>
          {place} · {word}
          {pictures.length > 0
            ? ` · ${pictures.length === 1 ? "picture" : `${pictures.length} pictures`}`
            : ""}
        </Box>
      </Box>
    </Box>
  );
}
