import Box from "@mui/material/Box";
import { NumberField } from "@/ui/number-field";

interface NumberRowProps<Key extends string> {
  fields: ReadonlyArray<readonly [key: Key, label: string]>;
  values: Record<Key, string>;
  change(changes: Partial<Record<Key, string>>): void;
}

/** The numbers that a slide rule is set with, side by side. */
export function NumberRow<Key extends string>({ fields, values, change }: NumberRowProps<Key>) {
  return (
    <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap" }}>
      {fields.map(([key, label]) => (
        <NumberField
          key={key}
          label={label}
          value={values[key]}
          onChange={(value) => change({ [key]: value } as Partial<Record<Key, string>>)}
        />
      ))}
    </Box>
  );
}
