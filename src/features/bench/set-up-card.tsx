import { memo } from "react";
import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { actsAt } from "@/core/records/job-speeds";
import { measures } from "@/core/alignment/registry";
import { speedTone } from "@/core/reference/speed-tone";
import { clean } from "@/core/stations/clean";
import type { Station } from "@/core/stations/station";
import { THIN_SPACE } from "@/core/text/number-text";
import { Card } from "@/ui/card";
import type { OnePass } from "@/core/alignment/one-pass";
import { pictureOf } from "./middle";
import { NowPlaying, type NowPlayingProps } from "./now-playing";
import { PassOffer } from "./one-pass/pass-offer";
import { TapeChoice } from "./tape-choice";
import { SpeedChoice } from "./speed-choice";

interface SetUpColumnProps extends Omit<NowPlayingProps, "station"> {
  station: Station;
  /** The job's other speeds at which this station is not settled. */
  toDo: number[];
  /** Begins one pass of the whole tape; null where that is not offered. */
  onPass: ((phase: OnePass["phase"]) => void) | null;
  asLeftNext: boolean;
}

/** The left-hand column: how to set up, what sets it, what plays, what the readings so far mean, what to mind. */
export const SetUpColumn = memo(function SetUpColumn({
  station,
  toDo,
  onPass,
  asLeftNext,
  ...playing
}: SetUpColumnProps) {
  const { view } = playing;
  const tone = speedTone(view.tape);
  const adjusters = view.machine.adjusters.filter(
    (one) => one.kind === "turn" && one.sets === station.id && actsAt(one, view.job.speedCmPerS),
  );
  const measuring = measures(station) ? station : null;
  const Aside = measuring && pictureOf(measuring).Aside;
  const cleaned = view.job.done[clean.id]?.length ?? 0;
  return (
    <Box
      role="region"
      aria-label="Preparation"
      tabIndex={0}
      sx={{ display: "flex", flexDirection: "column", gap: 1.5, minWidth: 0, order: { xs: 3, md: 0 } }}
    >
      <Card title="Set up">
        {measuring && <SpeedChoice view={view} toDo={toDo} />}
        {measuring && <TapeChoice view={view} />}
        {measuring?.hears.what === "speed tone" && tone && (
          <Typography sx={{ fontWeight: 650, mt: 0.75 }}>
            band {tone.bandNumber}, {Math.round(tone.frequencyHz)}
            {THIN_SPACE}Hz
          </Typography>
        )}
        {station.setUp.map((line) => (
          <Typography key={line} sx={{ mt: 0.5, lineHeight: 1.4 }}>
            {line}
          </Typography>
        ))}
        {measuring && cleaned === 0 && (
          <Typography sx={{ mt: 1, color: "warning.main", fontWeight: 600 }}>
            Not yet ticked: cleaned and demagnetised.
          </Typography>
        )}
      </Card>
      {onPass && <PassOffer onBegin={onPass} asLeft={asLeftNext} />}
      {adjusters.length > 0 && (
        <Card title="What sets it">
          {adjusters.map(({ id, name, where }) => (
            <Box key={id} sx={{ "& + &": { mt: 1 } }}>
              <Typography sx={{ fontWeight: 700, overflowWrap: "anywhere" }}>{name}</Typography>
              <Typography sx={{ color: "text.secondary", lineHeight: 1.4, overflowWrap: "anywhere" }}>
                {where || "Where it sits was not written down."}
              </Typography>
            </Box>
          ))}
        </Card>
      )}
      {measuring && <NowPlaying {...playing} station={measuring} />}
      {Aside && <Aside view={view} />}
      {station.caution && (
        <Card title="Mind" tone="warning">
          <Typography sx={{ lineHeight: 1.4 }}>{station.caution}</Typography>
        </Card>
      )}
    </Box>
  );
});
