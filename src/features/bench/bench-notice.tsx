import Alert from "@mui/material/Alert";
import Button from "@mui/material/Button";

interface BenchNoticeProps {
  notice: string | null;
  /** What can be done about it at once. */
  action: { words: string; onPress(): void } | null;
  /** Null for what does not go away by being closed. */
  onClose: (() => void) | null;
}

/** What went wrong, and what to do about it. */
export function BenchNotice({ notice, action, onClose }: BenchNoticeProps) {
  if (!notice) return null;
  return (
    <Alert
      severity="warning"
      sx={{ mx: 2.5 }}
      action={
        action && (
          <Button color="inherit" onClick={action.onPress}>
            {action.words}
          </Button>
        )
      }
      onClose={onClose ?? undefined}
    >
      {notice}
    </Alert>
  );
}
