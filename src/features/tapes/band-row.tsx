import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { FormRow } from "@/ui/form-row";
import { BAND_KINDS, BAND_ROLES, bandSchema } from "@/core/reference/reference-tape";
import { bandOf, type TypedBand } from "./typed-tape";

interface BandRowProps {
  place: number;
  band: TypedBand;
  onChange(band: TypedBand): void;
  onRemove(): void;
}

const FIELDS: Array<[key: string, label: string, width: number]> = [
  ["levelDb", "Level, dB", 88],
  ["seconds", "Length, s", 88],
  ["correctionLeft", "Off, left dB", 98],
  ["correctionRight", "Off, right dB", 104],
  ["frequencyErrorPercent", "Hz off, %", 92],
];

/** One band of a tape being typed. */
export function BandRow({ place, band, onChange, onRemove }: BandRowProps) {
  const parsed = bandSchema.safeParse(bandOf(band));
  const wrong = parsed.success ? null : parsed.error.issues[0].path[0];
  const pitched = band.kind === "tone" || band.kind === "sweep";
  const text = (key: string, label: string, width: number) => (
    <TextField
      key={key}
      size="small"
      label={label}
      value={band.texts[key] ?? ""}
      error={wrong === key}
      onChange={({ target }) => onChange({ ...band, texts: { ...band.texts, [key]: target.value } })}
      sx={{ width }}
    />
  );
  return (
    <FormRow label={`Band ${place + 1}`}>
      <Box sx={{ width: 24, fontWeight: 700 }}>{place + 1}</Box>
      <TextField
        select
        size="small"
        label="Kind"
        value={band.kind}
        onChange={({ target }) => onChange({ ...band, kind: target.value as TypedBand["kind"] })}
        sx={{ width: 104 }}
      >
        {BAND_KINDS.map((kind) => (
          <MenuItem key={kind} value={kind}>
            {kind}
          </MenuItem>
        ))}
      </TextField>
      <TextField
        select
        size="small"
        label="For"
        value={BAND_ROLES.includes(band.role as never) ? band.role : ""}
        onChange={({ target }) => onChange({ ...band, role: target.value })}
        sx={{ width: 112 }}
      >
        {["", ...BAND_ROLES].map((role) => (
          <MenuItem key={role} value={role}>
            {role || "other"}
          </MenuItem>
        ))}
      </TextField>
      {pitched && text("frequencyHz", "Hz", 92)}
      {band.kind === "sweep" && text("toFrequencyHz", "To, Hz", 92)}
      {FIELDS.map(([key, label, width]) => text(key, label, width))}
      <Button color="inherit" size="small" onClick={onRemove}>
        Remove
      </Button>
    </FormRow>
  );
}
