import Accordion from "@mui/material/Accordion";
import AccordionDetails from "@mui/material/AccordionDetails";
import AccordionSummary from "@mui/material/AccordionSummary";
import Box from "@mui/material/Box";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import { MEASURING } from "@/core/alignment/registry";
import type { MeasuringStation } from "@/core/stations/station";
import { AdjusterRow } from "./adjuster-row";
import type { TypedAdjuster, TypedMachine } from "./typed-machine";

interface StationFieldsProps {
  form: TypedMachine;
  onChange(changed: Partial<TypedMachine>): void;
}

/** Limits of its own and adjusters, station by station; a station of which nothing is written down is folded. */
export const StationFields = ({ form, onChange }: StationFieldsProps) => (
  <Box component="section" aria-label="Station by station">
    {MEASURING.filter(
      ({ id, ownLimits }) => ownLimits.length > 0 || form.adjusters.some(({ sets }) => sets === id),
    ).map((station) => (
      <OneStation
        key={`${station.id} ${form.adjusters.filter(({ sets }) => sets === station.id).length}`}
        station={station}
        form={form}
        onChange={onChange}
      />
    ))}
  </Box>
);

function OneStation({ station, form, onChange }: StationFieldsProps & { station: MeasuringStation }) {
  const { id, name, ownLimits } = station;
  // until somebody folds or unfolds it, it is open where something is written down
  const [open, setOpen] = useState<boolean | null>(null);
  const adjusters = form.adjusters
    .map((adjuster, place) => ({ adjuster, place }))
    .filter(({ adjuster }) => adjuster.sets === id);
  const limits = ownLimits.filter(({ key }) => form.limits[key]);
  const says = [
    limits.length > 0 && (limits.length === 1 ? "a limit of its own" : `${limits.length} limits of its own`),
    adjusters.length > 0 && (adjusters.length === 1 ? "1 adjuster" : `${adjusters.length} adjusters`),
  ].filter(Boolean);
  const change = (place: number, changed: TypedAdjuster) =>
    onChange({ adjusters: form.adjusters.map((one, j) => (j === place ? changed : one)) });
  return (
    <Accordion
      disableGutters
      elevation={0}
      expanded={open ?? says.length > 0}
      onChange={(_, unfolded) => setOpen(unfolded)}
      sx={{ border: 1, borderColor: "divider" }}
    >
      <AccordionSummary expandIcon={<Box aria-hidden>▾</Box>}>
        <Box sx={{ fontWeight: 700 }}>{name}</Box>
        <Box sx={{ color: "text.secondary", ml: 1.5 }}>{says.join(", ") || "nothing of its own"}</Box>
      </AccordionSummary>
      <AccordionDetails>
        <Box sx={{ display: "flex", gap: 1.5, flexWrap: "wrap" }}>
          {ownLimits.map(({ key, label }) => (
            <TextField
              key={key}
              size="small"
              label={label}
              value={form.limits[key] ?? ""}
              onChange={({ target }) => onChange({ limits: { ...form.limits, [key]: target.value } })}
              sx={{ width: 232 }}
            />
          ))}
        </Box>
        {adjusters.length > 0 && (
          <Box
            component="ol"
            aria-label={`Adjusters, ${name.toLowerCase()}`}
            sx={{ listStyle: "none", m: 0, p: 0 }}
          >
            {adjusters.map(({ adjuster, place }) => (
              <AdjusterRow
                key={adjuster.id}
                place={place}
                adjuster={adjuster}
                onChange={(changed) => change(place, changed)}
                onRemove={() => onChange({ adjusters: form.adjusters.filter((_, j) => j !== place) })}
              />
            ))}
          </Box>
        )}
      </AccordionDetails>
    </Accordion>
  );
}
