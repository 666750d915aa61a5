import Alert from "@mui/material/Alert";
import Button from "@mui/material/Button";
import type { ImportPreview } from "@/storage/bundles";

interface UnsignedFileProps {
  name: string;
  preview: ImportPreview;
  onImport(): void;
  onCancel(): void;
}

/** A job file without a checksum: what it would add, before it does. */
export function UnsignedFile({ name, preview, onImport, onCancel }: UnsignedFileProps) {
  const { jobNumbers, newReadings, newAdjustments } = preview;
  return (
    <Alert
      severity="warning"
      sx={{ mb: 2 }}
      action={
        <>
          <Button color="inherit" onClick={onCancel}>
            Cancel
          </Button>
          <Button color="inherit" variant="outlined" onClick={onImport}>
            Import it
          </Button>
        </>
      }
    >
      {name} has no checksum: it may have been changed since it was exported. It would add {newReadings}{" "}
      readings and {newAdjustments} turns to job {jobNumbers.join(", ")}. Nothing was imported yet.
    </Alert>
  );
}
