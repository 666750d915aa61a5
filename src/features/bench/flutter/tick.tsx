import Box from "@mui/material/Box";
import { tickMeans } from "@/core/advice/tick-means";
import { fixed, THIN_SPACE } from "@/core/text/number-text";
import type { JobView } from "@/features/job/use-job-records";
import { Announcer } from "@/ui/announcer";
import { READING_FONT } from "@/ui/theme";
import type { ListenerState } from "../listening/use-listener";

/** A microphone at the mechanism: how often it ticks, and which part turns so. */
export function Tick({ view: { machine, job }, listener }: { view: JobView; listener: ListenerState }) {
  const { live, lastTransport } = listener;
  const ticks = live?.ticks ?? null;
  const rhythm = ticks?.rhythm ?? null;
  const means =
    rhythm &&
    tickMeans(
      rhythm,
      {
        parts: machine.parts,
        speedCmPerS: job.speedCmPerS,
        firstSpeedCmPerS: machine.speedsCmPerS[0],
      },
      lastTransport?.finding ?? null,
    );
  return (
    <Box>
      <Box
        role="meter"
        aria-label="Ticks a second"
        aria-valuenow={rhythm?.rateHz ?? 0}
        aria-valuetext={rhythm ? `${fixed(rhythm.rateHz, 2)} a second` : "no rhythm yet"}
        sx={{ fontFamily: READING_FONT, fontSize: 72, fontWeight: 700, lineHeight: 1.1 }}
      >
        {rhythm ? `${fixed(rhythm.rateHz, 2)}${THIN_SPACE}/s` : "–"}
      </Box>
      <Box sx={{ fontSize: 20, fontWeight: 600, lineHeight: 1.35 }}>
        {means?.says ??
          "Hold the microphone of the sound card to the mechanism while it runs, with the speaker off. Some twenty ticks are wanted."}
      </Box>
      <Box sx={{ color: "text.secondary", mt: 0.5 }}>
        {ticks &&
          (rhythm
            ? `${rhythm.ticks} of ${ticks.heard} ticks are in step, ± ${fixed((100 * rhythm.uncertaintyHz) / rhythm.rateHz, 2)} %.`
            : `${ticks.heard} ticks in ${fixed(ticks.seconds, 0)} s, none in step that chance would not give.`)}
      </Box>
      <Announcer words={means?.says ?? ""} />
    </Box>
  );
}
