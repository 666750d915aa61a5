import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { FormRow } from "@/ui/form-row";
import { machinePartSchema } from "@/core/workshop/machine-part";
import { TurnCounter } from "./turn-counter";
import { PART_KINDS, partOf, type PartKind, type TypedPart } from "./typed-machine";

interface PartRowProps {
  place: number;
  part: TypedPart;
  onChange(part: TypedPart): void;
  onRemove(): void;
}

/** One rotating part being typed. */
export function PartRow({ place, part, onChange, onRemove }: PartRowProps) {
  const wrong = !machinePartSchema.safeParse(partOf(part)).success;
  const set = (texts: Record<string, string>) => onChange({ ...part, texts: { ...part.texts, ...texts } });
  return (
    <FormRow label={`Part ${place + 1}`}>
      <TextField
        size="small"
        label="Part"
        value={part.texts.name ?? ""}
        onChange={({ target }) => set({ name: target.value })}
        sx={{ width: 150 }}
      />
      <TextField
        select
        size="small"
        label="How it turns"
        value={part.kind}
        onChange={({ target }) => onChange({ ...part, kind: target.value as PartKind })}
        sx={{ width: 170 }}
      >
        {Object.entries(PART_KINDS).map(([kind, { says }]) => (
          <MenuItem key={kind} value={kind}>
            {says}
          </MenuItem>
        ))}
      </TextField>
      {PART_KINDS[part.kind].fields.map(([key, label]) => (
        <TextField
          key={key}
          size="small"
          label={label}
          value={part.texts[key] ?? ""}
          onChange={({ target }) => set({ [key]: target.value })}
          sx={{ width: 116 }}
        />
      ))}
      {part.kind === "counted" && (
        <TurnCounter
          onCounted={(turns, seconds) =>
            set({ countedTurns: String(turns), countedSeconds: String(seconds) })
          }
        />
      )}
      <Box sx={{ flex: 1, color: "warning.main" }}>{wrong ? "not complete yet" : ""}</Box>
      <Button color="inherit" size="small" onClick={onRemove}>
        Remove
      </Button>
    </FormRow>
  );
}
