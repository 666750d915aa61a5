import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import { PRESETS } from "@/core/signals/presets";
import { timelineOf } from "@/core/signals/timeline";
import type { Way } from "@/core/simulator/deck-status";
import type { Sequence } from "@/core/signals/sequence";
import { usePlayer } from "@/features/signals/use-player";
import { isStarting, UNSET_SEND_DB } from "./set-zero";
import type { PictureProps } from "../stations/picture";

const PASSES = [1, 3, 5, 8];
/** What a preset that sounds steadily is called on its button. */
const STEADY_WORDS: Record<string, string | undefined> = {
  "bias-tones": "Both tones, steady",
  "level-tone": "The level tone",
  "erase-tone": "First the tone to be erased",
  "other-side-tones": "First the tones on the other side",
};
/** A button for what is to be done next, and one for what else can be. */
const NEXT = { variant: "contained", color: "primary" } as const;
const ASIDE = { variant: "outlined", color: "inherit" } as const;
const preset = (wanted: string | null): Sequence | undefined => PRESETS.find(({ id }) => id === wanted);

/**
 * Sends what a record station wants recorded, into the practice machine or out of the sound card: its sequence, and on a
 * machine that can be heard off the tape the tones that are watched while something turns.
 */
export function Send({
  listener,
  station,
  view,
  bench,
  before = null,
  only = null,
  rewindNext = false,
}: Pick<PictureProps, "listener" | "station" | "view" | "bench"> & {
  /** Another preset that is recorded beforehand, by its id. */
  before?: string | null;
  /** Nothing but what sounds steadily, where the station's sequence is not wanted. */
  only?: "steady" | null;
  /** What was recorded is to be played next. */
  rewindNext?: boolean;
}) {
  const first = preset(before);
  const [way, setWay] = useState<Way>("forwards");
  const player = usePlayer();
  const [passes, setPasses] = useState(1);
  const [agreed, setAgreed] = useState(false);
  const { practice } = listener;
  const { machine, job } = view;
  const blank = view.blanks?.find(({ id }) => id === bench.circumstances.recordingOn) ?? null;
  const { sequence: wanted, steady: watched } = station.hears;
  // where a tone is followed all the time the sequence is for machines that cannot be
  const bySequence = !machine.monitorsTape || station.hears.what === "sequence";
  const sequence = bySequence && only === null ? preset(wanted) : undefined;
  // what is followed off the tape is for three heads; what is recorded beforehand for all
  const { what, follows } = station.hears;
  const forAll = follows === null || what === "recording";
  const steady = machine.monitorsTape || forAll ? preset(watched) : undefined;
  const send = (what: Sequence) =>
    practice
      ? listener.recordSequence(what, blank, way)
      : player.play(what, job.zero?.sendDb ?? UNSET_SEND_DB);
  const may = practice !== null || agreed;
  const starting = isStarting(listener);
  return (
    <Box sx={{ display: "flex", gap: 1, alignItems: "center", flexWrap: "wrap" }}>
      {sequence && (
        <TextField
          select
          size="small"
          label="Passes"
          value={passes}
          onChange={({ target }) => setPasses(Number(target.value))}
          sx={{ width: 80 }}
        >
          {PASSES.map((count) => (
            <MenuItem key={count} value={count}>
              {count}
            </MenuItem>
          ))}
        </TextField>
      )}
      {player.playingId ? (
        <Button variant="contained" onClick={player.stop}>
          Stop sending
        </Button>
      ) : may ? (
        <>
          {first && (
            <Button {...ASIDE} disabled={starting} onClick={() => void send(first)}>
              {STEADY_WORDS[first.id] ?? first.name}
            </Button>
          )}
          {sequence && (
            <Button
              {...(rewindNext ? ASIDE : NEXT)}
              disabled={starting}
              onClick={() => void send({ ...sequence, passes })}
            >
              {practice ? "Record" : "Send"} the sequence,{" "}
              {Math.round(timelineOf({ ...sequence, passes }).seconds)} s
            </Button>
          )}
          {steady && (
            <Button
              {...(sequence || only ? ASIDE : NEXT)}
              disabled={starting}
              onClick={() => void send(steady)}
            >
              {STEADY_WORDS[steady.id] ?? steady.name}
            </Button>
          )}
        </>
      ) : (
        <Button variant="outlined" onClick={() => setAgreed(true)}>
          Loud tones will leave the sound card: headphones off, monitors down. Agreed
        </Button>
      )}
      {practice &&
        (practice.heads > 2 ? (
          <Button
            {...ASIDE}
            onClick={() => void listener.monitor(practice.deck.monitor === "tape" ? "source" : "tape")}
          >
            Monitor {practice.deck.monitor === "tape" ? "source" : "tape"}
          </Button>
        ) : (
          <Button {...(rewindNext ? NEXT : ASIDE)} onClick={() => void listener.playRecording(way)}>
            {way === "forwards" ? "Rewind" : "Wind"} and play
          </Button>
        ))}
      {practice?.autoReverse && station.apartBy.includes("side") && (
        <Button
          variant={way === "reverse" ? "contained" : "outlined"}
          color="inherit"
          aria-pressed={way === "reverse"}
          onClick={() => setWay(way === "reverse" ? "forwards" : "reverse")}
        >
          In reverse
        </Button>
      )}
      {player.trouble && <Box sx={{ color: "warning.main" }}>{player.trouble}</Box>}
    </Box>
  );
}
