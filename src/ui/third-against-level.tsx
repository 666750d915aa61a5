import type { DistortionStep } from "@/core/stations/distortion";
import { ZERO_DBFS } from "@/core/returned/returned";
import { fixed } from "@/core/text/number-text";
import { INK, SOFT, token } from "./theme";

interface ThirdAgainstLevelProps {
  label: string;
  steps: readonly DistortionStep[];
  molDb: number | null;
}

const WIDTH = 330;
const HEIGHT = 178;
const LEFT = 44;
const RIGHT = 10;
const TOP = 16;
const BOTTOM = 146;
const LOWEST = 0.01;
const HIGHEST = 10;

/** Third harmonic against sent level, both logarithmic, with the 3 % point flagged. */
export function ThirdAgainstLevel({ label, steps, molDb }: ThirdAgainstLevelProps) {
  const levels = steps.map(({ sentDbfs }) => sentDbfs - ZERO_DBFS);
  const [from, to] = [Math.min(-20, ...levels), Math.max(6, ...levels)];
  const x = (db: number) => LEFT + ((db - from) / (to - from)) * (WIDTH - LEFT - RIGHT);
  const y = (percent: number) =>
    BOTTOM -
    (Math.log(Math.max(LOWEST, Math.min(HIGHEST, percent)) / LOWEST) / Math.log(HIGHEST / LOWEST)) *
      (BOTTOM - TOP);
  const known = steps.filter(({ measurable }) => measurable);
  return (
    <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} width="100%" role="img" aria-label={label}>
      {[0.03, 0.3, 1, 3].map((percent) => (
        <g key={percent}>
          <line
            x1={LEFT}
            x2={WIDTH - RIGHT}
            y1={y(percent)}
            y2={y(percent)}
            stroke={token("line")}
            strokeWidth={percent === 3 ? 2 : 1}
          />
          <text x={LEFT - 5} y={y(percent) + 4} textAnchor="end" fontSize={12} fill={SOFT}>
            {percent} %
          </text>
        </g>
      ))}
      {[-20, -10, 0].map((db) => (
        <text key={db} x={x(db)} y={BOTTOM + 15} textAnchor="middle" fontSize={12} fill={SOFT}>
          {fixed(db, 0)}
        </text>
      ))}
      <text x={WIDTH - RIGHT} y={BOTTOM + 30} textAnchor="end" fontSize={12} fill={SOFT}>
        sent, dB re 0
      </text>
      <path
        d={known
          .map(
            ({ sentDbfs, thirdPercent }, i) =>
              `${i === 0 ? "M" : "L"}${x(sentDbfs - ZERO_DBFS)} ${y(thirdPercent)}`,
          )
          .join("")}
        fill="none"
        stroke={INK}
        strokeWidth={2.5}
      />
      {steps.map(({ sentDbfs, thirdPercent, measurable }) => (
        <circle
          key={sentDbfs}
          cx={x(sentDbfs - ZERO_DBFS)}
          cy={y(thirdPercent)}
          r={4}
          fill={measurable ? INK : token("leader")}
          stroke={measurable ? INK : SOFT}
        />
      ))}
      {molDb !== null && (
        <>
          <line x1={x(molDb)} x2={x(molDb)} y1={TOP} y2={BOTTOM} stroke={token("oxide")} strokeWidth={3} />
          <text
            x={x(molDb) - 6}
            y={TOP + 4}
            textAnchor="end"
            fontSize={14}
            fontWeight={750}
            fill={token("oxide")}
          >
            MOL {fixed(molDb, 1, true)} dB
          </text>
        </>
      )}
    </svg>
  );
}
