import { fixed } from "@/core/text/number-text";
import { INK, READING_FONT, SOFT, token } from "./theme";

interface OnceAroundProps {
  label: string;
  /** Deviation over one turn, percent. */
  percent: ArrayLike<number>;
}

const WIDTH = 240;
const HEIGHT = 104;
const LEFT = 4;
const TOP = 20;
const BOTTOM = 20;

/** The deviation of a part over one of its turns, drawn once around from left to right. */
export function OnceAround({ label, percent }: OnceAroundProps) {
  const values = Array.from(percent);
  const top = Math.max(1e-6, ...values.map(Math.abs));
  const x = (i: number) => LEFT + (i / values.length) * (WIDTH - 2 * LEFT);
  const y = (v: number) => TOP + (0.5 - 0.48 * (v / top)) * (HEIGHT - TOP - BOTTOM);
  const path = [...values, values[0]]
    .map((v, i) => `${i === 0 ? "M" : "L"}${x(i).toFixed(1)} ${y(v).toFixed(1)}`)
    .join("");
  return (
    <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} width="100%" role="img" aria-label={label}>
      <text x={LEFT} y={13} fontSize={15} fill={SOFT} fontFamily={READING_FONT}>
        ±{fixed(top, 3)} %
      </text>
      <line x1={LEFT} x2={WIDTH - LEFT} y1={y(0)} y2={y(0)} stroke={token("line")} />
      <path d={path} fill="none" stroke={INK} strokeWidth={2} />
      <text x={WIDTH / 2} y={HEIGHT - 4} fontSize={15} fill={SOFT} textAnchor="middle">
        once around
      </text>
    </svg>
  );
}
