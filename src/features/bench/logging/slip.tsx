"use client";
import { memo } from "react";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { inForce } from "@/core/records/job-records";
import { PHASES, type Reading } from "@/core/records/reading";
import type { Adjustment } from "@/core/records/adjustment";
import { readingsOf, readingVerdict } from "@/core/alignment/station-state";
import { quantityOf, stationOf } from "@/core/alignment/registry";
import type { MeasuringStation, Station } from "@/core/stations/station";
import { directionInWords, turnInWords } from "@/core/guidance/turn-guidance";
import type { Moved } from "@/core/alignment/second-pass";
import { fixed, withUncertainty } from "@/core/text/number-text";
import { Card } from "@/ui/card";
import { KeyCap } from "@/ui/key-cap";
import { READING_FONT } from "@/ui/theme";
import { VerdictMark } from "@/ui/verdict-mark";
import type { Phase } from "@/core/records/reading";
import { SWITCH_NAMES } from "@/core/records/machine";
import type { JobView } from "@/features/job/use-job-records";
import { EvidenceButton } from "@/features/sound/evidence-button";
import { CorrectionMenu } from "./correction-menu";
import { correctPhase, correctTurn } from "./corrections";

const clock = new Intl.DateTimeFormat("en-GB", { hour: "2-digit", minute: "2-digit" });

interface SlipProps {
  view: JobView;
  station: MeasuringStation;
  /** Stations that have to be repeated, at any speed. */
  again: Station[];
  /** Stations whose reading an adjustment elsewhere was found to have moved. */
  moved: Moved[];
  onLog(phase: Phase): void;
}

/** A till receipt of the station: readings and turns, newest on top. */
export const Slip = memo(function Slip({ view, station, again, moved, onLog }: SlipProps) {
  const rows = [
    ...readingsOf(view, station).map((reading) => ({ at: reading.at, reading, turn: null })),
    ...inForce(view.adjustments)
      .filter((turn) => turn.station === station.id)
      .map((turn) => ({ at: turn.at, reading: null, turn })),
  ].sort((a, b) => b.at.localeCompare(a.at));
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
      {moved.map(({ station, by, turnedAt, after }) => (
        <Box key={station.id} sx={{ color: "warning.main", fontWeight: 600, mb: 0.5, lineHeight: 1.3 }}>
          Second pass: {station.name.toLowerCase()} moved by{" "}
          {fixed(by, quantityOf(after.quantity).decimals, true)} {after.unit} when{" "}
          {turnedAt.name.toLowerCase()} was set. Set it again.
        </Box>
      ))}
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
});

function LogButton({ word, cap, onClick }: { word: string; cap: string; onClick(): void }) {
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

/** What tells the readings of a station apart. */
function detail(
  { quantity, context: { channel, side, head, nominalHz, recordingOn, control, switchedOn = [] } }: Reading,
  view: JobView,
) {
  const { apartBy, deciding, quantities, corridorOf } = stationOf(quantity);
  const [first] = deciding(view.machine);
  return [
    "",
    quantity !== first && quantities[quantity].name.toLowerCase(),
    apartBy.includes("channel") && channel !== "both" && channel,
    apartBy.includes("side") && side && `side ${side}`,
    head && `${head} head`,
    control && `${control} worked`,
    apartBy.includes("switchedOn") && switchedOn.map((one) => SWITCH_NAMES[one]).join(" and "),
    recordingOn && (view.job.blankTapes?.find(({ id }) => id === recordingOn)?.name ?? recordingOn),
    corridorOf(view.machine) && `at ${Math.round(nominalHz)} Hz`,
  ]
    .filter((part) => part || part === "")
    .join(", ");
}

function ReadingRow({ reading, view }: { reading: Reading; view: JobView }) {
  return (
    <>
      <CorrectionMenu
        choices={PHASES.filter((phase) => phase !== reading.phase).map((phase) => ({
          value: phase,
          words: `this was ${phase}`,
        }))}
        onCorrect={(phase) => void correctPhase(reading, view.readings, phase)}
      >
        {reading.phase}
        {detail(reading, view)}
      </CorrectionMenu>
      <VerdictMark verdict={readingVerdict(reading, view.machine)} />
      <Box
        sx={{ fontFamily: READING_FONT, width: "100%", fontWeight: reading.phase === "working" ? 400 : 650 }}
      >
        {withUncertainty(
          reading.value,
          reading.uncertainty,
          reading.unit,
          quantityOf(reading.quantity).signed,
        )}
        {reading.evidenceId && <EvidenceButton recordingId={reading.evidenceId} />}
      </Box>
    </>
  );
}

const AMOUNTS = [1 / 32, 1 / 16, 1 / 8, 1 / 6, 1 / 4, 1 / 3, 1 / 2, 1];

function TurnRow({ turn, view }: { turn: Adjustment; view: JobView }) {
  const adjuster = view.machine.adjusters.find(({ id }) => id === turn.adjusterId);
  const name = adjuster?.name ?? turn.adjusterId;
  const words = (turns: number) => `${turnInWords(turns)} ${directionInWords(turns)}`;
  const others = turn.turns === null ? [] : [...AMOUNTS, ...AMOUNTS.map((amount) => -amount)];
  return (
    <Box component="span" sx={{ color: "primary.main", flex: 1, display: "flex" }}>
      <CorrectionMenu
        choices={[
          { value: 0, words: turn.turns === null ? "it was not done" : "it was not turned" },
          ...others.map((turns) => ({ value: turns, words: `it was ${words(turns)}` })),
        ]}
        onCorrect={(turns) => void correctTurn(turn, turns)}
      >
        {turn.turns === 0
          ? `${name}: taken back`
          : turn.turns === null
            ? name
            : `${name}: ${words(turn.turns)}`}
      </CorrectionMenu>
    </Box>
  );
}
