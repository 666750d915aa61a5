import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { Link } from "@/ui/link";
import { useState } from "react";
import { slotOf } from "@/core/simulator/practice-slots";
import { knobsOf } from "@/core/stations/settings";
import { knobWords } from "@/core/text/knob-words";
import { changeBlankTapes } from "@/storage/jobs";
import { Knob } from "@/ui/knob";
import type { PictureProps } from "../stations/picture";

/** A knob that moved by less stands where it was. */
const SAME_TURNS = 1e-3;

/** The front of the machine as it stands for the tape, drawn; kept for the owner's card. */
export function FrontForTape({ view, bench, listener }: Pick<PictureProps, "view" | "bench" | "listener">) {
  const { job, machine } = view;
  const { recordingOn } = bench.circumstances;
  const named = job.blankTapes?.find(({ id }) => id === recordingOn);
  const knobs = knobsOf(bench);
  const [turned, setTurned] = useState<Record<string, number>>(named?.front?.knobs ?? {});
  const [words, setWords] = useState(named?.front?.words ?? "");
  if (!named) return null;
  const { practice } = listener;
  // the practice machine shows by itself where its knobs stand
  const standsAt = (id: string): number => {
    const adjuster = machine.adjusters.find((one) => one.id === id);
    const slot = practice && slotOf(adjuster, machine.adjusters);
    return practice && slot !== null ? (practice.trimmers[slot]?.slotTurns ?? 0) : (turned[id] ?? 0);
  };
  const { front } = named;
  const isKept =
    front !== undefined &&
    front.words === words.trim() &&
    knobs.every(({ id }) => Math.abs((front.knobs[id] ?? Infinity) - standsAt(id)) < SAME_TURNS);
  const keep = () => {
    const kept = {
      at: new Date().toISOString(),
      knobs: Object.fromEntries(knobs.map(({ id }) => [id, standsAt(id)])),
      words: words.trim(),
    };
    return changeBlankTapes(job.id, (tapes) =>
      tapes.map((one) => (one.id === recordingOn ? { ...one, front: kept } : one)),
    );
  };
  return (
    <Box
      component="section"
      aria-label="The front of the machine"
      sx={{ display: "flex", gap: 2, alignItems: "center", flexWrap: "wrap" }}
    >
      {knobs.map(({ id, name }) => (
        <Box key={id} sx={{ display: "flex", alignItems: "center", gap: 0.5 }}>
          <Knob
            name={name}
            turns={standsAt(id)}
            size={92}
            onTurn={practice ? undefined : (to) => setTurned({ ...turned, [id]: to })}
          />
          <Box sx={{ fontWeight: 600, maxWidth: 92, lineHeight: 1.3 }}>{knobWords(standsAt(id))}</Box>
        </Box>
      ))}
      <Box sx={{ display: "flex", flexDirection: "column", gap: 0.75, flex: 1, minWidth: 200 }}>
        <TextField
          size="small"
          label="What else is set for it"
          placeholder="tape switch II, noise reduction off"
          value={words}
          onChange={({ target }) => setWords(target.value.slice(0, 300))}
        />
        <Box sx={{ display: "flex", gap: 1 }}>
          <Button variant={isKept ? "outlined" : "contained"} disabled={isKept} onClick={() => void keep()}>
            {isKept ? "Kept for this tape" : "Keep for this tape"}
          </Button>
          <Button component={Link} href={`/jobs/${job.id}/card`} variant="outlined" color="inherit">
            Owner&apos;s card
          </Button>
        </Box>
      </Box>
    </Box>
  );
}
