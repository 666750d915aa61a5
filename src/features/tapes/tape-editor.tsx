"use client";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { referenceTapeSchema, type ReferenceTape } from "@/core/reference/reference-tape";
import { BandStrip } from "@/ui/band-strip";
import { EditorForm } from "../editor-form";
import { useKeptForm } from "../use-kept-form";
import { Card } from "@/ui/card";
import { BandRow } from "./band-row";
import { tapePieces } from "./tape-pieces";
import { tapeOf, textsOfTape, type TypedTape } from "./typed-tape";

interface TapeEditorProps {
  tape: ReferenceTape;
  onSave(tape: ReferenceTape): void;
  onCancel(): void;
}

const FIELDS = [
  ["speedCmPerS", "Speed, cm/s"],
  ["equalisation", "Time constants, µs"],
  ["fluxivityNwbPerM", "Fluxivity, nWb/m"],
  ["trackWidthMm", "Track width, mm"],
  ["frequencyUncertaintyPercent", "Frequencies ±, %"],
  ["plays", "Played, times"],
] as const;
const MAKING_FIELDS = [
  ["by", "Made by"],
  ["machine", "On the machine"],
  ["howChecked", "How that was checked"],
  ["speedUncertaintyPercent", "Its speed ±, %"],
] as const;

/** Enter or change a tape from its certificate; what is typed is kept until it is saved or thrown away. */
export function TapeEditor({ tape, onSave, onCancel }: TapeEditorProps) {
  const { form, change, leave, oldDraft } = useKeptForm<TypedTape>(`tape-${tape.id}`, () =>
    textsOfTape(tape),
  );
  const parsed = referenceTapeSchema.safeParse(tapeOf(form, tape.id));
  const wrong = parsed.success ? null : String(parsed.error.issues[0].path[0]);
  const textField = (asked: boolean, key: string, label: string, width = 150) => (
    <TextField
      key={key}
      size="small"
      label={label}
      value={form.texts[key] ?? ""}
      error={asked && wrong === key}
      onChange={({ target }) => change({ texts: { ...form.texts, [key]: target.value } })}
      sx={{ width, flexGrow: width > 200 ? 1 : 0 }}
    />
  );
  return (
    <EditorForm
      what="tape"
      parsed={parsed}
      oldDraft={oldDraft}
      leave={leave}
      onSave={onSave}
      onCancel={onCancel}
    >
      {(asked) => (
        <>
          {textField(asked, "name", "Name and number on the box", 320)}
          <Box sx={{ display: "flex", gap: 1.5, flexWrap: "wrap" }}>
            {FIELDS.map(([key, label]) => textField(asked, key, label))}
            <Choice
              label="Flux measured by"
              value={form.texts.fluxivityMethod ?? ""}
              choices={["", "ansi", "din"]}
              onChange={(value) => change({ texts: { ...form.texts, fluxivityMethod: value } })}
            />
            <Choice
              label="Condition"
              value={form.texts.condition ?? ""}
              choices={["", "good", "worn", "suspect"]}
              onChange={(value) => change({ texts: { ...form.texts, condition: value } })}
            />
          </Box>
          <Card title="If it is home-made">
            <Box sx={{ display: "flex", gap: 1.5, flexWrap: "wrap" }}>
              {MAKING_FIELDS.map(([key, label]) => (
                <TextField
                  key={key}
                  size="small"
                  label={label}
                  value={form.making[key] ?? ""}
                  onChange={({ target }) => change({ making: { ...form.making, [key]: target.value } })}
                  sx={{ width: key === "howChecked" ? 280 : 160 }}
                />
              ))}
            </Box>
          </Card>
          {textField(asked, "notes", "Notes", 320)}
          {parsed.success && <BandStrip label="The tape so far" pieces={tapePieces(parsed.data.bands)} />}
          <Box component="ol" aria-label="Bands" sx={{ listStyle: "none", m: 0, p: 0 }}>
            {form.bands.map((band, i) => (
              <BandRow
                key={i}
                place={i}
                band={band}
                onChange={(changed) =>
                  change({ bands: form.bands.map((one, j) => (j === i ? changed : one)) })
                }
                onRemove={() => change({ bands: form.bands.filter((_, j) => j !== i) })}
              />
            ))}
          </Box>
          <Box>
            <Button
              variant="outlined"
              onClick={() =>
                change({ bands: [...form.bands, form.bands.at(-1) ?? { kind: "tone", role: "", texts: {} }] })
              }
            >
              Add a band
            </Button>
          </Box>
        </>
      )}
    </EditorForm>
  );
}

interface ChoiceProps {
  label: string;
  value: string;
  choices: string[];
  onChange(value: string): void;
}

function Choice({ label, value, choices, onChange }: ChoiceProps) {
  return (
    <TextField
      select
      size="small"
      label={label}
      value={value}
      onChange={({ target }) => onChange(target.value)}
      sx={{ width: 160 }}
    >
      {choices.map((choice) => (
        <MenuItem key={choice} value={choice}>
          {choice || "not said"}
        </MenuItem>
      ))}
    </TextField>
  );
}
