import Alert from "@mui/material/Alert";
import Button from "@mui/material/Button";
import type { Differing } from "@/storage/bundles";

const WHAT: Record<Differing["table"], string> = {
  machines: "Machine",
  tapes: "Reference tape",
  blanks: "Blank tape",
};
/** What taking it means beyond itself. */
const MEANS: Record<Differing["table"], string> = {
  machines: "Every job of this machine is judged by what is kept of it.",
  tapes:
    "What was logged keeps the figures it had; what is logged from now on goes by the tape as it is kept.",
  blanks:
    "What was logged keeps the figures it had; what is logged from now on goes by the tape as it is kept.",
};
const MOST_FIELDS = 6;

interface DifferingOfferProps {
  differing: Differing;
  onTake(): void;
  onKeep(): void;
}

/** A machine or tape that an imported file has otherwise than this browser: kept as it is until somebody says so. */
export function DifferingOffer({
  differing: { table, record, fields },
  onTake,
  onKeep,
}: DifferingOfferProps) {
  const named = fields.slice(0, MOST_FIELDS).map(inWords).join(", ");
  return (
    <Alert
      severity="info"
      sx={{ mb: 2 }}
      action={
        <>
          <Button color="inherit" onClick={onKeep}>
            Keep mine
          </Button>
          <Button color="inherit" variant="outlined" onClick={onTake}>
            Take the file’s
          </Button>
        </>
      }
    >
      {WHAT[table]} <b>{record.name}</b> is not the same in the file: {named}
      {fields.length > MOST_FIELDS ? " and more" : ""}. {MEANS[table]}
    </Alert>
  );
}

/** "toleranceClass" as "tolerance class". */
const inWords = (field: string): string => field.replace(/[A-Z]/g, (letter) => ` ${letter.toLowerCase()}`);
