import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import { firstIssue } from "@/core/formats/import-error";
import { typedNumber } from "@/core/text/typed-number";
import { spareSchema, SPARE_KINDS, type Spare, type SpareKind } from "@/core/workshop/spare";
import { dropSpare, saveSpare } from "@/storage/spares";
import { Card } from "@/ui/card";

const typedSchema = spareSchema.pick({ name: true, kind: true, count: true, place: true });
const typedOf = (spare: Spare | null) => ({
  name: spare?.name ?? "",
  kind: spare?.kind ?? ("belt" as SpareKind),
  count: String(spare?.count ?? 1),
  place: spare?.place ?? "",
});

/** The label of a drawer: a new one, or the one that is open. */
export function SpareForm({ spare, onDone }: { spare: Spare | null; onDone(): void }) {
  const [typed, setTyped] = useState(() => typedOf(spare));
  const [wrong, setWrong] = useState<string | null>(null);
  const set = (fields: Partial<typeof typed>) => setTyped({ ...typed, ...fields });
  const save = async () => {
    const parsed = typedSchema.safeParse({ ...typed, count: typedNumber(typed.count) });
    if (!parsed.success) return setWrong(firstIssue(parsed.error));
    setWrong(null);
    await saveSpare({ ...parsed.data, id: spare?.id });
    setTyped(typedOf(null));
    onDone();
  };
  const text = (key: "name" | "count" | "place", label: string, most: number) => (
    <TextField
      fullWidth
      margin="dense"
      label={label}
      value={typed[key]}
      onChange={({ target }) => set({ [key]: target.value.slice(0, most) })}
    />
  );
  return (
    <Card title={spare ? "This drawer" : "A new drawer"}>
      <Box component="form" noValidate onSubmit={(event) => (event.preventDefault(), void save())}>
        {text("name", "What, with its size", 120)}
        <TextField
          select
          fullWidth
          margin="dense"
          label="Kind"
          value={typed.kind}
          onChange={({ target }) => set({ kind: target.value as SpareKind })}
        >
          {SPARE_KINDS.map((kind) => (
            <MenuItem key={kind} value={kind}>
              {kind}
            </MenuItem>
          ))}
        </TextField>
        {text("count", "How many", 12)}
        {text("place", "Where it lies", 80)}
        {wrong && (
          <Box role="alert" sx={{ color: "error.main", fontWeight: 600, my: 0.5 }}>
            {wrong}
          </Box>
        )}
        <Box sx={{ display: "flex", gap: 1, mt: 1, flexWrap: "wrap" }}>
          <Button type="submit" variant="contained">
            {spare ? "Change it" : "Into the box"}
          </Button>
          {spare && (
            <>
              <Button color="inherit" onClick={onDone}>
                Leave it
              </Button>
              <Button color="inherit" onClick={() => void dropSpare(spare.id).then(onDone)}>
                Drawer away
              </Button>
            </>
          )}
        </Box>
      </Box>
    </Card>
  );
}
