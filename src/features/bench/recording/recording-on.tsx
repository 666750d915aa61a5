import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { useLiveQuery } from "dexie-react-hooks";
import { Link } from "@/ui/link";
import { typeWords } from "@/core/records/blank-tape";
import type { Job } from "@/core/records/job";
import { database } from "@/storage/database";
import { changeBlankTapes } from "@/storage/jobs";
import { KeyCap } from "@/ui/key-cap";

interface RecordingOnProps {
  job: Job;
  chosen: string | undefined;
  onChoose(blankTapeId: string | undefined): void;
}

/** Which blank tape is recorded on; every reading of the record side belongs to one. */
export function RecordingOn({ job, chosen, onChoose }: RecordingOnProps) {
  const library = useLiveQuery(() => database.blanks.orderBy("name").toArray(), []) ?? [];
  const named = job.blankTapes ?? [];
  const others = library.filter(({ id }) => !named.some((one) => one.id === id));
  const typeOf = (id: string) => {
    const blank = library.find((one) => one.id === id);
    return blank ? typeWords(blank) : "";
  };
  const add = async (id: string) => {
    const blank = others.find((one) => one.id === id);
    if (!blank) return;
    await changeBlankTapes(job.id, (tapes) => [
      ...tapes.filter((one) => one.id !== id),
      { id, name: blank.name },
    ]);
    onChoose(id);
  };
  return (
    <Box sx={{ mt: 1 }}>
      <Box sx={{ fontWeight: 600, display: "flex", gap: 1, alignItems: "center" }}>
        Recording on {named.length > 1 && <KeyCap>B</KeyCap>}
      </Box>
      <Box
        role="group"
        aria-label="Recording on"
        sx={{ display: "flex", flexDirection: "column", gap: 0.5, mt: 0.5 }}
      >
        {named.map(({ id, name }) => (
          <Button
            key={id}
            variant={id === chosen ? "contained" : "outlined"}
            color={id === chosen ? "primary" : "inherit"}
            aria-pressed={id === chosen}
            onClick={() => onChoose(id === chosen ? undefined : id)}
            sx={{ justifyContent: "space-between", textAlign: "left", lineHeight: 1.2 }}
          >
            {name}
            <Box component="span" sx={{ fontWeight: 400, pl: 1, whiteSpace: "nowrap" }}>
              {typeOf(id)}
            </Box>
          </Button>
        ))}
      </Box>
      {others.length > 0 && (
        <TextField
          select
          size="small"
          fullWidth
          label="Another blank tape"
          value=""
          onChange={({ target }) => void add(target.value)}
          sx={{ mt: 1 }}
        >
          {others.map((blank) => (
            <MenuItem key={blank.id} value={blank.id}>
              {blank.name}, {typeWords(blank)}
            </MenuItem>
          ))}
        </TextField>
      )}
      {named.length + others.length === 0 && (
        <Button component={Link} href="/tapes/blank" variant="outlined" color="inherit" sx={{ mt: 0.5 }}>
          Enter a blank tape first
        </Button>
      )}
    </Box>
  );
}
