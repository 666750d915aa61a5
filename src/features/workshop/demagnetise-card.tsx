import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Link from "next/link";
import {
  DEMAGNETISE,
  demagnetised,
  demagnetisingSays,
  type BeforeAndAfter,
} from "@/core/alignment/demagnetised";
import { stationOf } from "@/core/alignment/registry";
import type { Reading } from "@/core/records/reading";
import { recordsTape } from "@/core/records/machine";
import { fixed, THIN_SPACE } from "@/core/text/number-text";
import { appendAdjustment, newId } from "@/storage/jobs";
import { Card } from "@/ui/card";
import { READING_FONT } from "@/ui/theme";
import type { ListenerState } from "../bench/use-listener";
import { stationHref } from "../job/job-tape-line";
import type { JobView } from "../job/use-job-records";

interface DemagnetiseCardProps {
  view: JobView;
  listener: ListenerState;
}

/** Hiss and second harmonic before the heads were demagnetised and after it, and what is to be done next for that. */
export function DemagnetiseCard({ view, listener }: DemagnetiseCardProps) {
  const { job, machine } = view;
  if (!recordsTape(machine)) return null;
  const found = demagnetised(view);
  const says = demagnetisingSays(found);
  const missing = (of: "before" | "after") => found.rows.filter((row) => row[of] === null);
  const toMeasure = found.at === null ? missing("before") : missing("after").filter(({ before }) => before);
  const log = async () => {
    const at = new Date().toISOString();
    const entry = { station: "distortion", adjusterId: DEMAGNETISE, turns: null, note: "", supersedes: null };
    await appendAdjustment({ ...entry, id: newId(), jobId: job.id, at });
    await listener.markTurn(null);
    await listener.repairPractice(DEMAGNETISE);
  };
  return (
    <Card title="Demagnetising: before and after">
      {found.rows.map((row) => (
        <Box
          key={row.quantity + row.channel}
          sx={{ borderTop: 1, borderColor: "divider", py: 0.5, lineHeight: 1.35 }}
        >
          <Box sx={{ fontWeight: 650 }}>
            {row.name}
            {row.channel && `, ${row.channel}`}
          </Box>
          <Box sx={{ fontFamily: READING_FONT, fontSize: 18 }}>
            {value(row, row.before)} → {value(row, row.after)}
          </Box>
        </Box>
      ))}
      <Box sx={{ fontWeight: says ? 700 : 400, lineHeight: 1.4, my: 0.75 }}>
        {says ??
          (found.at === null
            ? "A recorded silence and the staircase at 0 tell it, on one blank tape: log both before, demagnetise, record and log both anew."
            : "Record the same sequences on the same blank tape again and log them: nothing else turned in between.")}
      </Box>
      <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap" }}>
        {[...new Set(toMeasure.map(({ quantity }) => quantity))].map((quantity) => {
          const station = stationOf(quantity);
          return (
            <Button key={quantity} variant="outlined" component={Link} href={stationHref(job.id, station)}>
              Measure at {station.name}
            </Button>
          );
        })}
        <Button variant={found.at === null ? "contained" : "outlined"} onClick={() => void log()}>
          {found.at === null ? "Demagnetised just now" : "Demagnetised again"}
        </Button>
      </Box>
    </Card>
  );
}

const value = ({ unit, decimals, quantity }: BeforeAndAfter, reading: Reading | null): string =>
  reading === null ? "—" : `${fixed(reading.value, decimals, quantity === "noise.a")}${THIN_SPACE}${unit}`;
