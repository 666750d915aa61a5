import type { BeltPath } from "@/core/workshop/belt";
import { INK, READING_FONT, SOFT, token } from "@/ui/theme";

const WIDTH = 520;
const HEIGHT = 170;

/** The belt over its two pulleys, to scale. */
export function BeltDrawing({ largePulleyMm: D, smallPulleyMm: d, centreDistanceMm: C }: BeltPath) {
  const scale = Math.min((WIDTH - 60) / (C + (D + d) / 2), (HEIGHT - 30) / Math.max(D, d));
  const [R, r] = [(D / 2) * scale, (d / 2) * scale];
  const y = HEIGHT / 2;
  const left = (WIDTH - (C * scale + R + r)) / 2 + r;
  const right = left + C * scale;
  // tangents: the contact points are turned from the vertical by the angle of the difference of the radii
  const turn = Math.asin((R - r) / (C * scale));
  const point = (x: number, radius: number, side: 1 | -1) =>
    `${(x - radius * Math.sin(turn)).toFixed(1)} ${(y - side * radius * Math.cos(turn)).toFixed(1)}`;
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      width="100%"
      role="img"
      aria-label={`A belt over pulleys of ${d} and ${D} millimetres, ${C} millimetres apart`}
    >
      <circle cx={left} cy={y} r={r} fill="none" stroke={SOFT} strokeWidth={1.5} />
      <circle cx={right} cy={y} r={R} fill="none" stroke={SOFT} strokeWidth={1.5} />
      {[left, right].map((x) => (
        <circle key={x} cx={x} cy={y} r={2.5} fill={SOFT} />
      ))}
      <path
        d={`M${point(left, r, 1)} L${point(right, R, 1)} A${R} ${R} 0 1 1 ${point(right, R, -1)} L${point(left, r, -1)} A${r} ${r} 0 0 1 ${point(left, r, 1)} z`}
        fill="none"
        stroke={token("oxide")}
        strokeWidth={4}
        strokeLinejoin="round"
      />
      <line x1={left} x2={right} y1={y} y2={y} stroke={INK} strokeDasharray="4 4" />
      <text
        x={(left + right) / 2}
        y={y - 6}
        textAnchor="middle"
        fontSize={14}
        fontFamily={READING_FONT}
        fill={INK}
      >
        {C} mm
      </text>
    </svg>
  );
}
