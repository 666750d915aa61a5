import Box from "@mui/material/Box";
import { StripFrame } from "./strip-frame";
import { INK, SOFT, token } from "./theme";

export interface StripPoint {
  seconds: number;
  value: number;
}

interface StripProps {
  label: string;
  points: StripPoint[];
  nowSeconds: number;
  /** When something was turned. */
  marks: number[];
  window: { from: number; to: number } | null;
  lengthSeconds?: number;
}

const WIDTH = 680;
const HEIGHT = 150;
const LEFT = 52;
const RIGHT = 12;
const TOP = 10;
const BOTTOM = 24;

/** The recent past of a reading as a paper strip that moves left. Values in percent. */
export function Strip({ label, points, nowSeconds, marks, window, lengthSeconds = 90 }: StripProps) {
  const shown = points.filter(({ seconds }) => seconds > nowSeconds - lengthSeconds);
  // the run-up of a start would flatten everything else: the scale follows all but the outermost few points
  const sorted = shown.map(({ value }) => value).sort((a, b) => a - b);
  const spare = Math.floor(0.02 * sorted.length) + (sorted.length > 20 ? 1 : 0);
  const ends = sorted.length > 0 ? [sorted[spare], sorted[sorted.length - 1 - spare]] : [];
  const values = [...ends, ...(window ? [window.from, window.to] : [0])];
  const low = Math.min(...values);
  const high = Math.max(...values);
  const pad = Math.max(0.02, 0.12 * (high - low));
  const x = (seconds: number) =>
    WIDTH - RIGHT - ((nowSeconds - seconds) / lengthSeconds) * (WIDTH - LEFT - RIGHT);
  const y = (value: number) =>
    TOP + Math.max(0, Math.min(1, (high + pad - value) / (high - low + 2 * pad))) * (HEIGHT - TOP - BOTTOM);
  let path = "";
  shown.forEach(({ seconds, value }, i) => {
    const broken = i === 0 || seconds - shown[i - 1].seconds > 0.6;
    path += `${broken ? "M" : "L"}${x(seconds).toFixed(1)} ${y(value).toFixed(1)}`;
  });
  const decimals = high - low < 0.5 ? 2 : 1;
  return (
    <Box sx={{ lineHeight: 0 }}>
      <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} width="100%" role="img" aria-label={label}>
        <StripFrame
          left={LEFT}
          right={WIDTH - RIGHT}
          top={TOP}
          bottom={HEIGHT - BOTTOM}
          y={y}
          labels={[low, high]}
          decimals={decimals}
          window={window}
        />
        <path d={path} fill="none" stroke={INK} strokeWidth={2} strokeLinejoin="round" />
        {marks
          .filter((seconds) => seconds > nowSeconds - lengthSeconds)
          .map((seconds, i, all) => (
            <g key={seconds}>
              <line
                x1={x(seconds)}
                x2={x(seconds)}
                y1={TOP}
                y2={HEIGHT - BOTTOM}
                stroke={token("oxide")}
                strokeWidth={1.5}
                strokeDasharray="4 3"
              />
              <text
                display={i + 1 < all.length && x(all[i + 1]) - x(seconds) < 60 ? "none" : undefined}
                x={x(seconds) + (x(seconds) > WIDTH - 70 ? -5 : 5)}
                y={TOP + 13}
                textAnchor={x(seconds) > WIDTH - 70 ? "end" : "start"}
                fontSize={12.5}
                fill={token("oxide")}
              >
                turned
              </text>
            </g>
          ))}
        <text x={LEFT} y={HEIGHT - 7} fontSize={12.5} fill={SOFT}>
          {lengthSeconds} s ago
        </text>
        <text x={WIDTH - RIGHT} y={HEIGHT - 7} textAnchor="end" fontSize={12.5} fill={SOFT}>
          now, %
        </text>
      </svg>
    </Box>
  );
}
