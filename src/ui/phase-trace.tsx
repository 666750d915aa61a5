import { INK, SOFT, token } from "./theme";

interface PhaseTraceProps {
  /** Phase of right behind left from one tenth of a second to the next, degrees. */
  track: ArrayLike<number>;
  /** Right over left. */
  levelRatio: number;
  /** Width on the screen, pixels. */
  size?: number;
}

const SIZE = 220;
const MIDDLE = SIZE / 2;
const LABEL = 30;
/** As large as other labels, however small the picture is. */
const TEXT_PIXELS = 13;
const REACH = 88;
const TRACES = 8;
const POINTS = 72;

/** Left across, right up: a line for channels in phase, a circle for a quarter of a cycle; restless phase smears it. */
export function PhaseTrace({ track, levelRatio, size = SIZE }: PhaseTraceProps) {
  const chosen = Array.from(
    { length: Math.min(TRACES, track.length) },
    (_, i) => track[Math.floor(((i + 0.5) * track.length) / Math.min(TRACES, track.length))],
  );
  const scale = REACH / Math.max(1, levelRatio);
  const path = chosen
    .map((degrees) =>
      Array.from({ length: POINTS + 1 }, (_, i) => {
        const t = (2 * Math.PI * i) / POINTS;
        const x = MIDDLE + scale * Math.sin(t);
        const y = MIDDLE - scale * levelRatio * Math.sin(t - (degrees * Math.PI) / 180);
        return `${i === 0 ? "M" : "L"}${x.toFixed(1)} ${y.toFixed(1)}`;
      }).join(""),
    )
    .join("");
  const edge = MIDDLE - REACH;
  return (
    <svg
      viewBox={`0 0 ${SIZE} ${SIZE + LABEL}`}
      width={size}
      role="img"
      aria-label="Left against right"
      overflow="visible"
    >
      <rect x={8} y={8} width={SIZE - 16} height={SIZE - 16} rx={8} fill="none" stroke={token("line")} />
      <line
        x1={edge}
        y1={SIZE - edge}
        x2={SIZE - edge}
        y2={edge}
        stroke={token("settled")}
        strokeWidth={2}
        strokeDasharray="2 5"
      />
      <path d={path} fill="none" stroke={INK} strokeWidth={1.3} opacity={0.8} />
      <text
        x={MIDDLE}
        y={SIZE + 0.7 * LABEL}
        textAnchor="middle"
        fontSize={(TEXT_PIXELS * SIZE) / size}
        fill={SOFT}
      >
        left across, right up
      </text>
    </svg>
  );
}
