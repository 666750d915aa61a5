import { typedNumber } from "@/core/text/typed-number";
import TextField from "@mui/material/TextField";

interface NumberFieldProps {
  label: string;
  value: string;
  onChange(value: string): void;
  width?: number;
}

export function NumberField({ label, value, onChange, width = 130 }: NumberFieldProps) {
  return (
    <TextField
      size="small"
      label={label}
      value={value}
      error={value !== "" && Number.isNaN(typedNumber(value))}
      onChange={({ target }) => onChange(target.value)}
      slotProps={{ htmlInput: { inputMode: "decimal" } }}
      sx={{ width }}
    />
  );
}
