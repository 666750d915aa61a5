"use client";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import { EDGE_CURLS, type PathEntry } from "@/core/records/job";
import { SIDES } from "@/core/records/fields";
import { fixed, THIN_SPACE } from "@/core/text/number-text";
import { changePathLog, newId } from "@/storage/jobs";
import { typedNumber } from "@/core/text/typed-number";
import { NumberField } from "@/ui/number-field";
import { READING_FONT } from "@/ui/theme";
import type { JobView } from "../job/use-job-records";

const CURL_WORDS = { none: "no edge curl", slight: "a little edge curl", curls: "the edge curls" };
const EMPTY = { where: "", height: "", side: "A", edgeCurl: "none", sealed: false } as const;
type Typed = {
  where: string;
  height: string;
  side: "A" | "B";
  edgeCurl: PathEntry["edgeCurl"];
  sealed: boolean;
};

/** What the gauge and the eye found at each guide and head, in each direction. */
export function PathLog({ view: { job } }: { view: JobView }) {
  const [typed, setTyped] = useState<Typed>(EMPTY);
  const change = (changes: Partial<Typed>) => setTyped({ ...typed, ...changes });
  const height = typedNumber(typed.height);
  const heightMm = typed.height.trim() === "" ? null : height;
  const wrong = heightMm !== null && !(heightMm >= -50 && heightMm <= 100);
  const log = job.pathLog ?? [];
  const add = async () => {
    const { where, side, edgeCurl, sealed } = typed;
    const entry: PathEntry = {
      id: newId(),
      at: new Date().toISOString(),
      where: where.trim(),
      side,
      heightMm,
      edgeCurl,
      sealed,
    };
    await changePathLog(job.id, (before) => [...before, entry]);
    setTyped({ ...EMPTY, side });
  };
  return (
    <Box
      component="section"
      aria-label="Guides and heads"
      sx={{ mt: 2, borderTop: "1px dashed", borderColor: "divider", pt: 1.5 }}
    >
      <Box sx={{ color: "text.secondary" }}>Guides and heads, as gauged</Box>
      <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap", alignItems: "center", mt: 1 }}>
        <TextField
          size="small"
          label="Guide or head"
          value={typed.where}
          onChange={({ target }) => change({ where: target.value })}
          sx={{ width: 200 }}
        />
        <TextField
          select
          size="small"
          label="Direction"
          value={typed.side}
          onChange={({ target }) => change({ side: target.value as "A" | "B" })}
          sx={{ width: 100 }}
        >
          {SIDES.map((side) => (
            <MenuItem key={side} value={side}>
              {side}
            </MenuItem>
          ))}
        </TextField>
        <NumberField label="Height, mm" value={typed.height} onChange={(text) => change({ height: text })} />
        <TextField
          select
          size="small"
          label="Tape edge"
          value={typed.edgeCurl}
          onChange={({ target }) => change({ edgeCurl: target.value as PathEntry["edgeCurl"] })}
          sx={{ width: 180 }}
        >
          {EDGE_CURLS.map((curl) => (
            <MenuItem key={curl} value={curl}>
              {CURL_WORDS[curl]}
            </MenuItem>
          ))}
        </TextField>
        <FormControlLabel
          label="sealed"
          control={
            <Checkbox checked={typed.sealed} onChange={({ target }) => change({ sealed: target.checked })} />
          }
        />
        <Button variant="outlined" disabled={typed.where.trim() === "" || wrong} onClick={() => void add()}>
          Write it down
        </Button>
      </Box>
      {wrong && (
        <Box sx={{ color: "error.main", mt: 0.5 }}>
          The height is a number of millimetres from −50 to 100.
        </Box>
      )}
      <Box component="ol" aria-label="Gauged" sx={{ listStyle: "none", p: 0, m: 0, mt: 1 }}>
        {log.map((entry) => (
          <Box
            component="li"
            key={entry.id}
            sx={{
              display: "flex",
              gap: 2,
              alignItems: "center",
              borderTop: 1,
              borderColor: "divider",
              flexWrap: "wrap",
            }}
          >
            <Box sx={{ fontWeight: 650, minWidth: 160 }}>{entry.where}</Box>
            <Box>direction {entry.side}</Box>
            <Box sx={{ fontFamily: READING_FONT }}>{heightText(entry)}</Box>
            <Box sx={entry.edgeCurl === "curls" ? { color: "error.main", fontWeight: 650 } : undefined}>
              {CURL_WORDS[entry.edgeCurl]}
            </Box>
            <Box sx={{ flex: 1 }}>{entry.sealed ? "sealed" : "not sealed"}</Box>
            <Button
              size="small"
              color="inherit"
              onClick={() => void changePathLog(job.id, (all) => all.filter(({ id }) => id !== entry.id))}
            >
              Take out
            </Button>
          </Box>
        ))}
      </Box>
    </Box>
  );
}

const heightText = ({ heightMm }: PathEntry) =>
  heightMm === null ? "not gauged" : `${fixed(heightMm, 2)}${THIN_SPACE}mm`;

/** An entry in a line, for the sheet. */
export const pathEntryText = (entry: PathEntry): string =>
  `${entry.where}, direction ${entry.side}: ${heightText(entry)}, ${CURL_WORDS[entry.edgeCurl]}, ${entry.sealed ? "sealed" : "not sealed"}`;
