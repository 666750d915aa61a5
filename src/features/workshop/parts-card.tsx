"use client";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { useLiveQuery } from "dexie-react-hooks";
import { useState } from "react";
import { stationById, stationsOf } from "@/core/alignment/registry";
import {
  expectedOn,
  holdsUp,
  isOverdue,
  NEXT_STATES,
  PART_WORDS,
  partName,
  stateOf,
  UNDER_WAY,
  type Part,
  type PartState,
} from "@/core/workshop/part";
import { sparesFor } from "@/core/workshop/spare";
import { database } from "@/storage/database";
import { dropPart, expectPart, needPart, stepPart, takeBackStep, takeFromBox } from "@/storage/needed-parts";
import { Card } from "@/ui/card";
import { shortDay } from "@/ui/short-day";
import type { JobView } from "../job/use-job-records";
import { today } from "./today";

/** What is said on the button that brings a part there. */
const DOES: Record<PartState, string> = {
  wanted: "To be ordered",
  ordered: "Ordered",
  fits: "It fits",
  wrong: "It is wrong",
  away: "Sent out",
  back: "It is back",
  fitted: "Fitted",
};

/** The parts of a job: what each is for, how far it has come, and what can become of it. */
export function PartsCard({ view, station }: { view: JobView; station: string }) {
  const parts = view.neededParts ?? [];
  const holding = parts.filter(holdsUp).length;
  return (
    <Card
      title={
        holding > 0
          ? `Parts: ${holding} of ${parts.length} awaited`
          : parts.length > 0
            ? "Parts"
            : "No part is needed yet"
      }
      tone={holding > 0 ? "warning" : "plain"}
    >
      <Box component="ul" aria-label="Parts" sx={{ listStyle: "none", p: 0, m: 0 }}>
        {parts.map((part) => (
          <PartRow key={part.id} part={part} />
        ))}
      </Box>
      <NewPart view={view} station={station} />
    </Card>
  );
}

function PartRow({ part }: { part: Part }) {
  const [day, setDay] = useState("");
  const state = stateOf(part);
  const due = expectedOn(part);
  const late = isOverdue(part, today());
  const next = NEXT_STATES[state];
  const isUnderWay = UNDER_WAY.includes(state);
  const asksDay = next.some((one) => UNDER_WAY.includes(one));
  const step = (to: PartState) => {
    void stepPart(part.id, to, day || null);
    setDay("");
  };
  return (
    <Box component="li" aria-label={partName(part)} sx={{ borderTop: 1, borderColor: "divider", py: 0.75 }}>
      <Box sx={{ fontWeight: 700, overflowWrap: "anywhere" }}>{partName(part)}</Box>
      <Box sx={{ color: late ? "error.main" : "text.secondary", fontWeight: late ? 650 : 400 }}>
        {PART_WORDS[state]}
        {due && (late ? `, was expected ${shortDay(due)}` : `, expected ${shortDay(due)}`)} · for{" "}
        {stationById(part.station)?.name.toLowerCase() ?? part.station}
        {part.from && ` · from ${part.from}`}
      </Box>
      <Box sx={{ display: "flex", gap: 0.5, flexWrap: "wrap", alignItems: "center" }}>
        {(asksDay || isUnderWay) && (
          <TextField
            size="small"
            type="date"
            label="Expected"
            value={isUnderWay ? (due ?? "") : day}
            onChange={({ target }) =>
              isUnderWay ? void expectPart(part.id, target.value || null) : setDay(target.value)
            }
            slotProps={{ inputLabel: { shrink: true } }}
            sx={{ width: 150, my: 0.5 }}
          />
        )}
        {next.includes("fits") && <FromBox part={part} />}
        {next.map((to) => (
          <Button key={to} size="small" variant="outlined" color="inherit" onClick={() => step(to)}>
            {DOES[to]}
          </Button>
        ))}
        {part.steps.length > 1 ? (
          <Button size="small" color="inherit" onClick={() => void takeBackStep(part.id)}>
            Undo
          </Button>
        ) : (
          <Button size="small" color="inherit" onClick={() => void dropPart(part.id)}>
            Not needed
          </Button>
        )}
      </Box>
    </Box>
  );
}

/** Where the box has it: what lies there under a like name comes first. */
function FromBox({ part }: { part: Part }) {
  const spares = useLiveQuery(() => database.spares.where("count").above(0).sortBy("name"), []) ?? [];
  const [word] = part.name.trim().split(/\s+/);
  const like = sparesFor(spares, word);
  if (spares.length === 0) return null;
  return (
    <TextField
      select
      size="small"
      label="From the box"
      value=""
      onChange={({ target }) => {
        const spare = spares.find(({ id }) => id === target.value);
        if (spare) void takeFromBox(part.id, spare);
      }}
      sx={{ width: 150, my: 0.5 }}
    >
      {[...like, ...spares.filter((one) => !like.includes(one))].map(({ id, name, count, place }) => (
        <MenuItem key={id} value={id} disabled={count < part.count}>
          {name}: {count}
          {place && `, ${place}`}
        </MenuItem>
      ))}
    </TextField>
  );
}

const EMPTY = { name: "", count: "1", from: "" };

function NewPart({ view, station }: { view: JobView; station: string }) {
  const [typed, setTyped] = useState(EMPTY);
  const [needs, setNeeds] = useState(station);
  const [open, setOpen] = useState(false);
  const count = Number(typed.count);
  const wrongCount = !(Number.isInteger(count) && count >= 1 && count <= 999);
  const add = async () => {
    await needPart(view.job.id, {
      name: typed.name.trim(),
      count,
      station: needs,
      from: typed.from.trim(),
      state: "wanted",
      expected: null,
    });
    setTyped(EMPTY);
    setOpen(false);
  };
  if (!open)
    return (
      <Button variant="outlined" fullWidth sx={{ mt: 1 }} onClick={() => setOpen(true)}>
        A part is needed
      </Button>
    );
  return (
    <Box sx={{ display: "grid", gap: 1, gridTemplateColumns: "1fr 84px", mt: 1.25 }}>
      <TextField
        size="small"
        label="Part"
        autoFocus
        value={typed.name}
        onChange={({ target }) => setTyped({ ...typed, name: target.value.slice(0, 200) })}
      />
      <TextField
        size="small"
        label="How many"
        value={typed.count}
        error={wrongCount}
        helperText={wrongCount ? "1 to 999" : undefined}
        onChange={({ target }) => setTyped({ ...typed, count: target.value })}
      />
      <TextField
        size="small"
        label="From where"
        value={typed.from}
        onChange={({ target }) => setTyped({ ...typed, from: target.value.slice(0, 200) })}
        sx={{ gridColumn: "1 / -1" }}
      />
      <TextField
        select
        size="small"
        label="Needed for"
        value={needs}
        onChange={({ target }) => setNeeds(target.value)}
        sx={{ gridColumn: "1 / -1" }}
      >
        {stationsOf(view.machine).map(({ id, name }) => (
          <MenuItem key={id} value={id}>
            {name}
          </MenuItem>
        ))}
      </TextField>
      <Box sx={{ gridColumn: "1 / -1", display: "flex", gap: 1 }}>
        <Button
          variant="contained"
          disabled={typed.name.trim() === "" || wrongCount}
          onClick={() => void add()}
        >
          Write it down
        </Button>
        <Button color="inherit" onClick={() => setOpen(false)}>
          Cancel
        </Button>
      </Box>
    </Box>
  );
}
