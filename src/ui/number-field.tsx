import TextField from "@mui/material/TextField";

/** What was typed as a number: comma or point; NaN when it is none. */
export const typedNumber = (text: string): number =>
  text.trim() === "" ? NaN : Number(text.trim().replace("−", "-").replace(",", "."));

/** Every text of a form as a number. */
export const typedNumbers = <Key extends string>(form: Record<Key, string>): Record<Key, number> =>
  Object.fromEntries(Object.entries<string>(form).map(([key, text]) => [key, typedNumber(text)])) as Record<
    Key,
    number
  >;

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
