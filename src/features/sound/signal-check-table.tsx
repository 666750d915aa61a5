import Box from "@mui/material/Box";
import { fixed, THIN_SPACE } from "@/core/text/number-text";
import type { Finding, SignalReport } from "@/core/measure/signal-findings";
import type { Calibration } from "@/core/records/input-calibration";
import { GLYPH_PATHS } from "@/ui/glyph-paths";
import { READING_FONT } from "@/ui/theme";

interface SignalCheckTableProps {
  report: SignalReport;
  card: {
    name: string;
    sampleRateHz: number;
    channelCount: number;
    processing: string[];
    calibration: Calibration | null;
  } | null;
}

const STATES: Record<Finding["state"], { glyph: keyof typeof GLYPH_PATHS; color: string; word: string }> = {
  sound: { glyph: "check", color: "success.main", word: "sound" },
  open: { glyph: "wave", color: "text.secondary", word: "open" },
  note: { glyph: "wave", color: "warning.main", word: "note" },
  fault: { glyph: "cross", color: "error.main", word: "fault" },
};

/** Levels of every channel and each check with its outcome in words. */
export function SignalCheckTable({ report, card }: SignalCheckTableProps) {
  const level = card?.calibration?.level;
  const dbu = (i: number, rmsDbfs: number) =>
    level ? `${fixed(rmsDbfs + 3.01 + (i === 0 ? level.leftDbu : level.rightDbu), 1)}${THIN_SPACE}dBu` : null;
  return (
    <>
      <Box
        component="table"
        aria-label="Levels"
        sx={{
          width: "100%",
          borderCollapse: "collapse",
          mb: 1.5,
          "& th": { textAlign: "left", fontWeight: 600, color: "text.secondary", py: 0.5 },
          "& td": { fontFamily: READING_FONT, py: 0.5, borderTop: 1, borderColor: "divider" },
        }}
      >
        <thead>
          <tr>
            <th>channel</th>
            <th>true peak</th>
            <th>RMS</th>
            {level && <th>level</th>}
            <th>DC</th>
            <th>clipped in 10 s</th>
          </tr>
        </thead>
        <tbody>
          {report.channels.map(({ channel, truePeakDbfs, rmsDbfs, dcPercent, clippedSamples }, i) => (
            <tr key={channel}>
              <Box component="td" sx={{ fontFamily: "inherit", fontWeight: 650 }}>
                {channel}
              </Box>
              <td>
                {fixed(truePeakDbfs, 2)}
                {THIN_SPACE}dBTP
              </td>
              <td>
                {fixed(rmsDbfs, 2)}
                {THIN_SPACE}dBFS
              </td>
              {level && <td>{dbu(i, rmsDbfs)}</td>}
              <td>
                {fixed(dcPercent, 2)}
                {THIN_SPACE}%
              </td>
              <td>{clippedSamples}</td>
            </tr>
          ))}
        </tbody>
      </Box>
      <Box component="ul" aria-label="Checks" sx={{ listStyle: "none", p: 0, m: 0 }}>
        {report.findings.map(({ check, state, says, advice }) => (
          <CheckLine key={check} check={check} state={state} says={says} advice={advice} />
        ))}
        {card && (
          <CheckLine
            check="left alone"
            state={card.processing.length > 0 ? "fault" : "sound"}
            says={
              card.processing.length > 0
                ? `the browser applies ${card.processing.join(", ")}`
                : `the browser grants ${card.channelCount} unprocessed channel${card.channelCount > 1 ? "s" : ""} at ${card.sampleRateHz} Hz`
            }
            advice={
              card.processing.length > 0
                ? "Turn it off in the system's or the browser's sound settings for this input; no level can be trusted."
                : ""
            }
          />
        )}
        {card && <CardLimits calibration={card.calibration} />}
      </Box>
    </>
  );
}

function CheckLine({ check, state, says, advice }: Omit<Finding, "check"> & { check: string }) {
  const { glyph, color, word } = STATES[state];
  return (
    <Box
      component="li"
      sx={{
        display: "flex",
        gap: 1.5,
        py: 0.6,
        borderTop: 1,
        borderColor: "divider",
        alignItems: "baseline",
      }}
    >
      <Box
        sx={{
          width: 78,
          color,
          fontWeight: 650,
          display: "flex",
          gap: 0.75,
          alignItems: "baseline",
          flex: "none",
        }}
      >
        <svg width="0.85em" height="0.85em" viewBox="0 0 12 12" aria-hidden>
          <path d={GLYPH_PATHS[glyph]} fill="none" stroke="currentColor" strokeWidth={2.2} />
        </svg>
        {word}
      </Box>
      <Box sx={{ width: 116, color: "text.secondary", flex: "none" }}>{check}</Box>
      <Box>
        <Box sx={{ fontWeight: state === "sound" ? 400 : 650 }}>{says}</Box>
        {advice && <Box sx={{ color: "text.secondary", lineHeight: 1.35 }}>{advice}</Box>}
      </Box>
    </Box>
  );
}

/** What cannot be measured with this card, from its loop-back. */
function CardLimits({ calibration }: { calibration: Calibration | null }) {
  const loop = calibration?.loopBack;
  return (
    <CheckLine
      check="its own limits"
      state={loop ? "sound" : "note"}
      says={
        loop
          ? `third harmonic below ${fixed(loop.thirdDb, 0)} dB and noise below ${fixed(loop.noiseDbfs, 0)} dBFS are the card's own`
          : "not known yet"
      }
      advice={
        loop ? "" : "Cable output to input once and measure the loop-back under Sound card and calibration."
      }
    />
  );
}
