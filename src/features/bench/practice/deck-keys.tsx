import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { reverses, type DeckKey } from "@/core/simulator/deck-status";
import type { PracticeSetUp } from "../listening/listening-state";

/** Shapes of the keys in a 12 by 12 box: a bar where the tape stops, one arrow to play, two to wind. */
const KEYS: Array<{ key: DeckKey; word: string; path: string }> = [
  { key: "rewind", word: "Rewind", path: "M11 2 L6.5 6 L11 10 Z M6 2 L1.5 6 L6 10 Z" },
  { key: "reverse", word: "Reverse", path: "M9.5 1.5 L2.5 6 L9.5 10.5 Z" },
  { key: "stop", word: "Stop", path: "M2.5 2.5 H9.5 V9.5 H2.5 Z" },
  { key: "play", word: "Play", path: "M2.5 1.5 L9.5 6 L2.5 10.5 Z" },
  { key: "wind", word: "Wind", path: "M1 2 L5.5 6 L1 10 Z M6 2 L10.5 6 L6 10 Z" },
  { key: "record", word: "Record", path: "M6 1.5 a4.5 4.5 0 1 0 0.01 0 Z" },
  {
    key: "record-reverse",
    word: "Rec. back",
    path: "M4 6 a4 4 0 1 1 8 0 a4 4 0 1 1 -8 0 Z M3.5 2 L0 6 L3.5 10 Z",
  },
];

/** The transport keys of the practice machine; the one that is down is filled. */
export function DeckKeys({ practice, onPress }: { practice: PracticeSetUp; onPress(key: DeckKey): void }) {
  return (
    <Box role="group" aria-label="Transport keys" sx={{ display: "flex", gap: 0.5 }}>
      {KEYS.filter(({ key }) => !reverses(key) || practice.autoReverse).map(({ key, word, path }) => {
        const down = practice.deck.key === key;
        return (
          <Button
            key={key}
            size="small"
            variant={down ? "contained" : "outlined"}
            color={down ? "primary" : "inherit"}
            aria-pressed={down}
            onClick={() => onPress(key)}
            sx={{ flexDirection: "column", minWidth: 58, lineHeight: 1.2, px: 0.5 }}
          >
            <svg width={15} height={15} viewBox="0 0 12 12" aria-hidden>
              <path d={path} fill="currentColor" />
            </svg>
            {word}
          </Button>
        );
      })}
    </Box>
  );
}
