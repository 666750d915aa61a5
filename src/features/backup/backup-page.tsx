"use client";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import LinearProgress from "@mui/material/LinearProgress";
import { useLiveQuery } from "dexie-react-hooks";
import { lastBackup } from "@/storage/backup/last-backup";
import { Card } from "@/ui/card";
import { FileButton } from "@/ui/file-button";
import { Notice } from "@/ui/notice";
import { PageFrame } from "../shell/page-frame";
import { backupAge } from "./backup-age";
import { FolderCard } from "./folder-card";
import { RestoreCard } from "./restore-card";
import { RoomCard } from "./room-card";
import { useBackup } from "./use-backup";

const DOING = {
  writing: "Writing the archive",
  reading: "Reading the archive and checking every record of it",
  restoring: "Bringing it back",
} as const;

/** Everything in one archive and back, and what takes how much room. */
export function BackupPage() {
  const { busy, opened, outcome, write, open, restore, close, hush } = useBackup();
  const last = useLiveQuery(lastBackup, []);
  return (
    <PageFrame title="Backup">
      <Notice outcome={outcome} onClose={hush} />
      <Box
        sx={{ display: "grid", gridTemplateColumns: { xs: "1fr", md: "repeat(2, minmax(0, 1fr))" }, gap: 2 }}
      >
        <Box sx={{ display: "grid", gap: 2, alignContent: "start" }}>
          <Card title="Everything in one archive" tone="oxide">
            <Box sx={{ fontSize: 26, fontWeight: 700, lineHeight: 1.25 }}>
              {last === undefined ? " " : backupAge(last, new Date())}
            </Box>
            <Box sx={{ color: "text.secondary", mt: 1, mb: 2 }}>
              Jobs with their readings and turns, machines, tapes, blank tapes, sequences, calibrations,
              settings, what is half typed, sounds and practice tapes. All of it is in this browser only: keep
              the archive on another disk.
            </Box>
            <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap" }}>
              <Button variant="contained" size="large" disabled={busy !== null} onClick={() => void write()}>
                Back up everything
              </Button>
              <FileButton
                label="Backup file"
                accept=".zip,application/zip"
                variant="outlined"
                onFile={(file) => void open(file)}
              >
                Open a backup…
              </FileButton>
            </Box>
            {busy && (
              <Box role="status" sx={{ mt: 2 }}>
                {DOING[busy.what]}…
                <LinearProgress
                  variant="determinate"
                  value={100 * busy.share}
                  aria-label={DOING[busy.what]}
                />
              </Box>
            )}
          </Card>
          <FolderCard />
        </Box>
        <RoomCard />
      </Box>
      {opened && (
        <Box sx={{ mt: 2 }}>
          <RestoreCard
            backup={opened}
            busy={busy !== null}
            onRestore={(way) => void restore(way)}
            onClose={close}
          />
        </Box>
      )}
    </PageFrame>
  );
}
