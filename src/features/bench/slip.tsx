"use client";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { inForce, type Adjustment, type Reading, type StationId } from "@/core/alignment/records";
import { readingsOf, readingVerdict, toRepeat } from "@/core/alignment/station-state";
import { directionInWords, turnInWords } from "@/core/alignment/turn-guidance";
import { withUncertainty } from "@/core/formats/number-text";
import { Card } from "@/ui/card";
import { KeyCap } from "@/ui/key-cap";
import { READING_FONT } from "@/ui/theme";
import { VerdictMark } from "@/ui/verdict-mark";
import type { Phase } from "@/core/alignment/records";
import type { JobView } from "../job/use-job-records";

const clock = new Intl.DateTimeFormat("en-GB", { hour: "2-digit", minute: "2-digit" });

interface SlipProps {
  view: JobView;
  stationId: StationId;
  onLog(phase: Phase): void;
}

/** A till receipt of the station: readings and turns, newest on top. */
export function Slip({ view, stationId, onLog }: SlipProps) {
  const rows = [
    ...readingsOf(view, stationId).map((reading) => ({ at: reading.at, reading, turn: null })),
    ...inForce(view.adjustments)
      .filter(({ station }) => station === stationId)
      .map((turn) => ({ at: turn.at, reading: null, turn })),
  ].sort((a, b) => b.at.localeCompare(a.at));
  const again = toRepeat(view);
  return (
    <Card title="Slip" grow>
      <Box sx={{ display: "grid", gridTemplateColumns: "1fr 1fr 1fr", gap: 0.75, mb: 1 }}>
        <LogButton word="Log" cap="Space" onClick={() => onLog("working")} />
        <LogButton word="As found" cap="F" onClick={() => onLog("as found")} />
        <LogButton word="As left" cap="L" onClick={() => onLog("as left")} />
      </Box>
      {again.length > 0 && (
        <Box sx={{ color: "warning.main", fontWeight: 600, mb: 0.5 }}>
          To repeat: {again.map(({ name }) => name.toLowerCase()).join(", ")}
        </Box>
      )}
      {rows.length === 0 && (
        <Box sx={{ color: "text.secondary", py: 1 }}>
          Nothing logged yet. As found comes first, before anything is turned.
        </Box>
      )}
      <Box
        component="ol"
        aria-label="Readings"
        tabIndex={0}
        sx={{ listStyle: "none", p: 0, m: 0, maxHeight: { xs: 300, md: "none" }, overflowY: "auto" }}
      >
        {rows.map(({ at, reading, turn }) => (
          <Box
            component="li"
            key={reading?.id ?? turn?.id}
            sx={{
              borderTop: "1px dashed",
              borderColor: "divider",
              py: 0.75,
              display: "flex",
              flexWrap: "wrap",
              columnGap: 1,
              alignItems: "baseline",
            }}
          >
            <Box component="span" sx={{ color: "text.secondary", fontSize: 14 }}>
              {clock.format(new Date(at))}
            </Box>
            {reading ? <ReadingRow reading={reading} view={view} /> : <TurnRow turn={turn!} view={view} />}
          </Box>
        ))}
      </Box>
    </Card>
  );
}

function LogButton({
  word,
  cap,
  onClick,
}: {
  word: string;

  cap: string;
  onClick(): void;
}) {
  return (
    <Button
      variant="outlined"
      color="inherit"
      size="small"
      onClick={onClick}
      sx={{ flexDirection: "column", lineHeight: 1.3, minWidth: 0 }}
    >
      {word}
      <Box sx={{ "& kbd": { ml: 0 }, lineHeight: 1 }}>
        <KeyCap>{cap}</KeyCap>
      </Box>
    </Button>
  );
}

function ReadingRow({ reading, view }: { reading: Reading; view: JobView }) {
  return (
    <>
      <Box component="span" sx={{ fontSize: 14, flex: 1 }}>
        {reading.phase}
        {reading.context.channel !== "both" && `, ${reading.context.channel}`}
      </Box>
      <VerdictMark verdict={readingVerdict(reading, view.machine)} />
      <Box
        sx={{ fontFamily: READING_FONT, width: "100%", fontWeight: reading.phase === "working" ? 400 : 650 }}
      >
        {withUncertainty(reading.value, reading.uncertainty, "%", reading.quantity === "speedError")}
      </Box>
    </>
  );
}

function TurnRow({ turn, view }: { turn: Adjustment; view: JobView }) {
  const adjuster = view.machine.adjusters.find(({ id }) => id === turn.adjusterId);
  return (
    <Box component="span" sx={{ color: "primary.main", flex: 1, fontSize: 14.5 }}>
      {adjuster?.name ?? turn.adjusterId}
      {turn.turns !== null && (
        <>
          : {turnInWords(turn.turns)} {directionInWords(turn.turns)}
        </>
      )}
    </Box>
  );
}
