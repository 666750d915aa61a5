"use client";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useLiveQuery } from "dexie-react-hooks";
import { useState, useSyncExternalStore } from "react";
import {
  KEPT_DAYS,
  keepFolder,
  keptFolder,
  letGoOfFolder,
  type FolderHandle,
} from "@/storage/backup/kept-folder";
import { Card } from "@/ui/card";
import { Notice, type Outcome } from "@/ui/notice";
import { writeFolder } from "./write-folder";

/** What browsers that let pages write to folders add to the window. */
type Picks = { showDirectoryPicker?: (how: { mode: "readwrite" }) => Promise<FolderHandle> };

const never = () => () => undefined;

/** A folder on another disk that is kept up to date by itself, where the browser can. */
export function FolderCard() {
  const can = useSyncExternalStore(
    never,
    () => (window as Picks).showDirectoryPicker !== undefined,
    () => true,
  );
  const [asked, setAsked] = useState(0);
  const folder = useLiveQuery(keptFolder, [asked]);
  const [writing, setWriting] = useState(false);
  const [outcome, setOutcome] = useState<Outcome | null>(null);

  const write = async (handle: FolderHandle) => {
    setWriting(true);
    setOutcome(null);
    try {
      const written = await writeFolder(handle);
      setOutcome({
        severity: "success",
        text: written
          ? `Everything is in the folder ${handle.name}.`
          : `Another page is writing to ${handle.name} just now.`,
      });
    } catch (error) {
      setOutcome({ severity: "error", text: (error as Error).message });
    } finally {
      setWriting(false);
    }
  };
  const choose = async () => {
    const picks = (window as Picks).showDirectoryPicker;
    // whoever closes the list of folders has chosen none
    const handle = await picks?.({ mode: "readwrite" }).catch(() => null);
    if (!handle) return;
    await keepFolder(handle);
    await write(handle);
  };
  const allow = async (handle: FolderHandle) => {
    const access = await handle.requestPermission({ mode: "readwrite" });
    setAsked((times) => times + 1);
    if (access === "granted") await write(handle);
  };

  return (
    <Card title="A folder that is kept up to date">
      <Notice outcome={outcome} onClose={() => setOutcome(null)} />
      {!can && <Box>This browser lets no page write to a folder: back up by hand.</Box>}
      {can && folder === null && (
        <>
          <Box sx={{ color: "text.secondary", mb: 1.5 }}>
            On another disk, best. While a page is open everything is written there each quarter of an hour in
            which something was logged; the archives of the last {KEPT_DAYS} days stay.
          </Box>
          <Button variant="outlined" size="large" onClick={() => void choose()}>
            Choose a folder…
          </Button>
        </>
      )}
      {can && folder && (
        <>
          <Box sx={{ mb: 1.5 }}>
            <b>{folder.handle.name}</b>
            {folder.access === "granted"
              ? ": written by itself while a page is open, each quarter of an hour in which something was logged."
              : ": the browser wants to be asked again before it is written to."}
          </Box>
          <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap" }}>
            {folder.access === "granted" ? (
              <Button variant="outlined" disabled={writing} onClick={() => void write(folder.handle)}>
                {writing ? "Writing…" : "Write it now"}
              </Button>
            ) : (
              <Button variant="contained" onClick={() => void allow(folder.handle)}>
                Allow it again
              </Button>
            )}
            <Button color="inherit" onClick={() => void choose()}>
              Another folder…
            </Button>
            <Button color="inherit" onClick={() => void letGoOfFolder()}>
              Let it go
            </Button>
          </Box>
        </>
      )}
    </Card>
  );
}
