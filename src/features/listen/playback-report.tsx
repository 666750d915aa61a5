import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { memo } from "react";
import { fixed, THIN_SPACE } from "@/core/text/number-text";
import type { AzimuthView } from "@/core/playback/azimuth-view";
import type { ExplainedResponse, PlaybackView } from "@/core/recordings/playback-report";
import type { ResponseSource } from "@/core/playback/response-runs";
import { AzimuthFan } from "@/ui/azimuth-fan";
import { PhaseTrace } from "@/ui/phase-trace";
import { ResponseChart, type ResponseLine } from "@/ui/response-chart";
import { READING_FONT } from "@/ui/theme";
import { cyclesCounted, judgedTone } from "@/core/playback/ladder";

const SMALLEST_SHOWN_DEGREES = 0.1;

/** What the recording of a reference tape says of the playback side: azimuth, response, and what that looks like. */
export const PlaybackReport = memo(function PlaybackReport({ playback }: { playback: PlaybackView }) {
  const { azimuth, responses } = playback;
  return (
    <>
      {azimuth && azimuth.tones.length > 0 && <Azimuth azimuth={azimuth} />}
      {responses
        .filter(({ channels }) => channels.some(({ points }) => points.length > 1))
        .map((response) => (
          <Response key={response.from} response={response} />
        ))}
    </>
  );
});

function Azimuth({ azimuth }: { azimuth: AzimuthView }) {
  const { delaySeconds, resolved, doubt, tiltArcMinutes } = azimuth;
  const judged = judgedTone(azimuth.tones);
  const tones = cyclesCounted(azimuth);
  const degrees = tones.find(({ index }) => index === judged.index)!.phaseDegrees;
  const lines = [
    delaySeconds !== null && `${fixed(1e6 * delaySeconds, 1, true)}${THIN_SPACE}µs`,
    tiltArcMinutes !== null && `gap tilted ${fixed(Math.abs(tiltArcMinutes), 1)}′`,
    azimuth.monoSumDbAt10kHz !== null &&
      `mono sum loses ${fixed(-azimuth.monoSumDbAt10kHz, 1)}${THIN_SPACE}dB at 10 kHz`,
    azimuth.trackLossDbAt10kHz !== null &&
      `each track ${fixed(-azimuth.trackLossDbAt10kHz, 1)}${THIN_SPACE}dB`,
  ].filter(Boolean);
  return (
    <Box component="section" aria-label="Azimuth" sx={{ mt: 2.5 }}>
      <Typography component="h3" variant="h3">
        Azimuth: right later than left at {Math.round(judged.frequencyHz)} Hz
      </Typography>
      <Box sx={{ display: "flex", flexWrap: "wrap", columnGap: 3, alignItems: "center" }}>
        <Box sx={{ flex: "1 1 300px" }}>
          <Box
            role="meter"
            aria-label={`Azimuth phase at ${Math.round(judged.frequencyHz)} Hz`}
            aria-valuenow={degrees}
            aria-valuetext={`${fixed(degrees, 1, true)}°${resolved ? "" : ", cycles not known"}`}
            sx={{ fontFamily: READING_FONT, fontSize: 64, fontWeight: 700, lineHeight: 1.1 }}
          >
            {fixed(degrees, 1, true)}°
            <Box component="span" sx={{ fontSize: 26, fontWeight: 400, color: "text.secondary", ml: 1 }}>
              ± {fixed(Math.max(SMALLEST_SHOWN_DEGREES, judged.uncertaintyDegrees), 1)}
            </Box>
          </Box>
          <Box sx={{ color: "text.secondary" }}>{lines.join(" · ")}</Box>
          <Box sx={{ fontWeight: 650, color: resolved ? "success.main" : "warning.main", mt: 0.5 }}>
            {resolved ? "✓ The tones agree on one delay; no cycle is missed." : `~ ${doubt}`}
          </Box>
        </Box>
        <Box sx={{ flex: "1 1 380px" }}>
          <AzimuthFan tones={tones} delaySeconds={delaySeconds} judgedHz={judged.frequencyHz} />
        </Box>
        <PhaseTrace track={judged.track} levelRatio={1} />
      </Box>
    </Box>
  );
}

const HEADINGS: Record<ResponseSource, (referenceHz: number) => string> = {
  bands: (hz) => `Response re ${hz} Hz, band levels and certificate taken away`,
  sweep: (hz) => `Response along the sweep, re ${hz} Hz`,
  noise: (hz) => `Response by pink noise, re its own level around ${hz} Hz`,
};

function Response({ response }: { response: ExplainedResponse }) {
  const { from, channels, referenceHz, doubts } = response;
  const lines = channels.flatMap(({ channel, points, findings }, c): ResponseLine[] => {
    const measured: ResponseLine = {
      label: channel,
      look: c === 0 ? "left" : "right",
      points: points.map(({ frequencyHz, levelDb }) => ({ frequencyHz, db: levelDb })),
    };
    const first = findings?.explanations[0];
    if (!first || first.cause === "unknown" || first.cause === "flat") return [measured];
    const fitted = points.map(({ frequencyHz }, i) => ({ frequencyHz, db: first.fittedDb[i] }));
    return [measured, { label: `${channel}: ${first.cause}`, look: "model", points: fitted }];
  });
  return (
    <Box
      component="section"
      aria-label={from === "bands" ? "Response" : `Response from ${from}`}
      sx={{ mt: 2.5 }}
    >
      <Typography component="h3" variant="h3">
        {HEADINGS[from](Math.round(referenceHz))}
      </Typography>
      <ResponseChart label="Response of each channel" lines={lines} />
      {channels.map(
        ({ channel, findings }) =>
          findings && (
            <Typography key={channel} sx={{ mt: 0.5, lineHeight: 1.4 }}>
              <b>{channel}</b>: {findings.sentence}
            </Typography>
          ),
      )}
      {doubts.map(({ says }) => (
        <Typography key={says} sx={{ mt: 0.5, lineHeight: 1.4, color: "warning.main" }}>
          {says}
        </Typography>
      ))}
    </Box>
  );
}
