"use client";
import Button from "@mui/material/Button";
import Box from "@mui/material/Box";
import Popover from "@mui/material/Popover";
import { useEffect, useState } from "react";
import { database } from "@/storage/database";
import { readSettings } from "@/storage/settings";
import { deleteRecordings } from "@/storage/recordings";
import { downloadBlob } from "../job/download";

/** Plays, exports or deletes the sound behind a reading. */
export function EvidenceButton({ recordingId }: { recordingId: string }) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  return (
    <>
      <Button
        size="small"
        color="inherit"
        sx={{ ml: 1, minWidth: 0, fontWeight: 500 }}
        onClick={({ currentTarget }) => setAnchor(currentTarget)}
      >
        Hear it
      </Button>
      <Popover open={anchor !== null} anchorEl={anchor} onClose={() => setAnchor(null)}>
        {anchor && <Evidence recordingId={recordingId} onDone={() => setAnchor(null)} />}
      </Popover>
    </>
  );
}

/** On the output that was chosen; where that is gone, on the system's. */
function playOnChosen(element: HTMLAudioElement | null): void {
  if (!element || !("setSinkId" in element)) return;
  void readSettings()
    .then(({ outputId }) => (outputId ? element.setSinkId(outputId) : undefined))
    .catch(() => undefined);
}

function Evidence({ recordingId, onDone }: { recordingId: string; onDone(): void }) {
  const [sound, setSound] = useState<{ url: string; blob: Blob; name: string } | null | undefined>(undefined);
  useEffect(() => {
    let url: string | null = null;
    let gone = false;
    void database.recordings.get(recordingId).then((recording) => {
      if (gone) return;
      if (!recording) return setSound(null);
      url = URL.createObjectURL(recording.sound);
      setSound({ url, blob: recording.sound, name: `${recording.what} ${recording.at.slice(0, 16)}` });
    });
    return () => {
      gone = true;
      if (url) URL.revokeObjectURL(url);
    };
  }, [recordingId]);
  if (sound === undefined) return <Box sx={{ p: 2 }}>Fetching the sound…</Box>;
  if (sound === null)
    return (
      <Box sx={{ p: 2, maxWidth: 260 }}>
        The sound of this reading was deleted, or stayed in another browser.
      </Box>
    );
  return (
    <Box sx={{ p: 1.5, display: "flex", flexDirection: "column", gap: 1 }}>
      {/* a test tone has no words to caption */}
      <audio ref={playOnChosen} controls src={sound.url} aria-label="Sound of the reading" />
      <Box sx={{ display: "flex", gap: 1 }}>
        <Button variant="outlined" onClick={() => downloadBlob(`${sound.name}.wav`, sound.blob)}>
          Export WAV
        </Button>
        <Button
          color="inherit"
          onClick={() => {
            void deleteRecordings([recordingId]);
            onDone();
          }}
        >
          Delete
        </Button>
      </Box>
    </Box>
  );
}
