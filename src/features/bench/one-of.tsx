import Box from "@mui/material/Box";
import Button from "@mui/material/Button";

/** A row of buttons of which one is down: what a station's figures are told of. */
export function OneOf<T extends string>({
  label,
  choices,
  chosen,
  onChoose,
}: {
  label: string;
  /** Its words, by what is chosen; the first stands for nothing said. */
  choices: ReadonlyArray<[T | undefined, string]>;
  chosen: T | undefined;
  onChoose(choice: T | undefined): void;
}) {
  return (
    <Box role="group" aria-label={label} sx={{ display: "flex", gap: 0.75, flexWrap: "wrap" }}>
      {choices.map(([choice, words]) => (
        <Button
          key={words}
          size="small"
          variant={chosen === choice ? "contained" : "outlined"}
          color={chosen === choice ? "primary" : "inherit"}
          aria-pressed={chosen === choice}
          onClick={() => onChoose(choice)}
        >
          {words}
        </Button>
      ))}
    </Box>
  );
}
