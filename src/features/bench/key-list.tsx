import { memo } from "react";
import Box from "@mui/material/Box";
import Dialog from "@mui/material/Dialog";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import { KeyCap } from "@/ui/key-cap";

const KEYS = [
  ["Space", "log the reading"],
  ["F", "log as found"],
  ["L", "log as left"],
  ["T", "I turned it, or did it"],
  ["O", "one pass of the whole tape: every station takes its figures by itself"],
  ["[ ]", "station before, station after (also Page Up, Page Down)"],
  ["G", "guide tone in the headphones, on or off"],
  ["M", "what is heard is the source, the tape, or found out by itself"],
  ["B", "recording on the next of the job's blank tapes"],
  ["P", "practice machine"],
  [",", "source"],
  ["?", "this list"],
];

/** Where a machine is taken apart. */
const STRIP_DOWN_KEYS = [
  ["1 … 0", "log what comes off: assembly, screw, washer, spring, clip, ball, wire, belt, slot, other"],
  ["U", "all of this assembly is off"],
  ["C", "a picture of the chosen line"],
  ["Z", "undo the last line"],
  ["R", "take apart, or put together"],
  ["Space", "it is fitted (putting together)"],
  ["X", "it is missing (putting together)"],
];

export const KeyList = memo(function KeyList({ open, onClose }: { open: boolean; onClose(): void }) {
  return (
    <Dialog open={open} onClose={onClose}>
      <DialogTitle>Keys</DialogTitle>
      <DialogContent>
        <Keys of={KEYS} />
        <Box sx={{ fontWeight: 700, mt: 1.5 }}>While a machine is taken apart</Box>
        <Keys of={STRIP_DOWN_KEYS} />
      </DialogContent>
    </Dialog>
  );
});

const Keys = ({ of }: { of: string[][] }) =>
  of.map(([key, does]) => (
    <Box key={key} sx={{ display: "flex", gap: 2, py: 0.5 }}>
      <Box sx={{ width: 70, flexShrink: 0 }}>
        <KeyCap>{key}</KeyCap>
      </Box>
      {does}
    </Box>
  ));
