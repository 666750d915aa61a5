import Box from "@mui/material/Box";
import { useMemo } from "react";
import { settingsNow } from "@/core/stations/settings";
import { Figure } from "../figure";
import { RecordSteps } from "../recording/record-steps";
import { onThisTape } from "../recording/record-view";
import { FrontForTape } from "../settings/front-for-tape";
import { PassportOfTape } from "../settings/passport-of-tape";
import type { PictureProps, StationPicture } from "./picture";

const LIVE = "Both tones come off the tape: turn by the card.";

/** How the knobs on the front stand for a tape, and what is to be known of it. */
function Settings({ view, bench, listener, station, absent }: PictureProps) {
  const mine = useMemo(() => onThisTape(view, bench), [view, bench]);
  const { top, middle, passport, lacks, live } = settingsNow(bench);
  const figure = { view: mine, absent, settled: lacks === null, size: "narrow" as const };
  return (
    <>
      <Box sx={{ display: "grid", gridTemplateColumns: { sm: "1fr 1fr" }, gap: 2 }}>
        <Figure
          {...figure}
          quantity="settings.bias"
          value={top?.value ?? null}
          uncertainty={top?.uncertainty ?? 0}
          ends={["dull", "bright"]}
        />
        <Figure
          {...figure}
          quantity="settings.level"
          value={middle?.value ?? null}
          uncertainty={middle?.uncertainty ?? 0}
          ends={["quiet", "loud"]}
        />
      </Box>
      <RecordSteps {...{ bench, listener, station, view }} lacks={live ? (lacks ?? LIVE) : lacks} />
      <FrontForTape key={bench.circumstances.recordingOn} {...{ view, bench, listener }} />
      <PassportOfTape {...{ bench, passport }} readings={mine.readings} />
    </>
  );
}

export const settings: StationPicture = { Middle: Settings };
