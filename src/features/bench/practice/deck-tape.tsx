"use client";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { useLiveQuery } from "dexie-react-hooks";
import { useState } from "react";
import { fixed, THIN_SPACE } from "@/core/text/number-text";
import type { DeckSwitches } from "@/core/simulator/deck-status";
import type { TapeType } from "@/core/standards/tape-types";
import { PRESETS } from "@/core/signals/presets";
import { database } from "@/storage/database";
import { everySequence } from "@/storage/sequences";
import { READING_FONT } from "@/ui/theme";
import type { PracticeSetUp } from "../listening/listening-state";
import type { ListenerState } from "../listening/use-listener";

const BLANK = "blank";
const BY_SHELL = "by the shell";
const SWITCHES = ["I", "II", "IV"] as const satisfies readonly TapeType[];

const SWITCH_WORDS: Record<keyof DeckSwitches, string> = {
  reduction: "Noise reduction",
  multiplex: "Multiplex filter",
  headroom: "Headroom extension",
};

/** The tape in the practice machine: which, which side, where it stands, and what a recording takes in. */
export function DeckTape({ listener, practice }: { listener: ListenerState; practice: PracticeSetUp }) {
  const { deck } = practice;
  const { chooseInput, loadBlank, loadTape, monitor, resetCounter, setSwitches, setTapeSwitch, turnSide } =
    listener;
  const tapes = useLiveQuery(() => database.tapes.orderBy("name").toArray(), []);
  const sequences = useLiveQuery(everySequence, []) ?? PRESETS;
  const [input, setInput] = useState("");
  const blanks = useLiveQuery(() => database.blanks.orderBy("name").toArray(), []) ?? [];
  const ownBlank = blanks.find(({ id }) => deck.tapeId.startsWith(BLANK) && deck.tapeId.endsWith(`-${id}`));
  const loaded = ownBlank ? BLANK + ownBlank.id : deck.tapeId.startsWith(BLANK) ? BLANK : deck.tapeId;
  const share = deck.lengthSeconds > 0 ? deck.positionSeconds / deck.lengthSeconds : 0;
  return (
    <>
      <Box sx={{ display: "flex", gap: 1, alignItems: "center" }}>
        <TextField
          select
          size="small"
          label="Tape"
          value={tapes && (loaded.startsWith(BLANK) || tapes.some(({ id }) => id === loaded)) ? loaded : ""}
          onChange={({ target }) => {
            const tape = tapes?.find(({ id }) => id === target.value);
            const blank = blanks.find(({ id }) => BLANK + id === target.value);
            void (tape ? loadTape(tape) : loadBlank(blank ?? null));
          }}
          sx={{ width: 210 }}
        >
          <MenuItem value={BLANK}>Blank tape</MenuItem>
          {blanks.map(({ id, name }) => (
            <MenuItem key={id} value={BLANK + id}>
              {name}, blank
            </MenuItem>
          ))}
          {tapes?.map(({ id, name }) => (
            <MenuItem key={id} value={id}>
              {name}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          select
          size="small"
          label="Record takes in"
          value={input}
          onChange={({ target }) => {
            setInput(target.value);
            chooseInput(sequences.find(({ id }) => id === target.value) ?? null);
          }}
          sx={{ width: 170 }}
        >
          <MenuItem value="">silence</MenuItem>
          {sequences.map(({ id, name }) => (
            <MenuItem key={id} value={id}>
              {name}
            </MenuItem>
          ))}
        </TextField>
      </Box>
      <Box sx={{ display: "flex", gap: 1, alignItems: "center", flexWrap: "wrap" }}>
        <TextField
          select
          size="small"
          label="Tape switch"
          value={deck.tapeSwitch ?? BY_SHELL}
          onChange={({ target }) =>
            void setTapeSwitch(SWITCHES.find((type) => type === target.value) ?? null)
          }
          sx={{ width: 130 }}
        >
          <MenuItem value={BY_SHELL}>by the shell</MenuItem>
          {SWITCHES.map((type) => (
            <MenuItem key={type} value={type}>
              type {type}
            </MenuItem>
          ))}
        </TextField>
        <Box role="group" aria-label="Meters of the deck" sx={{ fontFamily: READING_FONT, fontSize: 14 }}>
          meters {deck.meterDb.map((db) => `${fixed(db, 1, true)}${THIN_SPACE}dB`).join(", ")}
        </Box>
      </Box>
      {practice.switches.length > 0 && (
        <Box role="group" aria-label="Switches of the deck" sx={{ display: "flex", gap: 0.5 }}>
          {practice.switches.map((name) => (
            <Button
              key={name}
              size="small"
              variant={deck.switches[name] ? "contained" : "outlined"}
              color={deck.switches[name] ? "primary" : "inherit"}
              aria-pressed={deck.switches[name]}
              onClick={() => void setSwitches({ ...deck.switches, [name]: !deck.switches[name] })}
            >
              {SWITCH_WORDS[name]}
            </Button>
          ))}
        </Box>
      )}
      {practice.heads > 2 && (
        <Box
          role="group"
          aria-label="Monitor of the deck"
          sx={{ display: "flex", gap: 0.5, alignItems: "center" }}
        >
          <Box sx={{ color: "text.secondary" }}>While it records, monitor</Box>
          {(["source", "tape"] as const).map((what) => (
            <Button
              key={what}
              size="small"
              variant={deck.monitor === what ? "contained" : "outlined"}
              color={deck.monitor === what ? "primary" : "inherit"}
              aria-pressed={deck.monitor === what}
              onClick={() => void monitor(what)}
            >
              {what}
            </Button>
          ))}
        </Box>
      )}
      <Box sx={{ display: "flex", gap: 1, alignItems: "center", fontFamily: READING_FONT, fontSize: 14 }}>
        <Button size="small" color="inherit" onClick={() => void turnSide()}>
          Side {deck.side === 0 ? "A" : "B"}: turn over
        </Button>
        <Box
          role="progressbar"
          aria-label="Position on the tape"
          aria-valuenow={Math.round(100 * share)}
          aria-valuetext={time(deck.positionSeconds)}
          sx={{ flex: 1, height: 8, border: 1, borderColor: "divider", minWidth: 60 }}
        >
          <Box sx={{ height: "100%", bgcolor: "primary.main" }} style={{ width: `${100 * share}%` }} />
        </Box>
        <Box component="span">{time(deck.positionSeconds)}</Box>
        <Button size="small" color="inherit" onClick={() => void resetCounter()}>
          Counter {String(Math.round(deck.counter)).padStart(4, "0")}
        </Button>
      </Box>
    </>
  );
}

const time = (seconds: number) =>
  `${Math.floor(seconds / 60)}:${String(Math.floor(seconds % 60)).padStart(2, "0")}`;
