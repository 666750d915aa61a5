import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";

interface ChoiceProps<T extends string> {
  label: string;
  choices: readonly T[];
  value: T | undefined;
  disabled?: boolean;
  /** Written before each choice, where the choices alone do not say what they are of. */
  before?: string;
  after?: string;
  onChoose(value: T | undefined): void;
}

/** One of a few words, or none: a second press takes the choice back. */
export function Choice<T extends string>({
  label,
  choices,
  value,
  disabled = false,
  before = "",
  after = "",
  onChoose,
}: ChoiceProps<T>) {
  return (
    <ToggleButtonGroup
      exclusive
      fullWidth
      aria-label={label}
      value={value ?? null}
      disabled={disabled}
      onChange={(_, chosen: T | null) => onChoose(chosen ?? undefined)}
      sx={{ mt: 0.5 }}
    >
      {choices.map((choice) => (
        <ToggleButton key={choice} value={choice} sx={{ minHeight: 44, textTransform: "none", px: 0.5 }}>
          {before}
          {choice}
          {after}
        </ToggleButton>
      ))}
    </ToggleButtonGroup>
  );
}
