"use client";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useEffect, useState } from "react";
import { keepApplication } from "./keep-application";

/** Keeps the application in this browser, and offers a newer one once it is there: nothing changes by itself. */
export function UpdateOffer() {
  const [takeOver, setTakeOver] = useState<(() => void) | null>(null);
  useEffect(() => keepApplication((take) => setTakeOver(() => take)), []);
  if (!takeOver) return null;
  return (
    <Box
      sx={{
        position: "fixed",
        right: 16,
        bottom: 16,
        zIndex: "snackbar",
        maxWidth: 460,
        displayPrint: "none",
      }}
    >
      <Alert
        severity="info"
        onClose={() => setTakeOver(null)}
        action={
          <Button color="inherit" onClick={takeOver}>
            Load it
          </Button>
        }
      >
        A newer Unzel is here. Load it when nothing is being measured; what was logged stays.
      </Alert>
    </Box>
  );
}
