import Alert from "@mui/material/Alert";

/** How something that was tried came out. */
export interface Outcome {
  severity: "success" | "error";
  text: string;
}

/** Says how something came out until it is closed; nothing while there is nothing to say. */
export function Notice({ outcome, onClose }: { outcome: Outcome | null; onClose(): void }) {
  if (outcome === null) return null;
  return (
    <Alert severity={outcome.severity} onClose={onClose} sx={{ mb: 2 }}>
      {outcome.text}
    </Alert>
  );
}
