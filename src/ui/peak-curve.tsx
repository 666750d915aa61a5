import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { fixed } from "@/core/text/number-text";
import { INK, SOFT, token } from "./theme";

interface Place {
  /** Clockwise of where the screw was first. */
  turns: number;
  levelDb: number;
}

interface PeakCurveProps {
  /** Levels that were logged, oldest first. */
  levels: Place[];
  /** Where the curve through them is highest; null while that is not known. */
  peakTurns: number | null;
  present: Place | null;
  heldDb: number | null;
  side: "before" | "past" | "on it" | null;
  onClear(): void;
}

const WIDTH = 680;
const HEIGHT = 190;
const LEFT = 60;
const RIGHT = 20;
const TOP = 18;
const BOTTOM = 34;
const SIDE_WORDS = {
  before: "short of the loudest point",
  past: "past the loudest point",
  "on it": "on the loudest point",
};

/** Level of the treble tone against turns of the screw, with its loudest point: a hill, and where on it one stands. */
export function PeakCurve({ levels, peakTurns, present, heldDb, side, onClear }: PeakCurveProps) {
  const all = [...levels, ...(present ? [present] : [])];
  const turns = [...all.map((place) => place.turns), ...(peakTurns === null ? [] : [peakTurns])];
  const from = Math.min(-0.15, ...turns) - 0.05;
  const to = Math.max(0.15, ...turns) + 0.05;
  const heights = [...all.map(({ levelDb }) => levelDb), ...(heldDb === null ? [] : [heldDb])];
  const high = Math.max(...heights, -60) + 0.5;
  const low = Math.min(...heights, high - 3) - 0.5;
  const x = (t: number) => LEFT + ((t - from) / (to - from)) * (WIDTH - LEFT - RIGHT);
  const y = (db: number) => TOP + ((high - db) / (high - low)) * (HEIGHT - TOP - BOTTOM);
  const path = levels
    .toSorted((a, b) => a.turns - b.turns)
    .map((place, i) => `${i === 0 ? "M" : "L"}${x(place.turns)} ${y(place.levelDb)}`)
    .join("");
  return (
    <Box sx={{ lineHeight: 0 }}>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        width="100%"
        role="img"
        aria-label={`Level against turns of the screw${side ? `: ${SIDE_WORDS[side]}` : ""}`}
      >
        <line x1={LEFT} x2={WIDTH - RIGHT} y1={HEIGHT - BOTTOM} y2={HEIGHT - BOTTOM} stroke={SOFT} />
        {[high - 0.5, low + 0.5].map((db) => (
          <text key={db} x={LEFT - 8} y={y(db) + 5} textAnchor="end" fontSize={13} fill={SOFT}>
            {fixed(db, 1)}
          </text>
        ))}
        <text x={LEFT - 8} y={HEIGHT - 10} textAnchor="end" fontSize={13} fill={SOFT}>
          dBFS
        </text>
        {heldDb !== null && (
          <>
            <line
              x1={LEFT}
              x2={WIDTH - RIGHT}
              y1={y(heldDb)}
              y2={y(heldDb)}
              stroke={token("settled")}
              strokeWidth={2}
              strokeDasharray="7 5"
            />
            <text x={WIDTH - RIGHT} y={y(heldDb) - 5} textAnchor="end" fontSize={13} fill={SOFT}>
              loudest so far
            </text>
          </>
        )}
        {peakTurns !== null && (
          <line
            x1={x(peakTurns)}
            x2={x(peakTurns)}
            y1={TOP}
            y2={HEIGHT - BOTTOM}
            stroke={token("oxide")}
            strokeWidth={3}
          />
        )}
        <path d={path} fill="none" stroke={INK} strokeWidth={1.5} strokeDasharray="3 3" />
        {levels.map((place, i) => (
          <circle
            key={i}
            cx={x(place.turns)}
            cy={y(place.levelDb)}
            r={5}
            fill={token("leader")}
            stroke={INK}
            strokeWidth={2}
          />
        ))}
        {present && <circle cx={x(present.turns)} cy={y(present.levelDb)} r={9} fill={INK} />}
        <text x={LEFT} y={HEIGHT - 10} fontSize={13} fill={SOFT}>
          anticlockwise
        </text>
        <text x={(LEFT + WIDTH - RIGHT) / 2} y={HEIGHT - 10} textAnchor="middle" fontSize={15} fill={INK}>
          {side ? SIDE_WORDS[side] : "turns of the screw"}
        </text>
        <text x={WIDTH - RIGHT} y={HEIGHT - 10} textAnchor="end" fontSize={13} fill={SOFT}>
          clockwise
        </text>
      </svg>
      <Button size="small" color="inherit" variant="outlined" onClick={onClear}>
        Begin the peak hold anew
      </Button>
    </Box>
  );
}
