"use client";
import Alert from "@mui/material/Alert";
import { useEffect, useState } from "react";
import { lastBackup } from "@/storage/backup/last-backup";
import { keptFolder } from "@/storage/backup/kept-folder";
import { writeFolder } from "./write-folder";

const EVERY_MS = 15 * 60 * 1000;
/** What is to be seen comes first. */
const AFTER_OPENING_MS = 2000;

/** Keeps the chosen folder up to date while a page is open: when it opens, and every quarter of an hour in which something was logged. */
export function FolderKeeper() {
  const [trouble, setTrouble] = useState<string | null>(null);
  useEffect(() => {
    let ended = false;
    const keep = async () => {
      try {
        const folder = await keptFolder();
        if (ended || folder?.access !== "granted") return;
        const last = await lastBackup();
        if (ended || (last !== null && !last.since)) return;
        await writeFolder(folder.handle);
        if (!ended) setTrouble(null);
      } catch (error) {
        if (!ended) setTrouble((error as Error).message);
      }
    };
    const first = setTimeout(() => void keep(), AFTER_OPENING_MS);
    const timer = setInterval(() => void keep(), EVERY_MS);
    return () => {
      ended = true;
      clearTimeout(first);
      clearInterval(timer);
    };
  }, []);
  return trouble === null ? null : (
    <Alert severity="warning" onClose={() => setTrouble(null)}>
      {trouble} Nothing is lost here; the folder is behind until then.
    </Alert>
  );
}
