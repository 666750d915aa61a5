"use client";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import Paper from "@mui/material/Paper";
import TextField from "@mui/material/TextField";
import { useLiveQuery } from "dexie-react-hooks";
import { useEffect, useState } from "react";
import { conditionsOf } from "@/core/simulator/practice-machines";
import { changeSettings, DEFAULT_SETTINGS, readSettings } from "@/storage/settings";
import { DeckKeys } from "./deck-keys";
import { DeckTape } from "./deck-tape";
import { DeckUnderside } from "./deck-underside";
import type { ShownSlot } from "./shown-slots";
import type { PracticeSetUp } from "../listening/listening-state";
import type { ListenerState } from "../listening/use-listener";

interface PracticeDrawerProps {
  listener: ListenerState;
  machineId: string;
  /** What can be turned at this station. */
  slots: ShownSlot[];
  onClose(): void;
}

/** The practice machine: how it came in, its keys and tape, and its trimmer to turn. */
export function PracticeDrawer({ listener, machineId, slots, onClose }: PracticeDrawerProps) {
  const [condition, setCondition] = useState("slow-lumpy-belt");
  const { practice, keptCondition, startPractice, stop, pressKey, turnPractice } = listener;
  useEffect(() => {
    void keptCondition().then((kept) => kept && setCondition(kept));
  }, [keptCondition]);
  const on = listener.kind === "practice" && practice !== null;
  return (
    <Paper
      component="section"
      aria-label="Practice machine"
      elevation={8}
      sx={{
        borderTop: 2,
        borderColor: "primary.main",
        borderRadius: 0,
        px: 2.5,
        py: 0.75,
        display: "flex",
        columnGap: 2.5,
        rowGap: 1,
        alignItems: "center",
        flexWrap: "wrap",
      }}
    >
      <Box sx={{ display: "flex", flexDirection: "column", gap: 1, width: 200 }}>
        <TextField
          select
          size="small"
          label="It came in"
          value={practice?.conditionId ?? condition}
          onChange={(event) => {
            setCondition(event.target.value);
            if (on) void startPractice(event.target.value);
          }}
        >
          {conditionsOf(machineId).map(({ id, name }) => (
            <MenuItem key={id} value={id}>
              {name}
            </MenuItem>
          ))}
        </TextField>
        <Box sx={{ display: "flex", gap: 1 }}>
          {on ? (
            <Button fullWidth variant="outlined" onClick={() => void stop()}>
              Switch off
            </Button>
          ) : (
            <Button fullWidth variant="contained" onClick={() => void startPractice(condition)}>
              Play
            </Button>
          )}
          <Button color="inherit" onClick={onClose}>
            Close
          </Button>
        </Box>
      </Box>
      {on && (
        <Box sx={{ display: "flex", flexDirection: "column", gap: 0.75, minWidth: 0 }}>
          <DeckKeys practice={practice} onPress={(key) => void pressKey(key)} />
          <DeckTape listener={listener} practice={practice} />
        </Box>
      )}
      <DeckUnderside
        slots={slots.map(({ name, slot }) => ({ name, slotTurns: practice?.trimmers[slot]?.slotTurns ?? 0 }))}
        playing={on}
        onTurn={(place, turns) => void turnPractice(slots[place].slot, turns)}
      />
      <Box sx={{ color: "text.secondary", maxWidth: on ? 130 : 240, lineHeight: 1.35 }}>
        {on ? (
          <>
            Drag the slot, or arrow keys (Shift: 1°).
            {slots.map(({ name, slot }) => (
              <Box key={name}>
                {slots.length > 1 && `${name}: `}
                <b>{degrees(notLogged(practice, slot))}</b>
                {slots.length === 1 && " since the last logged turn"}
                {practice.trimmers[slot].atStop && "; at its stop"}
              </Box>
            ))}
          </>
        ) : (
          <>
            A simulated deck with the job&apos;s reference tape in it. Its trimmer has slack, as real ones do.
            <TapeRuns />
          </>
        )}
      </Box>
    </Paper>
  );
}

const PACES = [
  [1, "in real time"],
  [2, "twice as fast"],
  [4, "four times as fast"],
] as const;

/** How long a tape takes: for whoever knows by now what it sounds like. What is measured is the same. */
function TapeRuns() {
  const { practicePace } = useLiveQuery(readSettings, []) ?? DEFAULT_SETTINGS;
  return (
    <TextField
      select
      size="small"
      label="Its tape runs"
      value={practicePace}
      onChange={({ target }) => {
        const chosen = PACES.find(([pace]) => pace === Number(target.value));
        if (chosen) void changeSettings({ practicePace: chosen[0] });
      }}
      sx={{ mt: 1.5, width: 180, display: "block" }}
      fullWidth
    >
      {PACES.map(([pace, words]) => (
        <MenuItem key={pace} value={pace}>
          {words}
        </MenuItem>
      ))}
    </TextField>
  );
}

/** How far a slot was turned since its last logged turn, clockwise positive. */
export const notLogged = ({ trimmers, loggedTurns }: PracticeSetUp, trimmer: number): number =>
  (trimmers[trimmer]?.slotTurns ?? 0) - (loggedTurns[trimmer] ?? 0);

function degrees(turns: number): string {
  const d = Math.round(360 * turns);
  return d === 0 ? "0°" : `${Math.abs(d)}° ${d > 0 ? "clockwise" : "anticlockwise"}`;
}
