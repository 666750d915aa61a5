"use client";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useEffect, useSyncExternalStore } from "react";
import { writes } from "@/storage/kept-writes";
import { storageWatch, type StorageLoss } from "@/storage/storage-watch";

const LOSSES: Record<StorageLoss, string> = {
  deleted:
    "The storage of this page was deleted, in the browser's settings or by another page. Nothing that was logged is there any more: load this page anew, then bring jobs back from what was exported.",
  "newer version":
    "Another page runs a newer Unzel, which took the storage over. Load this page anew; what was logged is there.",
};

const none = () => null;

/** What could not be stored yet, and what happened to the storage: over every page, until it is mended. */
export function StorageAlerts() {
  const waiting = useSyncExternalStore(writes.subscribe, writes.now, none);
  const loss = useSyncExternalStore(storageWatch.subscribe, storageWatch.now, none);
  const waits = waiting !== null;
  useEffect(() => {
    if (!waits) return;
    const ask = (event: BeforeUnloadEvent) => event.preventDefault();
    window.addEventListener("beforeunload", ask);
    return () => window.removeEventListener("beforeunload", ask);
  }, [waits]);
  if (!waiting && !loss) return null;
  return (
    <Box
      sx={{
        position: "fixed",
        left: 0,
        right: 0,
        bottom: 0,
        zIndex: "snackbar",
        p: 1.5,
        displayPrint: "none",
      }}
    >
      {waiting && (
        <Alert
          severity="error"
          variant="filled"
          action={
            <Button color="inherit" onClick={writes.again}>
              Try again
            </Button>
          }
        >
          {waiting.count === 1
            ? `This could not be stored yet: ${waiting.what}.`
            : `${waiting.count} entries could not be stored yet, ${waiting.what} first.`}{" "}
          Why: {waiting.why ?? "the storage of this browser does not answer"}. Nothing is lost while this page
          stays open: it is tried again every two seconds.
          <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1, mt: 0.5 }}>
            {waiting.each.map(({ kind, what }) => (
              <Button key={kind} size="small" color="inherit" onClick={() => writes.discard(kind)}>
                Discard {what}
              </Button>
            ))}
          </Box>
        </Alert>
      )}
      {loss && (
        <Alert
          severity="error"
          variant="filled"
          sx={{ mt: waiting ? 1 : 0 }}
          action={
            <Button color="inherit" onClick={() => window.location.reload()}>
              Load anew
            </Button>
          }
        >
          {LOSSES[loss]}
        </Alert>
      )}
    </Box>
  );
}
