"use client";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { useLiveQuery } from "dexie-react-hooks";
import { useEffect, useState } from "react";
import { deleteRecordings, listRecordings, recordingsToDelete } from "@/storage/recordings";
import { changeSettings, DEFAULT_SETTINGS, readSettings } from "@/storage/settings";
import { Card } from "@/ui/card";
import { EvidenceButton } from "../sound/evidence-button";

const SECONDS = [0, 10, 30, 60, 120];
const AGES = [7, 30, 90, 365];
const SIZES_MB = [0, 100, 500, 2000];

/** How much sound is kept with readings, how much room it takes, and getting rid of it. */
export function EvidenceCard() {
  const settings = useLiveQuery(readSettings, []) ?? DEFAULT_SETTINGS;
  const recordings = useLiveQuery(listRecordings, []);
  const [room, setRoom] = useState<{ usage?: number; quota?: number } | null>(null);
  const count = recordings?.length ?? 0;
  useEffect(() => {
    void navigator.storage?.estimate().then(setRoom);
  }, [count]);
  const bytes = recordings?.reduce((sum, recording) => sum + recording.bytes, 0) ?? 0;
  const remove = (rule: Parameters<typeof recordingsToDelete>[1]) =>
    void deleteRecordings(recordingsToDelete(recordings ?? [], rule));
  return (
    <Box sx={{ mt: 2 }}>
      <Card title="Sound kept with readings">
        <Box sx={{ display: "flex", gap: 2, alignItems: "center", flexWrap: "wrap" }}>
          <TextField
            select
            size="small"
            label="Keep the last"
            value={settings.evidenceSeconds}
            onChange={({ target }) => void changeSettings({ evidenceSeconds: Number(target.value) })}
            sx={{ width: 150 }}
          >
            {SECONDS.map((seconds) => (
              <MenuItem key={seconds} value={seconds}>
                {seconds === 0 ? "nothing" : `${seconds} seconds`}
              </MenuItem>
            ))}
          </TextField>
          <Box sx={{ flex: 1, minWidth: 220 }}>
            {count} recording{count === 1 ? "" : "s"}, {megabytes(bytes)}
            {room?.usage !== undefined && room.quota
              ? `; this site uses ${megabytes(room.usage)} of the ${megabytes(room.quota)} that the browser allows`
              : ""}
          </Box>
          <Choice
            label="Delete older than"
            options={AGES.map((days) => [`${days} days`, days])}
            onChoose={(days) => remove({ olderThanDays: days, now: new Date() })}
          />
          <Choice
            label="Delete the oldest down to"
            options={SIZES_MB.map((size) => [size === 0 ? "nothing" : `${size} MB`, size])}
            onChoose={(size) => remove({ keepBytes: size * 1e6 })}
          />
        </Box>
        <Box
          component="ul"
          aria-label="Recordings"
          tabIndex={0}
          sx={{ listStyle: "none", p: 0, m: 0, mt: 1, maxHeight: 260, overflowY: "auto" }}
        >
          {recordings?.slice(0, 200).map(({ id, at, what, seconds, bytes: size }) => (
            <Box
              component="li"
              key={id}
              sx={{ borderTop: 1, borderColor: "divider", display: "flex", alignItems: "center", gap: 2 }}
            >
              <Box sx={{ width: 150, color: "text.secondary" }}>{at.slice(0, 16).replace("T", " ")}</Box>
              <Box sx={{ flex: 1 }}>{what}</Box>
              <Box sx={{ color: "text.secondary" }}>
                {seconds.toFixed(0)} s, {megabytes(size)}
              </Box>
              <EvidenceButton recordingId={id} />
              <Button size="small" color="inherit" onClick={() => void deleteRecordings([id])}>
                Delete
              </Button>
            </Box>
          ))}
        </Box>
      </Card>
    </Box>
  );
}

interface ChoiceProps {
  label: string;
  options: Array<[string, number]>;
  onChoose(value: number): void;
}

function Choice({ label, options, onChoose }: ChoiceProps) {
  const [value, setValue] = useState(options[0][1]);
  return (
    <Box sx={{ display: "flex", alignItems: "center" }}>
      <TextField
        select
        size="small"
        label={label}
        value={value}
        onChange={({ target }) => setValue(Number(target.value))}
        sx={{ width: 190 }}
      >
        {options.map(([words, option]) => (
          <MenuItem key={option} value={option}>
            {words}
          </MenuItem>
        ))}
      </TextField>
      <Button color="inherit" onClick={() => onChoose(value)}>
        Delete
      </Button>
    </Box>
  );
}

const megabytes = (bytes: number) => `${(bytes / 1e6).toFixed(bytes < 1e7 ? 1 : 0)} MB`;
