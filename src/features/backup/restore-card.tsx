import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableHead from "@mui/material/TableHead";
import TableRow from "@mui/material/TableRow";
import { useState } from "react";
import type { Change, RestoreWay } from "@/storage/backup/backup";
import { BACKED_UP, type Meeting } from "@/storage/backup/backup-tables";
import { Card } from "@/ui/card";
import type { OpenedBackup } from "./use-backup";

interface RestoreCardProps {
  backup: OpenedBackup;
  busy: boolean;
  onRestore(way: RestoreWay): void;
  onClose(): void;
}

const STAYS: Record<Meeting, string> = {
  refuse: "refuses it",
  later: "the later stays",
  mine: "what is here stays",
};

const sum = (changes: Change[], what: "added" | "here"): number =>
  changes.reduce((total, change) => total + change[what], 0);

/** What a backup would change, before it does. */
export function RestoreCard({ backup, busy, onRestore, onClose }: RestoreCardProps) {
  const [sure, setSure] = useState(false);
  // what Unzel notes for itself is nobody's concern
  const shown = backup.changes.filter(
    ({ table, added, same, other, here }) => table !== "flags" && added + same + other + here > 0,
  );
  const [added, gone] = [sum(shown, "added"), sum(shown, "here")];
  const others = shown.some(({ other }) => other > 0);
  const clash = shown.filter(({ table, other }) => BACKED_UP[table].meeting === "refuse" && other > 0);
  return (
    <Card title={`${backup.name}, made on ${backup.at.slice(0, 16).replace("T", " at ")} UTC`}>
      <Table size="small" aria-label="What the backup would change">
        <TableHead>
          <TableRow>
            <TableCell />
            <TableCell align="right">only in the backup</TableCell>
            <TableCell align="right">in both, alike</TableCell>
            <TableCell align="right">in both, not alike</TableCell>
            <TableCell align="right">only here</TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {shown.map(({ table, added: more, same, other, here }) => (
            <TableRow key={table}>
              <TableCell component="th" scope="row">
                {BACKED_UP[table].name}
              </TableCell>
              <TableCell align="right">{more || "–"}</TableCell>
              <TableCell align="right">{same || "–"}</TableCell>
              <TableCell align="right">
                {other ? `${other}: ${STAYS[BACKED_UP[table].meeting]}` : "–"}
              </TableCell>
              <TableCell align="right">{here || "–"}</TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
      {backup.aside.length > 0 && (
        <Box sx={{ mt: 1 }}>
          <Box sx={{ color: "warning.main", fontWeight: 600 }}>
            {backup.aside.length === 1 ? "One record" : `${backup.aside.length} records`} of this backup
            cannot be used and will be left out; keep the file.
          </Box>
          <Box component="ul" sx={{ my: 0.5, maxHeight: 160, overflowY: "auto" }} tabIndex={0}>
            {backup.aside.map((one) => (
              <li key={one}>{one}</li>
            ))}
          </Box>
        </Box>
      )}
      {clash.length > 0 && (
        <Box sx={{ color: "error.main", fontWeight: 600, mt: 1 }}>
          What was logged stands here with another content: it cannot be added. Delete those jobs here first
          if the backup is right.
        </Box>
      )}
      <Box sx={{ display: "flex", gap: 2, mt: 2, alignItems: "center", flexWrap: "wrap" }}>
        <Button
          variant="contained"
          disabled={busy || clash.length > 0 || (added === 0 && !others)}
          onClick={() => onRestore("merge")}
        >
          Add what is missing here ({added})
        </Button>
        <Box sx={{ flex: 1 }} />
        <FormControlLabel
          control={<Checkbox checked={sure} onChange={(event) => setSure(event.target.checked)} />}
          label={gone > 0 ? `${gone} that are only here may go` : "Everything here may go"}
        />
        <Button
          variant="outlined"
          color="error"
          disabled={busy || !sure}
          onClick={() => onRestore("replace")}
        >
          Replace everything
        </Button>
        <Button color="inherit" onClick={onClose}>
          Close
        </Button>
      </Box>
    </Card>
  );
}
