import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { Link } from "@/ui/link";
import {
  DEMAGNETISE,
  demagnetised,
  demagnetisingSays,
  type BeforeAndAfter,
} from "@/core/alignment/demagnetised";
import { stationOf } from "@/core/alignment/registry";
import { recordsTape } from "@/core/records/machine";
import { fixed, THIN_SPACE } from "@/core/text/number-text";
import { appendAdjustment, newId } from "@/storage/jobs";
import { READING_FONT } from "@/ui/theme";
import type { ListenerState } from "../bench/listening/use-listener";
import { stationHref } from "../job/job-tape-line";
import type { JobView } from "../job/use-job-records";

interface DemagnetisingProps {
  view: JobView;
  listener: ListenerState;
}

/** Hiss and second harmonic before the heads were demagnetised and after it, and what is to be done next for that. */
export function Demagnetising({ view, listener }: DemagnetisingProps) {
  const { job, machine } = view;
  if (!recordsTape(machine)) return null;
  const found = demagnetised(view);
  const says = demagnetisingSays(found);
  const missing = (of: "before" | "after") =>
    found.rows.filter((row) => row[of] === null && !row.inNoise[of]);
  const toMeasure = found.at === null ? missing("before") : missing("after").filter(({ before }) => before);
  const log = async () => {
    const at = new Date().toISOString();
    const entry = { station: "distortion", adjusterId: DEMAGNETISE, turns: null, note: "", supersedes: null };
    await appendAdjustment({ ...entry, id: newId(), jobId: job.id, at });
    await listener.markTurn(null);
    await listener.repairPractice(DEMAGNETISE);
  };
  return (
    <Box component="section" aria-label="Demagnetising, before and after" sx={{ mt: 1.5 }}>
      <Box sx={{ display: "grid", gridTemplateColumns: "repeat(auto-fit, minmax(190px, 1fr))", gap: 1 }}>
        {found.rows.map((row) => (
          <Box
            key={row.quantity + row.channel}
            sx={{ border: 1, borderColor: "divider", borderRadius: 1, px: 1, py: 0.75 }}
          >
            <Box sx={{ color: "text.secondary", fontWeight: 600, lineHeight: 1.25 }}>
              {row.name}
              {row.channel && `, ${row.channel}`}
            </Box>
            <Box sx={{ fontFamily: READING_FONT, fontSize: 22, fontWeight: 650 }}>
              {value(row, "before")} → {value(row, "after")}
            </Box>
          </Box>
        ))}
      </Box>
      <Box sx={{ fontWeight: says ? 700 : 400, lineHeight: 1.4, my: 0.75 }}>
        {says ??
          (found.at === null
            ? "Before demagnetising, log both on one blank tape: a recorded silence at Noise, the staircase at Distortion. Afterwards record and log both anew."
            : "Record the same on the same blank tape again and log it, with nothing else turned in between.")}
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
        <Button variant="outlined" onClick={() => void log()}>
          {found.at === null ? "Demagnetised just now" : "Demagnetised again"}
        </Button>
      </Box>
    </Box>
  );
}

const value = (row: BeforeAndAfter, of: "before" | "after"): string => {
  const { unit, decimals, quantity, inNoise } = row;
  const reading = row[of];
  if (reading === null) return inNoise[of] ? "in the noise" : "—";
  return `${fixed(reading.value, decimals, quantity === "noise.a")}${THIN_SPACE}${unit}`;
};
