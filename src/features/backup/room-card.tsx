"use client";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useLiveQuery } from "dexie-react-hooks";
import { Link } from "@/ui/link";
import { useEffect, useState } from "react";
import { letGoOfPracticeTapes, roomTaken } from "@/storage/room";
import { Card } from "@/ui/card";

const megabytes = (bytes: number): string => `${(bytes / 1e6).toFixed(1)} MB`;

/** What takes how much room, what can be let go, and whether the browser may clear it by itself. */
export function RoomCard() {
  const taken = useLiveQuery(roomTaken, []);
  const [estimate, setEstimate] = useState<StorageEstimate | null>(null);
  const [kept, setKept] = useState<boolean | null>(null);
  useEffect(() => {
    // browsers know neither on pages that they do not trust
    void navigator.storage?.estimate().then(setEstimate);
    void navigator.storage?.persisted().then(setKept);
  }, [taken]);
  const { usage, quota } = estimate ?? {};
  return (
    <Card title="Room in this browser">
      {usage !== undefined && quota !== undefined && (
        <Box sx={{ mb: 1 }}>
          {megabytes(usage)} of the {megabytes(quota)} that the browser allows.
        </Box>
      )}
      <Box sx={{ display: "grid", gridTemplateColumns: "1fr auto auto", gap: 1, alignItems: "center", m: 0 }}>
        <Box>Sounds kept with readings</Box>
        <Box>{taken ? `${taken.sounds.count}, ${megabytes(taken.sounds.bytes)}` : "…"}</Box>
        <Button size="small" color="inherit" component={Link} href="/settings">
          Let some go
        </Button>
        <Box>Practice tapes that were recorded on</Box>
        <Box>{taken ? `${taken.practice.seconds} s, ${megabytes(taken.practice.bytes)}` : "…"}</Box>
        <Button
          size="small"
          color="inherit"
          disabled={!taken || taken.practice.seconds === 0}
          onClick={() => void letGoOfPracticeTapes()}
        >
          Erase them
        </Button>
        <Box>Readings, turns and work</Box>
        <Box>{taken?.entries ?? "…"}</Box>
        <span />
      </Box>
      <Box sx={{ mt: 1.5 }}>
        {kept === true && "The browser keeps it until you clear it."}
        {kept === false && (
          <>
            When its disk is full the browser may clear all of it.{" "}
            <Button
              size="small"
              variant="outlined"
              color="inherit"
              onClick={() => void navigator.storage.persist().then(setKept)}
            >
              Ask it to keep it
            </Button>
          </>
        )}
      </Box>
    </Card>
  );
}
