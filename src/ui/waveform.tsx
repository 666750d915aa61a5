import Box from "@mui/material/Box";
import type { FlutterWaveform } from "@/core/measure/flutter-waveform";
import { StripFrame } from "./strip-frame";
import { INK, SOFT } from "./theme";

interface WaveformProps {
  label: string;
  waveform: FlutterWaveform;
  /** What the right end is: "now", or a time in the recording. */
  ends: readonly [from: string, to: string];
}

const WIDTH = 680;
const HEIGHT = 200;
const LEFT = 60;
const RIGHT = 12;
const TOP = 12;
const BOTTOM = 28;
/** The scale does not magnify what nobody could hear. */
const LEAST_PERCENT = 0.02;
const STEPS = [0.02, 0.05, 0.1, 0.2, 0.5, 1, 2, 5, 10, 20];

/** Deviation of the speed from its mean over some seconds: the flutter itself, as a paper strip. */
export function Waveform({ label, waveform: { percent }, ends }: WaveformProps) {
  const most = percent.reduce((max, value) => Math.max(max, Math.abs(value)), LEAST_PERCENT);
  const reach = STEPS.find((step) => step >= most) ?? most;
  const x = (i: number) => LEFT + (i / Math.max(1, percent.length - 1)) * (WIDTH - LEFT - RIGHT);
  const y = (value: number) => TOP + ((reach - value) / (2 * reach)) * (HEIGHT - TOP - BOTTOM);
  const path = Array.from(
    percent,
    (value, i) => `${i === 0 ? "M" : "L"}${x(i).toFixed(1)} ${y(value).toFixed(1)}`,
  );
  return (
    <Box sx={{ lineHeight: 0 }}>
      <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} width="100%" role="img" aria-label={label}>
        <StripFrame
          left={LEFT}
          right={WIDTH - RIGHT}
          top={TOP}
          bottom={HEIGHT - BOTTOM}
          y={y}
          labels={[-reach, 0, reach]}
          decimals={reach < 0.1 ? 2 : 1}
          window={null}
        />
        <path d={path.join("")} fill="none" stroke={INK} strokeWidth={1.5} strokeLinejoin="round" />
        <text x={LEFT} y={HEIGHT - 8} fontSize={13} fill={SOFT}>
          {ends[0]}
        </text>
        <text x={WIDTH - RIGHT} y={HEIGHT - 8} textAnchor="end" fontSize={13} fill={SOFT}>
          {ends[1]}, %
        </text>
      </svg>
    </Box>
  );
}
