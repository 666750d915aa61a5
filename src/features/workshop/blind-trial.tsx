import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useState } from "react";
import { chanceOf } from "@/core/workshop/blind-score";
import type { ClipKind } from "@/storage/clips";
import type { Recording } from "@/storage/database";
import type { useHeardPair } from "./use-heard-pair";

interface BlindTrialProps {
  pair: readonly [Recording, Recording];
  names: readonly [ClipKind, ClipKind];
  ear: ReturnType<typeof useHeardPair>;
}

const coin = (): 0 | 1 => (crypto.getRandomValues(new Uint8Array(1))[0] & 1 ? 1 : 0);

/** One of the two is played, nobody says which: told apart by ear, and how far chance would do as well. */
export function BlindTrial({ pair, names, ear }: BlindTrialProps) {
  const [hidden, hide] = useState<0 | 1 | null>(null);
  const [score, setScore] = useState({ right: 0, of: 0 });
  const [last, setLast] = useState<string | null>(null);
  const draw = () => {
    const next = coin();
    hide(next);
    setLast(null);
    if (ear.heard === null) void ear.play(pair, next);
    else ear.hear(next);
  };
  const guess = (which: 0 | 1) => {
    if (hidden === null) return;
    const right = which === hidden;
    setScore(({ right: before, of }) => ({ right: before + Number(right), of: of + 1 }));
    setLast(right ? `Right: it was ${names[hidden]}.` : `Wrong: it was ${names[hidden]}.`);
    hide(null);
  };
  const { right, of } = score;
  return (
    <Box sx={{ display: "flex", flexDirection: "column", gap: 1.5 }}>
      <Box role="status" sx={{ fontSize: 34, fontWeight: 750, lineHeight: 1.15 }}>
        {hidden === null ? (last ?? "One of the two will play. Which is it?") : "Which is it?"}
      </Box>
      <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap" }}>
        {hidden === null ? (
          <Button variant="contained" size="large" onClick={draw}>
            {of === 0 ? "Play one" : "The next one"}
          </Button>
        ) : (
          names.map((name, i) => (
            <Button key={name} variant="outlined" size="large" onClick={() => guess(i as 0 | 1)}>
              {name}
            </Button>
          ))
        )}
        <Button color="inherit" disabled={ear.heard === null} onClick={ear.stop}>
          Stop
        </Button>
      </Box>
      {of > 0 && (
        <Box sx={{ fontSize: 19, lineHeight: 1.4 }}>
          {right} of {of} right. Somebody who guesses does as well {Math.round(100 * chanceOf(right, of))}{" "}
          times in a hundred{of < 8 ? "; eight or more tell more." : "."}
        </Box>
      )}
    </Box>
  );
}
