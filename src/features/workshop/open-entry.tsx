"use client";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { useCallback, type RefObject } from "react";
import { nameOf } from "@/core/workshop/strip-down";
import type { StripEntry, StripKind } from "@/core/workshop/strip-entry";
import { setStripLine } from "@/storage/strip-down";
import { KeyCap } from "@/ui/key-cap";
import { useKeptText } from "../job/use-kept-text";
import { EntryPictures } from "./entry-pictures";
import { KindGlyph } from "./kind-glyph";
import { LineChips } from "./line-chips";
import { PictureButton } from "./picture-button";

/** Before the id of an entry: what is typed in its line. */
export const LINE_KEY = "line-";

/** What is worth writing down of each kind. */
const EXAMPLES: Record<StripKind, string> = {
  assembly: "what it is: motor and drive",
  screw: "M2.6x8 cross x2, motor bracket",
  washer: "0.25 mm x2, under the flywheel, stays with the flywheel",
  spring: "idler spring, hooked in the second hole",
  clip: "3 mm, flywheel shaft",
  ball: "2 mm, thrust bearing",
  wire: "red to battery plus, next time it is short",
  belt: "main belt, motor to flywheel",
  "slotted position": "motor bracket, mark at the scribed line",
  "other part": "what it is, where it sits",
};

export interface EntryPanelProps {
  entry: StripEntry | null;
  log: readonly StripEntry[];
  /** The one that was logged last, whose line is written at once. */
  freshId: string | null;
  picker: RefObject<HTMLInputElement | null>;
  onPictures(files: File[]): void;
  reducing: boolean;
}

/** The line that is being written. */
export function OpenEntry({
  entry,
  canUndo,
  onUndo,
  ...panel
}: EntryPanelProps & { canUndo: boolean; onUndo(): void }) {
  if (!entry)
    return (
      <Box sx={{ mt: 2, fontSize: 17, color: "text.secondary", lineHeight: 1.45 }}>
        Press one key for each thing as it comes off, then write where it sat: M2.6x8 cross x2, motor bracket.
        Begin with 1 for the assembly that is opened. What is logged is there at once, also if the page
        closes; put together, it is the same list backwards.
      </Box>
    );
  return (
    <Box sx={{ mt: 1.25, border: 2, borderColor: "primary.main", borderRadius: 1, p: 1.25 }}>
      <Box sx={{ display: "flex", gap: 1.25, alignItems: "center" }}>
        <KindGlyph kind={entry.kind} size={40} />
        <Box sx={{ minWidth: 0, flex: 1 }}>
          <Box sx={{ fontSize: 24, fontWeight: 700, lineHeight: 1.15, overflowWrap: "anywhere" }}>
            {entry.place} · {nameOf(entry)}
          </Box>
        </Box>
        <PictureButton picker={panel.picker} onFiles={panel.onPictures} />
        {canUndo && (
          <Button color="inherit" onClick={onUndo}>
            Undo<KeyCap>Z</KeyCap>
          </Button>
        )}
      </Box>
      <EntryLine key={entry.id} entry={entry} isFresh={entry.id === panel.freshId} />
      <LineChips entry={entry} />
      {panel.reducing && <Box sx={{ color: "text.secondary", mt: 1 }}>The picture is being taken in…</Box>}
      <Box sx={{ mt: entry.pictures.length > 0 ? 1 : 0 }}>
        <EntryPictures entry={entry} height={84} />
      </Box>
    </Box>
  );
}

/** Its one line, stored as it is typed. Enter gives the keys back to the bench. */
export function EntryLine({ entry, isFresh }: { entry: StripEntry; isFresh: boolean }) {
  const { id, kind } = entry;
  const text = useKeptText(
    `${LINE_KEY}${id}`,
    entry.line,
    useCallback((typed: string) => setStripLine(id, typed.slice(0, LONGEST)), [id]),
  );
  return (
    <TextField
      fullWidth
      margin="dense"
      label={`Line ${entry.place}: what and where`}
      placeholder={EXAMPLES[kind]}
      autoFocus={isFresh}
      {...text}
      onKeyDown={(event) => {
        if (event.key !== "Enter" && event.key !== "Escape") return;
        event.preventDefault();
        (event.target as HTMLElement).blur();
      }}
      slotProps={{
        htmlInput: { maxLength: LONGEST, autoComplete: "off" },
        inputLabel: { shrink: true },
        input: { sx: { fontSize: 19 } },
      }}
    />
  );
}
const LONGEST = 500;
