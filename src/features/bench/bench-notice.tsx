import Alert from "@mui/material/Alert";
import Button from "@mui/material/Button";

interface BenchNoticeProps {
  notice: string | null;
  /** Offered where the source was lost. */
  onStartAgain?: () => void;
  onClose(): void;
}

/** What went wrong, and what to do about it. */
export function BenchNotice({ notice, onStartAgain, onClose }: BenchNoticeProps) {
  if (!notice) return null;
  return (
    <Alert
      severity="warning"
      sx={{ mx: 2.5 }}
      action={
        onStartAgain && (
          <Button color="inherit" onClick={onStartAgain}>
            Start again
          </Button>
        )
      }
      onClose={onClose}
    >
      {notice}
    </Alert>
  );
}
