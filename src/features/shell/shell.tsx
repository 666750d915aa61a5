"use client";
import Alert from "@mui/material/Alert";
import CssBaseline from "@mui/material/CssBaseline";
import InitColorSchemeScript from "@mui/material/InitColorSchemeScript";
import { ThemeProvider } from "@mui/material/styles";
import { useEffect, useState, type ReactNode } from "react";
import { database } from "@/storage/database";
import { prepareFirstVisit } from "@/storage/first-visit";
import { storeWaiting } from "@/storage/jobs";
import { theme } from "@/ui/theme";
import { FolderKeeper } from "../backup/folder-keeper";
import { StorageReady } from "./missing-job";
import { StorageAlerts } from "./storage-alerts";
import { Unexpected } from "./unexpected";
import { UpdateOffer } from "./update-offer";

// in the time in which the page is put together; what goes wrong is told by whoever asks it first
if (typeof window !== "undefined") database.open().catch(() => undefined);

interface ShellProps {
  demo: boolean;
  /** Of the page, for the one script that is written into it. */
  nonce?: string;
  children: ReactNode;
}

/** What stands around every page: theme, fonts, and the storage made ready on a first visit. */
export function Shell({ demo, nonce, children }: ShellProps) {
  const [trouble, setTrouble] = useState<string | null>(null);
  const [ready, setReady] = useState(false);
  useEffect(() => {
    prepareFirstVisit(demo)
      .then(storeWaiting)
      .catch((error: Error) => setTrouble(error.message))
      .finally(() => setReady(true));
  }, [demo]);
  return (
    <>
      <InitColorSchemeScript attribute="data-theme" defaultMode="system" nonce={nonce} />
      <ThemeProvider theme={theme} defaultMode="system">
        <CssBaseline />
        {trouble && (
          <Alert severity="error" onClose={() => setTrouble(null)}>
            The storage of this browser could not be made ready: {trouble} Nothing that was stored is lost;
            close private windows or free some disk space, then reload.
          </Alert>
        )}
        <Unexpected />
        <FolderKeeper />
        <StorageReady value={ready}>{children}</StorageReady>
        {ready && <UpdateOffer />}
        <StorageAlerts />
      </ThemeProvider>
    </>
  );
}
