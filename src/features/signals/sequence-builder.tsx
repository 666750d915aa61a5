"use client";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { FormRow } from "@/ui/form-row";
import { segmentSchema, sequenceSchema, type SegmentKind, type Sequence } from "@/core/signals/sequence";
import { BandStrip } from "@/ui/band-strip";
import { EditorForm } from "../editor-form";
import { useKeptForm } from "../use-kept-form";
import { sequencePieces } from "./sequence-pieces";
import { fieldsOf, KIND_NAMES, NEW_SEGMENTS, textsOf, typed, type TypedSegment } from "./typed-segment";

interface SequenceBuilderProps {
  sequence: Sequence;
  onSave(sequence: Sequence): void;
  onCancel(): void;
}

interface Form {
  name: string;
  description: string;
  leader: string;
  gap: string;
  marked: boolean;
  segments: TypedSegment[];
}

/** Build a sequence piece by piece; what is typed is kept until it is saved or thrown away. */
export function SequenceBuilder({ sequence, onSave, onCancel }: SequenceBuilderProps) {
  const { form, change, leave, oldDraft } = useKeptForm<Form>(`sequence-${sequence.id}`, () => ({
    name: sequence.name,
    description: sequence.description,
    leader: String(sequence.leaderSeconds),
    gap: String(sequence.gapSeconds),
    marked: sequence.marked,
    segments: sequence.segments.map(textsOf),
  }));
  const changeSegment = (i: number, segment: TypedSegment) =>
    change({ segments: form.segments.map((one, j) => (j === i ? segment : one)) });
  const move = (i: number, by: number) => {
    const segments = [...form.segments];
    const [one] = segments.splice(i, 1);
    segments.splice(i + by, 0, one);
    change({ segments });
  };

  const parsed = sequenceSchema.safeParse({
    ...sequence,
    name: form.name,
    description: form.description,
    leaderSeconds: Number(form.leader),
    gapSeconds: Number(form.gap),
    marked: form.marked,
    segments: form.segments.map(typed),
  });
  return (
    <EditorForm
      what="sequence"
      parsed={parsed}
      oldDraft={oldDraft}
      leave={leave}
      onSave={onSave}
      onCancel={onCancel}
    >
      {(asked) => (
        <>
          <TextField
            label="Name"
            value={form.name}
            onChange={({ target }) => change({ name: target.value })}
            error={asked && form.name.trim() === ""}
          />
          <TextField
            label="What it is for"
            value={form.description}
            onChange={({ target }) => change({ description: target.value })}
            multiline
          />
          <Box sx={{ display: "flex", gap: 2, flexWrap: "wrap", alignItems: "center" }}>
            <TextField
              size="small"
              label="Leader, s"
              value={form.leader}
              onChange={({ target }) => change({ leader: target.value })}
              sx={{ width: 110 }}
            />
            <TextField
              size="small"
              label="Gap after each, s"
              value={form.gap}
              onChange={({ target }) => change({ gap: target.value })}
              sx={{ width: 140 }}
            />
            <FormControlLabel
              control={<Checkbox checked={form.marked} onChange={(_, marked) => change({ marked })} />}
              label="A mark before each segment, to find it in a recording"
            />
          </Box>
          {parsed.success && <BandStrip label="The sequence so far" pieces={sequencePieces(parsed.data)} />}
          <Box component="ol" aria-label="Segments" sx={{ listStyle: "none", m: 0, p: 0 }}>
            {form.segments.map((segment, i) => (
              <SegmentRow
                key={i}
                place={i}
                segment={segment}
                last={i === form.segments.length - 1}
                onChange={(changed) => changeSegment(i, changed)}
                onMove={(by) => move(i, by)}
                onRemove={() => change({ segments: form.segments.filter((_, j) => j !== i) })}
              />
            ))}
          </Box>
          <Box>
            <Button
              variant="outlined"
              onClick={() =>
                change({ segments: [...form.segments, form.segments.at(-1) ?? textsOf(NEW_SEGMENTS.sine)] })
              }
            >
              Add a segment
            </Button>
          </Box>
        </>
      )}
    </EditorForm>
  );
}

interface SegmentRowProps {
  place: number;
  segment: TypedSegment;
  last: boolean;
  onChange(segment: TypedSegment): void;
  onMove(by: number): void;
  onRemove(): void;
}

function SegmentRow({ place, segment, last, onChange, onMove, onRemove }: SegmentRowProps) {
  const wrong = segmentSchema.safeParse(typed(segment));
  const wrongField = wrong.success ? null : wrong.error.issues[0].path[0];
  return (
    <FormRow label={`Segment ${place + 1}`}>
      <Box sx={{ width: 24, fontWeight: 700 }}>{place + 1}</Box>
      <TextField
        select
        size="small"
        label="Kind"
        value={segment.kind}
        onChange={({ target }) => onChange(textsOf(NEW_SEGMENTS[target.value as SegmentKind]))}
        sx={{ width: 150 }}
      >
        {Object.entries(KIND_NAMES).map(([kind, name]) => (
          <MenuItem key={kind} value={kind}>
            {name}
          </MenuItem>
        ))}
      </TextField>
      {fieldsOf(segment.kind).map(({ key, label, wide }) => (
        <TextField
          key={key}
          size="small"
          label={label}
          value={segment.texts[key] ?? ""}
          error={wrongField === key}
          onChange={({ target }) =>
            onChange({ ...segment, texts: { ...segment.texts, [key]: target.value } })
          }
          sx={{ width: wide ? 260 : 108 }}
        />
      ))}
      <TextField
        select
        size="small"
        label="On"
        value={segment.channels}
        onChange={({ target }) =>
          onChange({ ...segment, channels: target.value as TypedSegment["channels"] })
        }
        sx={{ width: 92 }}
      >
        {["both", "left", "right"].map((side) => (
          <MenuItem key={side} value={side}>
            {side}
          </MenuItem>
        ))}
      </TextField>
      <Button color="inherit" size="small" disabled={place === 0} onClick={() => onMove(-1)}>
        Up
      </Button>
      <Button color="inherit" size="small" disabled={last} onClick={() => onMove(1)}>
        Down
      </Button>
      <Button color="inherit" size="small" onClick={onRemove}>
        Remove
      </Button>
    </FormRow>
  );
}
