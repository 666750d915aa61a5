import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { FormRow } from "@/ui/form-row";
import type { TypedAdjuster } from "./typed-machine";

/** What an adjuster is for. */
const USES = {
  "speed turn": "turned, sets the speed",
  "azimuth turn": "turned, sets azimuth",
  "level turn": "turned, sets playback level",
  "response turn": "turned, playback equaliser",
  "flutter work": "work, against flutter",
  "response work": "work, at the head",
} as const;

/** What an adjuster acts on, as one chooses it. */
const ACTS_ON = {
  both: {},
  left: { channel: "left" },
  right: { channel: "right" },
  A: { side: "A" },
  B: { side: "B" },
  record: { head: "record" },
} as const;
const ACTS_WORDS = {
  both: "both",
  left: "left channel",
  right: "right channel",
  A: "direction A",
  B: "direction B",
  record: "record head",
};

interface AdjusterRowProps {
  place: number;
  adjuster: TypedAdjuster;
  onChange(adjuster: TypedAdjuster): void;
  onRemove(): void;
}

/** A screw or trimmer, or work that is done, being typed. */
export function AdjusterRow({ place, adjuster, onChange, onRemove }: AdjusterRowProps) {
  const text = (key: "name" | "where" | "speeds", label: string, width: number) => (
    <TextField
      size="small"
      label={label}
      value={adjuster[key]}
      onChange={({ target }) => onChange({ ...adjuster, [key]: target.value })}
      sx={{ width }}
    />
  );
  return (
    <FormRow label={`Adjuster ${place + 1}`}>
      {text("name", "Adjuster", 190)}
      <TextField
        select
        size="small"
        label="What it is"
        value={`${adjuster.sets} ${adjuster.kind}`}
        onChange={({ target }) => {
          const [sets, kind] = target.value.split(" ") as [TypedAdjuster["sets"], TypedAdjuster["kind"]];
          onChange({ ...adjuster, sets, kind });
        }}
        sx={{ width: 216 }}
      >
        {Object.entries(USES).map(([use, says]) => (
          <MenuItem key={use} value={use}>
            {says}
          </MenuItem>
        ))}
      </TextField>
      {text("where", "Where it sits", 280)}
      {adjuster.kind === "turn" && adjuster.sets !== "speed" && (
        <TextField
          select
          size="small"
          label="Acts on"
          value={adjuster.channel ?? adjuster.side ?? adjuster.head ?? "both"}
          onChange={({ target }) => {
            const plain = { ...adjuster, channel: undefined, side: undefined, head: undefined };
            onChange({ ...plain, ...ACTS_ON[target.value as keyof typeof ACTS_ON] });
          }}
          sx={{ width: 140 }}
        >
          {Object.entries(ACTS_WORDS).map(([on, says]) => (
            <MenuItem key={on} value={on}>
              {says}
            </MenuItem>
          ))}
        </TextField>
      )}
      {adjuster.kind === "turn" && text("speeds", "Only at, cm/s", 130)}
      <Button color="inherit" size="small" onClick={onRemove} sx={{ ml: "auto" }}>
        Remove
      </Button>
    </FormRow>
  );
}
