"use client";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { knownMachineSchema } from "@/core/alignment/known-records";
import { FLUTTER_METERS, SWITCH_NAMES, SWITCHES, type Machine } from "@/core/records/machine";
import { TOLERANCE_CLASSES } from "@/core/standards/tolerance-classes";
import { EditorForm } from "../editor-form";
import { useKeptForm } from "../use-kept-form";
import { newId } from "@/storage/jobs";
import { PartRow } from "./part-row";
import { RateRuler } from "./rate-ruler";
import { StationFields } from "./station-fields";
import { machineOf, typedMachine, type TypedMachine } from "./typed-machine";

interface MachineEditorProps {
  machine: Machine;
  onSave(machine: Machine): void;
  onCancel(): void;
}

const TEXTS = [
  ["name", "Name", 220],
  ["description", "What it is", 320],
  ["speeds", "Speeds, cm/s (several with ;)", 220],
  ["fluxivity", "Operating level, nWb/m (DIN)", 210],
  ["outputDbu", "its output, dBu", 140],
  ["headMh", "Playback head, mH", 150],
] as const;

const newAdjuster = (): TypedMachine["adjusters"][number] => ({
  id: newId(),
  name: "",
  where: "",
  sets: "speed",
  kind: "turn",
  speeds: "",
});

/** Enter or change a machine; what is typed is kept until it is saved or thrown away. */
export function MachineEditor({ machine, onSave, onCancel }: MachineEditorProps) {
  const { form, change, leave, oldDraft } = useKeptForm<TypedMachine>(`machine-${machine.id}`, () =>
    typedMachine(machine),
  );
  const parsed = knownMachineSchema.safeParse(machineOf(form, machine));
  const select = <K extends "toleranceClass" | "flutterMeter" | "channels" | "capstans" | "heads">(
    key: K,
    label: string,
    choices: readonly TypedMachine[K][],
  ) => (
    <TextField
      select
      size="small"
      label={label}
      value={form[key]}
      onChange={({ target }) => change({ [key]: target.value })}
      sx={{ width: 170 }}
    >
      {choices.map((choice) => (
        <MenuItem key={choice} value={choice}>
          {choice}
        </MenuItem>
      ))}
    </TextField>
  );
  return (
    <EditorForm
      what="machine"
      parsed={parsed}
      oldDraft={oldDraft}
      leave={leave}
      onSave={onSave}
      onCancel={onCancel}
    >
      {() => (
        <>
          <Box sx={{ display: "flex", gap: 1.5, flexWrap: "wrap" }}>
            {TEXTS.map(([key, label, width]) => (
              <TextField
                key={key}
                size="small"
                label={label}
                value={form[key]}
                onChange={({ target }) => change({ [key]: target.value })}
                sx={{ width }}
              />
            ))}
            {select(
              "toleranceClass",
              "Tolerance class",
              Object.keys(TOLERANCE_CLASSES) as Machine["toleranceClass"][],
            )}
            {select("flutterMeter", "Flutter limit is for", FLUTTER_METERS)}
            {select("channels", "Channels", ["stereo", "mono"])}
            {select("capstans", "Capstans", ["one", "two"])}
            {select("heads", "Heads", ["two, plays only", "two, records", "three"])}
            {form.heads !== "two, plays only" &&
              SWITCHES.map((one) => (
                <TextField
                  key={one}
                  size="small"
                  label={`Word on its ${SWITCH_NAMES[one]}`}
                  value={form.switches[one]}
                  onChange={({ target }) => change({ switches: { ...form.switches, [one]: target.value } })}
                  sx={{ width: 232 }}
                />
              ))}
          </Box>
          <StationFields form={form} onChange={change} />
          <Box>
            <Button
              variant="outlined"
              onClick={() => change({ adjusters: [...form.adjusters, newAdjuster()] })}
            >
              Add an adjuster
            </Button>
          </Box>
          {parsed.success && parsed.data.parts.length > 0 && (
            <RateRuler
              parts={parsed.data.parts}
              speedCmPerS={parsed.data.speedsCmPerS[0]}
              firstSpeedCmPerS={parsed.data.speedsCmPerS[0]}
            />
          )}
          <Box component="ol" aria-label="Parts" sx={{ listStyle: "none", m: 0, p: 0 }}>
            {form.parts.map((part, i) => (
              <PartRow
                key={i}
                place={i}
                part={part}
                onChange={(changed) =>
                  change({ parts: form.parts.map((one, j) => (j === i ? changed : one)) })
                }
                onRemove={() => change({ parts: form.parts.filter((_, j) => j !== i) })}
              />
            ))}
          </Box>
          <Box>
            <Button
              variant="outlined"
              onClick={() => change({ parts: [...form.parts, { kind: "surface", texts: {} }] })}
            >
              Add a part
            </Button>
          </Box>
        </>
      )}
    </EditorForm>
  );
}
