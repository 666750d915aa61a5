"use client";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import { Link } from "@/ui/link";
import type { SignalReport } from "@/core/measure/signal-findings";
import { SignalCheckTable } from "../sound/signal-check-table";
import { SideCheck } from "../sound/side-check";
import type { ListenerState } from "./listening/use-listener";

interface SignalCheckDialogProps {
  listener: ListenerState;
  report: SignalReport | null;
  open: boolean;
  onClose(): void;
}

/** Everything that is known of the signal, in full. */
export function SignalCheckDialog({ listener, report, open, onClose }: SignalCheckDialogProps) {
  const card = listener.kind === "sound card" ? listener.card : null;
  return (
    <Dialog open={open} onClose={onClose} maxWidth="md" fullWidth>
      <DialogTitle>Signal check</DialogTitle>
      <DialogContent>
        {(listener.live?.tapeDoubt ?? listener.heard?.problems[0]) && (
          <Alert severity="warning" sx={{ mb: 1.5 }}>
            {listener.live?.tapeDoubt ?? listener.heard?.problems[0]}
          </Alert>
        )}
        {report ? (
          <SignalCheckTable report={report} card={card} />
        ) : (
          <Alert severity="info">Start the sound card or the practice machine first.</Alert>
        )}
        {report && report.channels.length > 1 && <SideCheck findSides={listener.findSides} />}
      </DialogContent>
      <DialogActions>
        <Box sx={{ flex: 1 }} />
        <Button color="inherit" component={Link} href="/settings">
          Sound card and calibration
        </Button>
        <Button variant="contained" onClick={onClose}>
          Close
        </Button>
      </DialogActions>
    </Dialog>
  );
}
