import { partRates, type MachinePart } from "@/core/workshop/machine-part";
import { INK, READING_FONT, SOFT, token } from "@/ui/theme";

const WIDTH = 900;
const LEFT = 150;
const RIGHT = 20;
const ROW = 30;
const FROM_HZ = 0.1;
const TO_HZ = 200;
const TICKS = [0.1, 0.2, 0.5, 1, 2, 5, 10, 20, 50, 100, 200];

interface RateRulerProps {
  parts: MachinePart[];
  speedCmPerS: number;
  firstSpeedCmPerS: number;
}

/** Where each part's line will stand in the rate spectrum; a reel wanders between two ends. */
export function RateRuler({ parts, speedCmPerS, firstSpeedCmPerS }: RateRulerProps) {
  const rates = partRates(parts, speedCmPerS, firstSpeedCmPerS).toSorted((a, b) => a.fromHz - b.fromHz);
  const x = (hz: number) =>
    LEFT +
    (Math.log(Math.min(TO_HZ, Math.max(FROM_HZ, hz)) / FROM_HZ) / Math.log(TO_HZ / FROM_HZ)) *
      (WIDTH - LEFT - RIGHT);
  const height = ROW * rates.length + 34;
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${height}`}
      width="100%"
      role="img"
      aria-label="Rates of the parts, turns per second"
    >
      {TICKS.map((hz) => (
        <g key={hz}>
          <line x1={x(hz)} x2={x(hz)} y1={4} y2={height - 28} stroke={token("line")} />
          <text
            x={x(hz)}
            y={height - 10}
            fontSize={14}
            textAnchor="middle"
            fill={SOFT}
            fontFamily={READING_FONT}
          >
            {hz}
          </text>
        </g>
      ))}
      {rates.map(({ part, fromHz, toHz }, i) => {
        const y = ROW * i + ROW / 2 + 2;
        const still = toHz === fromHz;
        return (
          <g key={part.name}>
            <text x={LEFT - 12} y={y + 5} fontSize={16} textAnchor="end" fill={INK}>
              {part.name}
            </text>
            <line x1={x(fromHz)} x2={x(toHz)} y1={y} y2={y} stroke={token("oxide")} strokeWidth={8} />
            {still && <circle cx={x(fromHz)} cy={y} r={7} fill={token("oxide")} />}
            <text
              x={x(toHz) > WIDTH - 150 ? x(fromHz) - 12 : x(toHz) + 12}
              y={y + 5}
              fontSize={14}
              textAnchor={x(toHz) > WIDTH - 150 ? "end" : "start"}
              fill={SOFT}
              fontFamily={READING_FONT}
            >
              {still ? `${fromHz.toFixed(2)} Hz` : `${fromHz.toFixed(2)} to ${toHz.toFixed(2)} Hz`}
            </text>
          </g>
        );
      })}
    </svg>
  );
}
