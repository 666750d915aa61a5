import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import { useState } from "react";
import type { Differing, OfferedTable } from "@/storage/offered-records";
import { Notice, type Outcome } from "@/ui/notice";

const WHAT: Record<OfferedTable, string> = {
  machines: "Machine",
  tapes: "Reference tape",
  blanks: "Blank tape",
};
const TAPE_MEANS =
  "Logged readings keep their figures; what is logged from now on uses the tape as chosen here.";
/** What taking it means beyond itself. */
const MEANS: Record<OfferedTable, string> = {
  machines: "Every job of this machine is judged by what is kept here.",
  tapes: TAPE_MEANS,
  blanks: TAPE_MEANS,
};

/** What imported files have otherwise than this browser, until it is decided; with how to show it. */
export function useDiffering() {
  const [offered, offer] = useState<Differing[]>([]);
  const [outcome, setOutcome] = useState<Outcome | null>(null);
  const putAway = (one: Differing) => offer((all) => all.filter((other) => other !== one));
  const take = async (one: Differing, fields: readonly string[]) => {
    try {
      // what reads files comes with the first file
      await (await import("@/storage/offered-records")).takeFromFile(one, fields);
      putAway(one);
      setOutcome({
        severity: "success",
        text: `${one.record.name}: ${fields.map(inWords).join(", ")} taken from the file.`,
      });
    } catch (error) {
      setOutcome({ severity: "error", text: `${one.record.name}: ${(error as Error).message}` });
    }
  };
  const offers = (
    <>
      <Notice outcome={outcome} onClose={() => setOutcome(null)} />
      {offered.map((one) => (
        <DifferingOffer
          key={`${one.table} ${one.record.id}`}
          differing={one}
          onTake={(fields) => void take(one, fields)}
          onKeep={() => putAway(one)}
        />
      ))}
    </>
  );
  return { offer, offers };
}

interface DifferingOfferProps {
  differing: Differing;
  onTake(fields: string[]): void;
  onKeep(): void;
}

/** A machine or tape that an imported file has otherwise than this browser, item by item. */
function DifferingOffer({ differing: { table, record, fields }, onTake, onKeep }: DifferingOfferProps) {
  const [chosen, choose] = useState<string[]>([]);
  return (
    <Alert severity="info" sx={{ mb: 2 }} role="group" aria-label={`${record.name} differs in the file`}>
      {WHAT[table]} <b>{record.name}</b> is here already and differs in the file. Nothing was changed; choose
      what to take. {MEANS[table]}
      <Box sx={{ display: "flex", flexWrap: "wrap", columnGap: 2 }}>
        {fields.map((field) => (
          <FormControlLabel
            key={field}
            control={
              <Checkbox
                checked={chosen.includes(field)}
                onChange={(_, on) =>
                  choose((before) => [...before.filter((other) => other !== field), ...(on ? [field] : [])])
                }
              />
            }
            label={inWords(field) + sizes(record, field)}
          />
        ))}
      </Box>
      <Button color="inherit" onClick={onKeep}>
        Keep mine
      </Button>
      <Button
        color="inherit"
        variant="outlined"
        disabled={chosen.length === 0}
        onClick={() => onTake(chosen)}
      >
        Take what is ticked
      </Button>
    </Alert>
  );
}

/** How many a list of the file has. */
function sizes(record: object, field: string): string {
  const value: unknown = new Map<string, unknown>(Object.entries(record)).get(field);
  return Array.isArray(value)
    ? ` (${value.length} in the file)`
    : value === undefined
      ? " (not in the file)"
      : "";
}

/** "toleranceClass" as "tolerance class". */
const inWords = (field: string): string => field.replace(/[A-Z]/g, (letter) => ` ${letter.toLowerCase()}`);
