"use client";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState, memo } from "react";
import type { Adjuster } from "@/core/records/machine";
import { Card } from "@/ui/card";
import { KeyCap } from "@/ui/key-cap";

interface WorkCardProps {
  work: Adjuster[];
  chosenId: string;
  onChoose(id: string): void;
  onDone(): void;
  /** Whether the key for turning says it too. */
  withKey: boolean;
  /** Why it is work and no turn. */
  says: string;
}

/** What was done to rubber, bearings and heads, where no screw helps. */
export const WorkCard = memo(function WorkCard({
  work,
  chosenId,
  onChoose,
  onDone,
  withKey,
  says,
}: WorkCardProps) {
  return (
    <Card title="What was done" tone="oxide">
      <Typography sx={{ color: "text.secondary", mb: 1 }}>
        {says} Say what was cleaned or replaced, then measure again.
      </Typography>
      <TextField
        select
        size="small"
        fullWidth
        label="Work"
        value={chosenId}
        onChange={(e) => onChoose(e.target.value)}
      >
        {work.map(({ id, name }) => (
          <MenuItem key={id} value={id}>
            {name}
          </MenuItem>
        ))}
      </TextField>
      <Button variant="contained" fullWidth sx={{ mt: 1 }} onClick={onDone} disabled={work.length === 0}>
        I did this{withKey && <KeyCap>T</KeyCap>}
      </Button>
    </Card>
  );
});

/** Remembers which work is chosen. */
export function useChosenWork(work: Adjuster[]): [string, (id: string) => void] {
  const [chosen, choose] = useState<string | null>(null);
  const known = work.some(({ id }) => id === chosen) ? chosen : null;
  return [known ?? work[0]?.id ?? "", choose];
}
