"use client";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { useLiveQuery } from "dexie-react-hooks";
import { useRef, useState } from "react";
import { database } from "@/storage/database";
import { FilePicker } from "@/ui/file-picker";
import { PageFrame } from "../shell/page-frame";
import { RecordingCard } from "./recording-card";
import { useRecordings } from "./use-recordings";

/** Drop recordings, get every measurement that makes sense for them. */
export function ListenPage() {
  const tapes = useLiveQuery(() => database.tapes.orderBy("name").toArray(), []);
  const recordings = useRecordings();
  const [tapeId, setTapeId] = useState("");
  const [over, setOver] = useState(false);
  const picker = useRef<HTMLInputElement>(null);
  const tapeOf = (id: string) => tapes?.find((tape) => tape.id === id) ?? null;
  const add = (files: File[]) => {
    if (files.length > 0) recordings.add(files, tapeOf(tapeId));
  };
  return (
    <PageFrame title="Listen">
      <Box
        onDragOver={(event) => {
          event.preventDefault();
          setOver(true);
        }}
        onDragLeave={() => setOver(false)}
        onDrop={(event) => {
          event.preventDefault();
          setOver(false);
          add([...event.dataTransfer.files]);
        }}
        sx={{
          border: 2,
          borderStyle: "dashed",
          borderColor: over ? "primary.main" : "divider",
          p: recordings.files.length > 0 ? 2 : 5,
          mb: 2,
          display: "flex",
          alignItems: "center",
          gap: 2,
          flexWrap: "wrap",
        }}
      >
        <Box sx={{ flex: 1, minWidth: 260 }}>
          <Box sx={{ fontSize: 20, fontWeight: 700 }}>Drop recordings here, one or many.</Box>
          <Box sx={{ color: "text.secondary", lineHeight: 1.4 }}>
            WAV and FLAC of any length; levels, hum, speed, wow and flutter, band by band when the tape is
            known.
          </Box>
        </Box>
        <TextField
          select
          size="small"
          label="Tape that was played"
          value={tapeOf(tapeId) ? tapeId : ""}
          onChange={(event) => setTapeId(event.target.value)}
          sx={{ width: 320 }}
          slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}
        >
          <MenuItem value="">not known, or a recorded test sequence</MenuItem>
          {tapes?.map(({ id, name }) => (
            <MenuItem key={id} value={id}>
              {name}
            </MenuItem>
          ))}
        </TextField>
        <Button variant="contained" onClick={() => picker.current?.click()}>
          Choose files
        </Button>
        <FilePicker label="Recordings" accept=".wav,.flac,audio/*" picker={picker} onFiles={add} multiple />
      </Box>
      {recordings.files.map((one) => (
        <RecordingCard
          key={one.id}
          heard={one}
          tapes={tapes ?? []}
          onTape={(id) => recordings.again(one, tapeOf(id))}
          onCancel={() => recordings.cancel(one.id)}
          onRemove={() => recordings.remove(one.id)}
        />
      ))}
    </PageFrame>
  );
}
