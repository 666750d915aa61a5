import { fixed } from "@/core/text/number-text";
import { INK, SOFT, token } from "./theme";

interface EraseStaircaseProps {
  label: string;
  /** By how much the tone went down; at least that where noise hides what is left. */
  depthDb: number;
  hidden: boolean;
  /** Noise, 20 Hz to 20 kHz, below the tone; null where it is not known. */
  noiseBelowDb: number | null;
  /** What is wanted at least. */
  leastDb: number;
}

const WIDTH = 330;
const HEIGHT = 136;
const TOP = 22;
const BOTTOM = 116;
const DEEPEST_DB = 90;

/** A staircase down: the tone, the noise of everything, and what is left of the tone in a narrow filter. */
export function EraseStaircase({ label, depthDb, hidden, noiseBelowDb, leastDb }: EraseStaircaseProps) {
  const deepest = Math.max(DEEPEST_DB, depthDb + 5);
  const y = (db: number) => TOP + (Math.min(db, deepest) / deepest) * (BOTTOM - TOP);
  const steps = [
    { name: "the tone", db: 0, fill: INK, hatched: false },
    ...(noiseBelowDb === null ? [] : [{ name: "all noise", db: noiseBelowDb, fill: SOFT, hatched: false }]),
    {
      name: hidden ? "left: at most" : "left of it",
      db: depthDb,
      fill: token(depthDb >= leastDb ? "settled" : "fail"),
      hatched: hidden,
    },
  ];
  const wide = (WIDTH - 20) / steps.length;
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      width="100%"
      role="img"
      aria-label={label}
      style={{ maxWidth: 440 }}
    >
      <line x1={10} x2={WIDTH - 10} y1={BOTTOM} y2={BOTTOM} stroke={SOFT} />
      {steps.map(({ name, db, fill, hatched }, i) => (
        <g key={name}>
          <rect
            x={10 + i * wide}
            width={wide - 6}
            y={y(db)}
            height={Math.max(1, BOTTOM - y(db))}
            fill={fill}
            opacity={hatched ? 0.35 : 0.85}
            stroke={fill}
            strokeDasharray={hatched ? "5 4" : undefined}
          />
          <text x={10 + i * wide} y={y(db) - 6} fontSize={15} fontWeight={650} fill={INK}>
            {name} {i === 0 ? "" : fixed(-db, 0)}
          </text>
        </g>
      ))}
      <line
        x1={10}
        x2={WIDTH - 10}
        y1={y(leastDb)}
        y2={y(leastDb)}
        stroke={token("oxide")}
        strokeWidth={2}
        strokeDasharray="7 5"
      />
      <text x={WIDTH - 10} y={BOTTOM + 15} textAnchor="end" fontSize={13} fill={token("oxide")}>
        dashed: {leastDb} dB down, as is wanted
      </text>
    </svg>
  );
}
