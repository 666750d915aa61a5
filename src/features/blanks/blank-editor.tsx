"use client";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { blankTapeSchema, TREBLES, type BlankTape } from "@/core/records/blank-tape";
import { TAPE_TYPES } from "@/core/standards/tape-types";
import { FormRow } from "@/ui/form-row";
import { NumberField } from "@/ui/number-field";
import { EditorForm } from "../editor-form";
import { useKeptForm } from "../use-kept-form";
import { blankOf, NOT_SAID, typedBlank } from "./typed-blank";

interface BlankEditorProps {
  blank: BlankTape;
  onSave(blank: BlankTape): void;
  onCancel(): void;
}

/** Enter or change a blank tape; what is typed is kept until it is saved or thrown away. */
export function BlankEditor({ blank, onSave, onCancel }: BlankEditorProps) {
  const { form, change, leave, oldDraft } = useKeptForm(`blank-${blank.id}`, () => typedBlank(blank));
  const parsed = blankTapeSchema.safeParse(blankOf(form, blank.id));
  const changeLine = (place: number, fields: Partial<(typeof form.overBias)[number]>) =>
    change({ overBias: form.overBias.map((line, i) => (i === place ? { ...line, ...fields } : line)) });
  const select = (key: "type" | "treble", label: string, choices: readonly string[]) => (
    <TextField
      select
      size="small"
      label={label}
      value={form[key]}
      onChange={({ target }) => change({ [key]: target.value })}
      sx={{ width: 160 }}
    >
      {[NOT_SAID, ...choices].map((choice) => (
        <MenuItem key={choice} value={choice}>
          {choice}
        </MenuItem>
      ))}
    </TextField>
  );
  return (
    <EditorForm
      what="blank tape"
      parsed={parsed}
      oldDraft={oldDraft}
      leave={leave}
      onSave={onSave}
      onCancel={onCancel}
    >
      {(asked) => (
        <>
          <TextField
            size="small"
            label="Name on the box"
            value={form.name}
            error={asked && form.name.trim() === ""}
            onChange={({ target }) => change({ name: target.value })}
            sx={{ maxWidth: 420 }}
          />
          <Box sx={{ display: "flex", gap: 1.5, flexWrap: "wrap" }}>
            {select("type", "Type", TAPE_TYPES)}
            {form.type === "open reel" && (
              <NumberField
                label="Thickness, µm"
                value={form.thickness}
                onChange={(thickness) => change({ thickness })}
              />
            )}
            {select("treble", "Treble beside its kind", TREBLES)}
            <NumberField
              label="Record up to, dB re 0"
              value={form.level}
              width={180}
              onChange={(level) => change({ level })}
            />
          </Box>
          <Box component="ol" aria-label="Over-bias" sx={{ listStyle: "none", m: 0, p: 0 }}>
            {form.overBias.map(({ speed, frequency, db }, i) => (
              <FormRow key={i} label={`Over-bias ${i + 1}`}>
                <NumberField label="At, cm/s" value={speed} onChange={(to) => changeLine(i, { speed: to })} />
                <NumberField
                  label="a tone of, Hz"
                  value={frequency}
                  onChange={(to) => changeLine(i, { frequency: to })}
                />
                <NumberField
                  label="has dropped, dB"
                  value={db}
                  onChange={(to) => changeLine(i, { db: to })}
                />
                <Button
                  color="inherit"
                  size="small"
                  sx={{ ml: "auto" }}
                  onClick={() => change({ overBias: form.overBias.filter((_, j) => j !== i) })}
                >
                  Remove
                </Button>
              </FormRow>
            ))}
          </Box>
          <Box>
            <Button
              variant="outlined"
              onClick={() =>
                change({ overBias: [...form.overBias, { speed: "", frequency: "10000", db: "" }] })
              }
            >
              Add an over-bias figure
            </Button>
          </Box>
          <Box sx={{ display: "flex", gap: 1.5, flexWrap: "wrap", alignItems: "center" }}>
            <FormControlLabel
              label="sheds"
              control={<Checkbox checked={form.shedding} onChange={(_, shedding) => change({ shedding })} />}
            />
            <FormControlLabel
              label="back-coated"
              control={
                <Checkbox checked={form.backCoated} onChange={(_, backCoated) => change({ backCoated })} />
              }
            />
            <TextField
              size="small"
              label="Age"
              value={form.age}
              onChange={({ target }) => change({ age: target.value })}
            />
          </Box>
          <TextField
            size="small"
            label="Notes"
            multiline
            value={form.notes}
            onChange={({ target }) => change({ notes: target.value })}
          />
        </>
      )}
    </EditorForm>
  );
}
