"use client";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { HEADS, SIDES } from "@/core/records/fields";
import { PITCHES, POSITIONS, SUPPLIES, type Circumstances } from "@/core/records/reading";
import type { PitchRange } from "@/core/guidance/pitch-range";
import { targetFor, type SideSpeeds } from "@/core/guidance/speed-sides";
import { fixed, THIN_SPACE } from "@/core/text/number-text";
import { changeJob } from "@/storage/jobs";
import { Card } from "@/ui/card";
import { READING_FONT } from "@/ui/theme";
import type { JobView } from "../job/use-job-records";
import { Choice } from "./choice";
import { RecordingOn } from "./recording/recording-on";
import { SwitchedOn } from "./practice/switched-on";
import type { MeasuringStation } from "@/core/stations/station";

export interface NowPlayingProps {
  view: JobView;
  circumstances: Circumstances;
  onChange(circumstances: Circumstances): void;
  /** The practice machine knows which side it plays. */
  sideKnown: boolean;
  sides: SideSpeeds;
  /** How far the pitch control goes, where that was read. */
  pitch: PitchRange | null;
  station: MeasuringStation;
}

/** What the readings are taken of: side, place on the reel, supply; and what the two sides add up to. */
export function NowPlaying({
  view,
  circumstances,
  onChange,
  sideKnown,
  sides,
  pitch,
  station,
}: NowPlayingProps) {
  const { job } = view;
  const says = (what: keyof Circumstances) => station.circumstances.includes(what);
  // one trimmer for both sides: what they differ by is shared
  const sharesSides = !station.apartBy.includes("side") && says("position");
  const { differencePercent } = sides;
  const share = !job.oneSideOnly;
  const targetPercent = targetFor(circumstances.side, differencePercent, share);
  return (
    <Card title="Now playing">
      <Choice
        label="Side or direction"
        choices={SIDES}
        value={circumstances.side}
        disabled={sideKnown}
        onChoose={(side) => onChange({ ...circumstances, side })}
      />
      {says("head") && (
        <>
          <Choice
            label="Another head than the playback head"
            choices={HEADS}
            after=" head, off the tape"
            value={circumstances.head}
            onChoose={(head) => onChange({ ...circumstances, head })}
          />
          {circumstances.head && (
            <Box sx={{ mt: 0.5, lineHeight: 1.3 }}>
              Record a high tone from Signals on both channels and monitor the tape: what shows is the record
              head against the playback head, which was set before.
            </Box>
          )}
        </>
      )}
      {says("recordingOn") && (
        <RecordingOn
          job={job}
          chosen={circumstances.recordingOn}
          onChoose={(recordingOn) => onChange({ ...circumstances, recordingOn })}
        />
      )}
      {station.group === "record" && (
        <SwitchedOn
          machine={view.machine}
          chosen={circumstances.switchedOn ?? []}
          known={sideKnown}
          onChoose={(switchedOn) => onChange({ ...circumstances, switchedOn })}
        />
      )}
      {says("position") && (
        <Choice
          label="Place on the reel"
          choices={POSITIONS}
          value={circumstances.position}
          onChoose={(position) => onChange({ ...circumstances, position })}
        />
      )}
      {says("supply") && (
        <Choice
          label="Supply"
          choices={SUPPLIES}
          value={circumstances.supply}
          onChoose={(supply) => onChange({ ...circumstances, supply })}
        />
      )}
      {says("pitch") && (
        <>
          <Choice
            label="Pitch control at its"
            before="pitch "
            choices={PITCHES}
            value={circumstances.pitch}
            onChoose={(pitch) => onChange({ ...circumstances, pitch })}
          />
          {circumstances.pitch && (
            <Box sx={{ mt: 0.5, color: "warning.main", fontWeight: 600, lineHeight: 1.3 }}>
              Logged as the range of the pitch control, not as the speed.
            </Box>
          )}
          {pitch && (
            <Box sx={{ mt: 1, fontFamily: READING_FONT, fontSize: 15 }}>
              pitch {show(pitch.slowest)} … {show(pitch.fastest)}
            </Box>
          )}
        </>
      )}
      {sharesSides && (sides.a !== null || sides.b !== null) && (
        <Box sx={{ mt: 1, fontFamily: READING_FONT, fontSize: 15, lineHeight: 1.5 }}>
          A {show(sides.a)}
          <br />B {show(sides.b)}
          {differencePercent !== null && <Box sx={{ fontWeight: 700 }}>B − A {show(differencePercent)}</Box>}
        </Box>
      )}
      {sharesSides && differencePercent !== null && (
        <>
          <Box sx={{ mt: 0.5, fontWeight: 650, lineHeight: 1.3 }}>
            {targetPercent === 0
              ? "Aim at right speed on this side."
              : `Aim at ${show(targetPercent)} on this side.`}
          </Box>
          <Button
            size="small"
            color="inherit"
            variant="outlined"
            sx={{ mt: 0.75 }}
            onClick={() => void changeJob(job.id, { oneSideOnly: share })}
          >
            {share ? "Set on this side instead" : "Share the error"}
          </Button>
        </>
      )}
    </Card>
  );
}

const show = (value: number | null) => (value === null ? "–" : `${fixed(value, 2, true)}${THIN_SPACE}%`);
