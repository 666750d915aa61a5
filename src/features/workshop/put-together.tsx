"use client";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { nameOf, openLines } from "@/core/workshop/strip-down";
import type { StripEntry, Trouble } from "@/core/workshop/strip-entry";
import { KeyCap } from "@/ui/key-cap";
import { EntryPictures } from "./entry-pictures";
import { KindGlyph } from "./kind-glyph";
import { LineChips } from "./line-chips";
import { EntryLine, type EntryPanelProps } from "./open-entry";
import { PictureButton } from "./picture-button";
import { standing } from "./trays";

interface PutTogetherProps extends EntryPanelProps {
  onFit(entry: StripEntry): void;
  onTrouble(entry: StripEntry, what: Trouble): void;
  /** What was missing was found, or is whole after all. */
  onFound(entry: StripEntry): void;
}

/** The one thing that goes back next, large, with its pictures. */
export function PutTogether({ entry, log, onFit, onTrouble, onFound, ...panel }: PutTogetherProps) {
  const open = openLines(log);
  if (open.length === 0 && entry?.fittedAt !== null)
    return (
      <Box role="status" sx={{ fontSize: 26, fontWeight: 700, color: "success.main", py: 3 }}>
        Every line is back in its place.
      </Box>
    );
  const left = open.filter(({ trouble }) => trouble !== null);
  if (!entry || (entry.trouble !== null && left.length === open.length && entry.kind === "assembly"))
    return <Box sx={{ fontSize: 21, fontWeight: 700, py: 2 }}>What is left waits for parts.</Box>;
  const isFitted = entry.fittedAt !== null;
  return (
    <Box sx={{ border: 2, borderColor: "primary.main", borderRadius: 1, p: 1.5 }}>
      <Box sx={{ color: "text.secondary", fontSize: 15 }}>
        {isFitted ? "In its place" : entry.trouble ? "Left open" : "Goes on next"} · line {entry.place} ·{" "}
        {standing(entry)}
      </Box>
      <Box sx={{ display: "flex", gap: 2, alignItems: "center", my: 0.5 }}>
        <KindGlyph kind={entry.kind} size={72} />
        <Box sx={{ minWidth: 0 }}>
          <Box sx={{ fontSize: 34, fontWeight: 750, lineHeight: 1.1, overflowWrap: "anywhere" }}>
            {nameOf(entry)}
          </Box>
          <Box sx={{ fontSize: 18, color: "text.secondary" }}>{entry.kind}</Box>
        </Box>
      </Box>
      <LineChips entry={entry} size={18} />
      <Box sx={{ my: 1 }}>
        <EntryPictures entry={entry} height={180} />
      </Box>
      <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap", mt: 1 }}>
        <Button
          variant="contained"
          onClick={() => onFit(entry)}
          sx={{ fontSize: 20, minHeight: 56, flex: "1 1 220px" }}
        >
          {isFitted ? "Not in its place after all" : entry.kind === "assembly" ? "Closed" : "Fitted"}
          <KeyCap>Space</KeyCap>
        </Button>
        {entry.trouble === null && !isFitted && (
          <>
            <Button color="error" variant="outlined" onClick={() => onTrouble(entry, "missing")}>
              Missing<KeyCap>X</KeyCap>
            </Button>
            <Button color="error" variant="outlined" onClick={() => onTrouble(entry, "broken")}>
              Broken
            </Button>
          </>
        )}
        {entry.trouble !== null && !isFitted && (
          <Button variant="outlined" color="inherit" onClick={() => onFound(entry)}>
            Not {entry.trouble.what} after all
          </Button>
        )}
        <PictureButton picker={panel.picker} onFiles={panel.onPictures} />
      </Box>
      {panel.reducing && <Box sx={{ color: "text.secondary", mt: 1 }}>The picture is being taken in…</Box>}
      <EntryLine key={entry.id} entry={entry} isFresh={false} />
    </Box>
  );
}
