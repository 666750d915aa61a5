"use client";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useState } from "react";
import type { SideFinding } from "@/core/live/find-sides";

/** Tells swapped and inverted channels from a tone that is known to be on one side only. */
export function SideCheck({ findSides }: { findSides(): Promise<SideFinding> }) {
  const [answer, setAnswer] = useState<string | null>(null);
  const ask = async (sent: "left" | "right") => {
    try {
      setAnswer(inWords(sent, await findSides()));
    } catch (error) {
      setAnswer((error as Error).message);
    }
  };
  return (
    <Box sx={{ mt: 2 }}>
      <Box component="h3" sx={{ fontSize: 15, m: 0, mb: 0.5 }}>
        Which side is which?
      </Box>
      <Box sx={{ color: "text.secondary", lineHeight: 1.4 }}>
        Play the test sequence “Which side is which” (under Signals, also from a tape). While its tone is on
        one side, say which:
      </Box>
      <Box sx={{ display: "flex", gap: 1, mt: 1, alignItems: "center", flexWrap: "wrap" }}>
        <Button variant="outlined" onClick={() => void ask("left")}>
          It is on the left now
        </Button>
        <Button variant="outlined" onClick={() => void ask("right")}>
          It is on the right now
        </Button>
        <Box role="status" sx={{ fontWeight: 650 }}>
          {answer}
        </Box>
      </Box>
    </Box>
  );
}

function inWords(sent: "left" | "right", { heardOn, inverted }: SideFinding): string {
  const turned = inverted === null ? "" : inverted ? " It is inverted." : " Its polarity is right.";
  if (heardOn === "both")
    return `It arrives on both sides: the leads are joined, or the input is mono.${turned}`;
  return heardOn === sent
    ? `It arrives on the ${sent}, as it should.${turned}`
    : `Swapped: it arrives on the ${heardOn}. Exchange the two plugs.${turned}`;
}
