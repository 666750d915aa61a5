import type { ResponseCurve } from "@/core/alignment/response-curves";
import type { Corridor } from "@/core/standards/tolerance-classes";

const WIDTH = 660;
const HEIGHT = 206;
const LEFT = 40;
const RIGHT = 12;
const TOP = 10;
const BOTTOM = 42;
const FROM_HZ = 25;
const TO_HZ = 20_000;
const LABELLED_HZ = [31.5, 63, 125, 250, 500, 1000, 2000, 4000, 8000, 16_000];
const LEAST_DB = 3;

/** Response as found (thin, hollow) and as left (solid), left round and right square, with the corridor of the class. */
export function SheetCurves({ curves, corridor }: { curves: ResponseCurve[]; corridor: Corridor | null }) {
  if (curves.length === 0 || corridor === null) return null;
  const reach = Math.ceil(
    Math.max(
      LEAST_DB,
      1.2 * corridor.db,
      ...curves.flatMap(({ points }) => points.map(({ levelDb }) => Math.abs(levelDb))),
    ),
  );
  const x = (hz: number) =>
    LEFT + (Math.log(hz / FROM_HZ) / Math.log(TO_HZ / FROM_HZ)) * (WIDTH - LEFT - RIGHT);
  const y = (db: number) => TOP + ((reach - db) / (2 * reach)) * (HEIGHT - TOP - BOTTOM);
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      width="100%"
      role="img"
      aria-label={`Response: ${curves.map(({ channel, phase, points }) => `${channel} ${phase}, ${points.length} bands`).join("; ")}`}
    >
      <rect
        x={x(corridor.fromHz)}
        y={y(corridor.db)}
        width={x(corridor.toHz) - x(corridor.fromHz)}
        height={y(-corridor.db) - y(corridor.db)}
        fill="var(--window)"
      />
      {[-reach, 0, reach].map((db) => (
        <g key={db}>
          <line x1={LEFT} x2={WIDTH - RIGHT} y1={y(db)} y2={y(db)} stroke="var(--line)" />
          <text x={LEFT - 6} y={y(db) + 4} textAnchor="end" fontSize={11} fill="var(--soft)">
            {db > 0 ? `+${db}` : db < 0 ? `−${-db}` : "0"}
          </text>
        </g>
      ))}
      {LABELLED_HZ.map((hz) => (
        <text key={hz} x={x(hz)} y={HEIGHT - 26} textAnchor="middle" fontSize={11} fill="var(--soft)">
          {hz >= 1000 ? `${hz / 1000}k` : hz}
        </text>
      ))}
      {curves.map((curve) => (
        <Curve key={`${curve.channel} ${curve.side} ${curve.phase}`} curve={curve} x={x} y={y} />
      ))}
      <text x={LEFT} y={HEIGHT - 8} fontSize={11} fill="var(--soft)">
        dB, Hz. Hollow: as found. Solid: as left. Round, solid line: left. Square, dashed: right.
      </text>
    </svg>
  );
}

interface CurveProps {
  curve: ResponseCurve;
  x(hz: number): number;
  y(db: number): number;
}

function Curve({ curve: { channel, phase, points }, x, y }: CurveProps) {
  const right = channel === "right";
  const left = phase === "as left";
  const path = points.map(
    ({ frequencyHz, levelDb }, i) =>
      `${i === 0 ? "M" : "L"}${x(frequencyHz).toFixed(1)} ${y(levelDb).toFixed(1)}`,
  );
  const mark = { fill: left ? "var(--ink)" : "#fff", stroke: "var(--ink)", strokeWidth: 1 };
  return (
    <g>
      <path
        d={path.join("")}
        fill="none"
        stroke="var(--ink)"
        strokeWidth={left ? 1.6 : 0.8}
        strokeDasharray={right ? "5 3" : undefined}
      />
      {points.map(({ frequencyHz, levelDb }) =>
        right ? (
          <rect key={frequencyHz} x={x(frequencyHz) - 3} y={y(levelDb) - 3} width={6} height={6} {...mark} />
        ) : (
          <circle key={frequencyHz} cx={x(frequencyHz)} cy={y(levelDb)} r={3} {...mark} />
        ),
      )}
    </g>
  );
}
