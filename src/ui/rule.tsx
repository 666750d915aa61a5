import Box from "@mui/material/Box";
import { fixed } from "@/core/text/number-text";
import { UNIT_WORDS, type Unit } from "@/core/text/units";
import { INK, READING_FONT, SOFT, token } from "./theme";

interface RuleProps {
  /** Present reading, its uncertainty, and the limits of the window, all in one unit. */
  value: number | null;
  uncertainty: number;
  window: { from: number; to: number } | null;
  asFound: number | null;
  lastLogged: number | null;
  /** Where to aim, when that is not nought. */
  target?: number;
  /** Words under the ends of the scale. */
  ends: [string, string];
  /** Runs from zero instead of either way from it. */
  oneSided?: boolean;
  /** Its ends, for what lies nowhere near nought; otherwise by the reading and its window. */
  scale?: readonly [number, number];
  unit?: Unit;
  /** For a column of half the width: the same letters on a shorter ruler. */
  narrow?: boolean;
}

const WIDE = 680;
const NARROW = 340;
const HEIGHT = 116;
const BASE = 66;
const MARGIN = 34;
const SPANS = [0.02, 0.05, 0.1, 0.2, 0.5, 1, 2, 5, 10, 20];
const SPANS_DEGREES = [20, 40, 90, 180, 360, 900, 1800, 3600];

/** The narrowest scale, in steps of 1, 2, 5, that holds the reading and its window. */
export function spanFor(value: number, window: number, unit: Unit = "%"): number {
  const needed = Math.max(1.15 * Math.abs(value), 1.3 * window);
  const spans = unit === "°" ? SPANS_DEGREES : SPANS;
  return spans.find((span) => span >= needed) ?? spans[spans.length - 1];
}

/** Decimals that the labels of a scale need, a label every half span. */
const decimalsOfScale = (span: number) =>
  span >= 10 ? 0 : span === 2 ? 0 : span >= 1 ? 1 : span === 0.2 ? 1 : 2;

/**
 * Target and tolerance as a ruler: the window a clear band, the present reading a wedge as wide as its
 * uncertainty, as found a hollow wedge, the last logged a thin line.
 */
export function Rule({
  value,
  uncertainty,
  window,
  asFound,
  lastLogged,
  target = 0,
  ends,
  oneSided: runsFromNought = false,
  scale,
  unit = "%",
  narrow = false,
}: RuleProps) {
  const width = narrow ? NARROW : WIDE;
  const span =
    scale?.[1] ??
    spanFor(value ?? asFound ?? 0, window ? Math.max(Math.abs(window.from), window.to) : 0.05, unit);
  const low = scale?.[0] ?? (runsFromNought ? 0 : -span);
  const oneSided = runsFromNought || scale !== undefined;
  const x = (t: number) =>
    MARGIN + ((Math.min(span, Math.max(low, t)) - low) / (span - low)) * (width - 2 * MARGIN);
  const major = oneSided ? 8 : 10;
  const decimals = scale ? 0 : oneSided ? (span >= 1 ? 1 : span >= 0.1 ? 2 : 3) : decimalsOfScale(span);
  const ticks = Array.from({ length: 41 }, (_, i) => ({ t: low + ((span - low) * i) / 40, i }));
  const off = (t: number) => t < low || t > span;
  const half = value === null ? 0 : Math.max(8, x(value + uncertainty) - x(value));
  return (
    <Box sx={{ lineHeight: 0 }}>
      <svg
        viewBox={`0 0 ${width} ${HEIGHT}`}
        width="100%"
        role="img"
        aria-label={`Ruler from ${fixed(low, decimals)} to ${fixed(span, decimals, true)} ${UNIT_WORDS[unit]}`}
      >
        {window && (
          <rect
            x={x(window.from)}
            y={BASE - 36}
            width={Math.max(0, x(window.to) - x(window.from))}
            height={36}
            fill={token("window")}
          />
        )}
        <line x1={MARGIN} x2={width - MARGIN} y1={BASE} y2={BASE} stroke={INK} strokeWidth={2} />
        {ticks.map(({ t, i }) => (
          <g key={i}>
            <line
              x1={x(t)}
              x2={x(t)}
              y1={BASE}
              y2={BASE + (i % major === 0 ? 14 : i % 5 === 0 && !oneSided ? 10 : 6)}
              stroke={INK}
              strokeWidth={i % major === 0 ? 2 : 1}
            />
            {i % major === 0 && (
              <text
                x={x(t)}
                y={BASE + 30}
                textAnchor="middle"
                fontSize={14}
                fontFamily={READING_FONT}
                fill={SOFT}
              >
                {fixed(t, decimals, !oneSided)}
              </text>
            )}
          </g>
        ))}
        {asFound !== null && (
          <>
            <Wedge x={x(asFound)} half={8} fill="none" stroke={SOFT} />
            <text
              x={x(asFound)}
              y={12}
              textAnchor={x(asFound) < 60 ? "start" : x(asFound) > width - 60 ? "end" : "middle"}
              fontSize={12.5}
              fill={SOFT}
            >
              {off(asFound) ? "as found, off the scale" : "as found"}
            </text>
          </>
        )}
        {lastLogged !== null && (
          <line
            x1={x(lastLogged)}
            x2={x(lastLogged)}
            y1={BASE - 42}
            y2={BASE}
            stroke={SOFT}
            strokeWidth={2}
          />
        )}
        {target !== 0 && (
          <g>
            <path
              d={`M${x(target)} ${BASE + 2} l-7 12 h14 z`}
              fill={token("oxide")}
              stroke={token("oxide")}
            />
            <text x={x(target)} y={BASE + 44} textAnchor="middle" fontSize={12.5} fill={token("oxide")}>
              aim here
            </text>
          </g>
        )}
        {value !== null && <Wedge x={x(value)} half={half} fill={INK} stroke={INK} />}
        <text x={MARGIN} y={HEIGHT - 3} fontSize={12.5} fill={SOFT}>
          {ends[0]}
        </text>
        <text x={width / 2} y={HEIGHT - 3} textAnchor="middle" fontSize={12.5} fill={SOFT}>
          {oneSided
            ? `${fixed(low, 0)} to ${fixed(span, decimals)} ${unit}`
            : `scale ±${fixed(span, decimals)} ${unit}`}
        </text>
        <text x={width - MARGIN} y={HEIGHT - 3} textAnchor="end" fontSize={12.5} fill={SOFT}>
          {ends[1]}
        </text>
      </svg>
    </Box>
  );
}

function Wedge({ x, half, fill, stroke }: { x: number; half: number; fill: string; stroke: string }) {
  return (
    <path
      d={`M${x - half} ${BASE - 48} h${2 * half} v20 L${x} ${BASE - 2} L${x - half} ${BASE - 28} z`}
      fill={fill}
      stroke={stroke}
      strokeWidth={2}
    />
  );
}
