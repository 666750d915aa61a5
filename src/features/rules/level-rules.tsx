"use client";
import { amplitudeDb } from "@/core/dsp/decibels";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Box from "@mui/material/Box";
import { fixed, THIN_SPACE } from "@/core/text/number-text";
import { fluxivityBy, fluxivityDb, type FluxMethod } from "@/core/workshop/fluxivity";
import { Card } from "@/ui/card";
import { useKeptForm } from "../use-kept-form";
import { AnswerLine } from "./answer-line";
import { typedNumbers } from "@/core/text/typed-number";
import { NumberField } from "@/ui/number-field";
import { NumberRow } from "./number-row";

const FLUX = { tape: "250", tapeMethod: "din", machine: "200", machineMethod: "ansi" };

/** How far a reference tape's level lies from the machine's operating level. */
export function FluxivityRule() {
  const { form, change } = useKeptForm("rule-fluxivity", () => FLUX);
  const { tape, machine } = typedNumbers(form);
  const [tapeMethod, machineMethod] = [form.tapeMethod, form.machineMethod] as FluxMethod[];
  const valid = tape > 0 && machine > 0;
  const db = valid
    ? fluxivityDb({ nwbPerM: tape, method: tapeMethod }, { nwbPerM: machine, method: machineMethod })
    : NaN;
  const method = (key: "tapeMethod" | "machineMethod", label: string) => (
    <TextField
      select
      size="small"
      label={label}
      value={form[key]}
      onChange={({ target }) => change({ [key]: target.value })}
      sx={{ width: 130 }}
    >
      <MenuItem value="ansi">ANSI</MenuItem>
      <MenuItem value="din">DIN</MenuItem>
    </TextField>
  );
  return (
    <Card title="Fluxivity">
      <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap" }}>
        <NumberField label="Tape, nWb/m" value={form.tape} onChange={(value) => change({ tape: value })} />
        {method("tapeMethod", "Tape, method")}
        <NumberField
          label="Machine, nWb/m"
          value={form.machine}
          onChange={(value) => change({ machine: value })}
        />
        {method("machineMethod", "Machine, method")}
      </Box>
      {valid && (
        <>
          <AnswerLine
            value={`${fixed(db, 2, true)}${THIN_SPACE}dB`}
            says="is what the machine's meter should show while the tape's 0 dB band plays"
          />
          <AnswerLine
            value={`${fixed(fluxivityBy("ansi", tape, tapeMethod), 0)} / ${fixed(fluxivityBy("din", tape, tapeMethod), 0)}`}
            says="nWb/m, the same tape by ANSI and by DIN"
          />
        </>
      )}
    </Card>
  );
}

const DECIBELS = { first: "", second: "" };
const VOLTS_AT_0_DBU = Math.sqrt(0.6);

/** Two levels in volts or percent as decibels. */
export function DecibelRule() {
  const { form, change } = useKeptForm("rule-decibels", () => DECIBELS);
  const { first, second } = typedNumbers(form);
  const db = amplitudeDb(first / second);
  return (
    <Card title="Decibels">
      <NumberRow
        fields={[
          ["first", "Level, V or %"],
          ["second", "Over, V or %"],
        ]}
        values={form}
        change={change}
      />
      {first > 0 && second > 0 && (
        <AnswerLine value={`${fixed(db, 2, true)}${THIN_SPACE}dB`} says="the first over the second" />
      )}
      {first > 0 && (
        <AnswerLine
          value={`${fixed(amplitudeDb(first / VOLTS_AT_0_DBU), 2, true)}${THIN_SPACE}dBu`}
          says={`when it is volts (0 dBu is 0.775 V), and ${fixed(amplitudeDb(first), 2, true)} dBV`}
        />
      )}
      {first > 0 && !(second > 0) && (
        <AnswerLine
          value={`${fixed(amplitudeDb(first / 100), 1, true)}${THIN_SPACE}dB`}
          says="when it is per cent of distortion"
        />
      )}
    </Card>
  );
}
