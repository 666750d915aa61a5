"use client";
import Box from "@mui/material/Box";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { fixed, THIN_SPACE } from "@/core/text/number-text";
import { EQUALISATIONS, fluxDb, playedWithDb } from "@/core/standards/equalisation";
import { Card } from "@/ui/card";
import { ResponseChart } from "@/ui/response-chart";
import { useKeptForm } from "../use-kept-form";
import { AnswerLine } from "./answer-line";
import { FREQUENCIES } from "./frequencies";

const BEGIN = { tape: "3180/120", machine: "3180/70" };
const REFERENCE_HZ = 1000;
const byId = (id: string) => EQUALISATIONS.find((one) => one.id === id) ?? EQUALISATIONS[0];

/** The flux of a recorded tape, and what a machine of another equalisation makes of it. */
export function EqualisationRule() {
  const { form, change } = useKeptForm("rule-equalisation", () => BEGIN);
  const [tape, machine] = [byId(form.tape), byId(form.machine)];
  const choose = (key: "tape" | "machine", label: string) => (
    <TextField
      select
      size="small"
      label={label}
      value={byId(form[key]).id}
      onChange={({ target }) => change({ [key]: target.value })}
      sx={{ flex: "1 1 220px" }}
    >
      {EQUALISATIONS.map(({ id, use }) => (
        <MenuItem key={id} value={id}>
          {id.replace(/^0\//, "∞/")} µs, {use}
        </MenuItem>
      ))}
    </TextField>
  );
  const points = (of: (hz: number) => number) =>
    FREQUENCIES.map((frequencyHz) => ({ frequencyHz, db: of(frequencyHz) }));
  return (
    <Card title="Equalisation">
      <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap" }}>
        {choose("tape", "Tape")}
        {choose("machine", "Machine")}
      </Box>
      <AnswerLine
        value={`${fixed(playedWithDb(tape, machine, 10_000, REFERENCE_HZ), 2, true)}${THIN_SPACE}dB`}
        says={`at 10 kHz, ${fixed(playedWithDb(tape, machine, 63, REFERENCE_HZ), 2, true)} dB at 63 Hz, re 1 kHz`}
      />
      <ResponseChart
        label="Equalisation curves"
        height={200}
        lines={[
          {
            label: "flux of the tape",
            look: "plain",
            points: points((hz) => fluxDb(tape, hz) - fluxDb(tape, REFERENCE_HZ)),
          },
          {
            label: "played by the machine",
            look: "model",
            points: points((hz) => playedWithDb(tape, machine, hz, REFERENCE_HZ)),
          },
        ]}
      />
    </Card>
  );
}
