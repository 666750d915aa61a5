import type { OrderLine } from "@/core/measure/order-lines";
import { fixed } from "@/core/text/number-text";
import { INK, SOFT, token } from "./theme";
import { useId } from "react";

interface HarmonicLadderProps {
  label: string;
  tape: readonly OrderLine[];
  source: readonly OrderLine[];
}

const WIDTH = 330;
const HEIGHT = 178;
const TOP = 14;
const BOTTOM = 140;
const LEFT = 40;
const HIGHEST_DB = -20;
const LOWEST_DB = -90;

/** Harmonics re the tone as a ladder: source hollow beside tape solid, hatched up to the floor that hides what is lower. */
export function HarmonicLadder({ label, tape, source }: HarmonicLadderProps) {
  const hatch = useId();
  const y = (db: number) =>
    TOP +
    ((HIGHEST_DB - Math.max(LOWEST_DB, Math.min(HIGHEST_DB, db))) / (HIGHEST_DB - LOWEST_DB)) *
      (BOTTOM - TOP);
  const step = (WIDTH - LEFT) / Math.max(1, tape.length);
  return (
    <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} width="100%" role="img" aria-label={label}>
      <defs>
        <pattern id={hatch} width={7} height={7} patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width={2.5} height={7} fill={token("stale")} opacity={0.7} />
        </pattern>
      </defs>
      {[-20, -40, -60, -80].map((db) => (
        <g key={db}>
          <line x1={LEFT} x2={WIDTH} y1={y(db)} y2={y(db)} stroke={token("line")} />
          <text x={LEFT - 5} y={y(db) + 4} textAnchor="end" fontSize={12} fill={SOFT}>
            {fixed(db, 0)}
          </text>
        </g>
      ))}
      {tape.map(({ order, levelDb, floorDb, measurable, percent }, i) => {
        const x = LEFT + i * step;
        const went = source.find((line) => line.order === order);
        return (
          <g key={order}>
            <rect
              x={x + 2}
              width={step - 4}
              y={y(floorDb)}
              height={BOTTOM - y(floorDb)}
              fill={`url(#${hatch})`}
            />
            {went?.measurable && (
              <rect
                x={x + 0.12 * step}
                width={0.26 * step}
                y={y(went.levelDb)}
                height={BOTTOM - y(went.levelDb)}
                fill="none"
                stroke={SOFT}
                strokeWidth={2}
              />
            )}
            {measurable && (
              <rect
                x={x + 0.42 * step}
                width={0.44 * step}
                y={y(levelDb)}
                height={BOTTOM - y(levelDb)}
                fill={order === 3 ? token("oxide") : INK}
              />
            )}
            <text
              x={x + step / 2}
              y={BOTTOM + 15}
              textAnchor="middle"
              fontSize={13}
              fontWeight={order === 3 ? 750 : 500}
              fill={INK}
            >
              {order}
            </text>
            <text x={x + step / 2} y={BOTTOM + 31} textAnchor="middle" fontSize={12} fill={SOFT}>
              {measurable ? `${fixed(percent, 2)}` : "hidden"}
            </text>
          </g>
        );
      })}
      <text x={LEFT - 5} y={BOTTOM + 15} textAnchor="end" fontSize={12} fill={SOFT}>
        order
      </text>
      <text x={LEFT - 5} y={BOTTOM + 31} textAnchor="end" fontSize={12} fill={SOFT}>
        %
      </text>
    </svg>
  );
}
