import Box from "@mui/material/Box";
import TextField from "@mui/material/TextField";
import { useCallback } from "react";
import { screwEffects, type ScrewEffect } from "@/core/alignment/screw-effects";
import { MEASURING, quantityOf } from "@/core/alignment/registry";
import type { Machine } from "@/core/records/machine";
import { fixed } from "@/core/text/number-text";
import { unitAfter } from "@/core/text/units";
import { changeMachine } from "@/storage/machines";
import { READING_FONT } from "@/ui/theme";
import { EarlierJobs, useEarlierJobs } from "../job/earlier-jobs";
import { useKeptText } from "../job/use-kept-text";

const OWN_LIMITS = new Map(
  MEASURING.flatMap(({ ownLimits }) => ownLimits.map(({ key, label }) => [key, label])),
);

/** What is known of a model over all its jobs: what its screws do, what it is held to, what was found, what to mind. */
export function Known({ machine }: { machine: Machine }) {
  const jobs = useEarlierJobs(machine.id, "");
  const effects = screwEffects(jobs?.map(({ records }) => records) ?? []);
  const limits = Object.entries(machine.limits);
  const notes = useKeptText(
    `machine-notes-${machine.id}`,
    machine.notes ?? "",
    useCallback(
      (text: string) => changeMachine(machine.id, () => ({ notes: text.slice(0, 5000) })),
      [machine.id],
    ),
  );
  return (
    <Box
      sx={{
        display: "grid",
        gridTemplateColumns: { md: "minmax(0, 1fr) minmax(0, 1fr)" },
        gap: 1.5,
        alignItems: "stretch",
        mb: 2,
      }}
    >
      <Box component="section" aria-label="What its screws do">
        <Box sx={{ fontWeight: 700, color: "text.secondary", mb: 0.5 }}>
          What its screws do, one turn clockwise
        </Box>
        {effects.length === 0 && (
          <Box sx={{ lineHeight: 1.4 }}>
            No job has told yet: turn one at its station, say so, and what it did is kept.
          </Box>
        )}
        {effects.map((effect) => (
          <Box
            key={effect.adjusterId}
            sx={{ display: "flex", gap: 1.5, py: 0.5, borderTop: 1, borderColor: "divider" }}
          >
            <Box sx={{ flex: 1, minWidth: 0 }}>
              <Box sx={{ fontWeight: 650 }}>
                {machine.adjusters.find(({ id }) => id === effect.adjusterId)?.name}
              </Box>
              <Box sx={{ color: "text.secondary", fontSize: 14 }}>
                {quantityOf(effect.quantity).name.toLowerCase()}; from {effect.turns} turn
                {effect.turns === 1 ? "" : "s"} in {effect.jobs} job{effect.jobs === 1 ? "" : "s"}
              </Box>
            </Box>
            <Box sx={{ fontFamily: READING_FONT, fontWeight: 700, fontSize: 19 }}>{effectText(effect)}</Box>
          </Box>
        ))}
        {limits.length > 0 && (
          <Box sx={{ mt: 1.5 }}>
            <Box sx={{ fontWeight: 700, color: "text.secondary" }}>Limits of its own</Box>
            {limits.map(([key, value]) => (
              <Box key={key}>
                {OWN_LIMITS.get(key) ?? key}: {value}
              </Box>
            ))}
          </Box>
        )}
        <TextField
          fullWidth
          multiline
          margin="dense"
          label="To be known of every one of this model"
          {...notes}
          slotProps={{ inputLabel: { shrink: true } }}
          sx={{ mt: 1.5 }}
        />
      </Box>
      <EarlierJobs found={jobs} asked />
    </Box>
  );
}

function effectText({ from, to, unit }: ScrewEffect): string {
  const decimals = Math.max(Math.abs(from), Math.abs(to)) < 10 ? 1 : 0;
  const [a, b] = [fixed(from, decimals, true), fixed(to, decimals, true)];
  return a === b ? `${a}${unitAfter(unit)}` : `${a} … ${b}${unitAfter(unit)}`;
}
