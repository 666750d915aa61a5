import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { MEASURING } from "@/core/alignment/registry";
import { TAPE_TYPES } from "@/core/standards/tape-types";
import { FormRow } from "@/ui/form-row";
import type { TypedAdjuster } from "./typed-machine";

/** What an adjuster is for: its station and kind, in one value of a list. */
const USES = new Map(
  MEASURING.flatMap(({ id, adjusters }) => adjusters.map((use) => [`${id} ${use.kind}`, use] as const)),
);

/** What an adjuster acts on, as one chooses it. */
const ACTS_ON = [
  { on: "left", says: "left channel", by: "channel", acts: { channel: "left" } },
  { on: "right", says: "right channel", by: "channel", acts: { channel: "right" } },
  { on: "A", says: "direction A", by: "side", acts: { side: "A" } },
  { on: "B", says: "direction B", by: "side", acts: { side: "B" } },
  { on: "record", says: "record head", by: "head", acts: { head: "record" } },
  { on: "bias", says: "bias", by: "knob", acts: { knob: "bias" } },
  { on: "level", says: "record level", by: "knob", acts: { knob: "level" } },
] as const;
const BOTH = "both";

interface AdjusterRowProps {
  place: number;
  adjuster: TypedAdjuster;
  onChange(adjuster: TypedAdjuster): void;
  onRemove(): void;
}

/** A screw or trimmer, or work that is done, being typed. */
export function AdjusterRow({ place, adjuster, onChange, onRemove }: AdjusterRowProps) {
  const use = USES.get(`${adjuster.sets} ${adjuster.kind}`);
  const choices = ACTS_ON.filter(({ by }) => use?.actsOn.includes(by));
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
          const [sets, kind] = target.value.split(" ") as [string, TypedAdjuster["kind"]];
          onChange({ ...adjuster, sets, kind });
        }}
        sx={{ width: 216 }}
      >
        {[...USES].map(([use, { says }]) => (
          <MenuItem key={use} value={use}>
            {says}
          </MenuItem>
        ))}
      </TextField>
      {text("where", "Where it sits", 280)}
      {choices.length > 0 && (
        <TextField
          select
          size="small"
          label="Acts on"
          value={adjuster.channel ?? adjuster.side ?? adjuster.head ?? adjuster.knob ?? BOTH}
          onChange={({ target }) => {
            const plain = {
              ...adjuster,
              channel: undefined,
              side: undefined,
              head: undefined,
              knob: undefined,
            };
            onChange({ ...plain, ...choices.find(({ on }) => on === target.value)?.acts });
          }}
          sx={{ width: 140 }}
        >
          <MenuItem value={BOTH}>both</MenuItem>
          {choices.map(({ on, says }) => (
            <MenuItem key={on} value={on}>
              {says}
            </MenuItem>
          ))}
        </TextField>
      )}
      {use?.actsOn.includes("tapeType") && (
        <TextField
          select
          size="small"
          label="For tape"
          value={adjuster.tapeType ?? BOTH}
          onChange={({ target }) =>
            onChange({ ...adjuster, tapeType: TAPE_TYPES.find((type) => type === target.value) })
          }
          sx={{ width: 130 }}
        >
          <MenuItem value={BOTH}>every type</MenuItem>
          {TAPE_TYPES.map((type) => (
            <MenuItem key={type} value={type}>
              {type === "open reel" ? type : `type ${type}`}
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
