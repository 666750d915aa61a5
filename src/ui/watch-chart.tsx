import { StripFrame } from "./strip-frame";
import { INK, SOFT, token } from "./theme";

export interface WatchChartProps {
  label: string;
  stepSeconds: number;
  values: ReadonlyArray<number | null>;
  window: { from: number; to: number } | null;
  /** Places of events, in seconds from the start. */
  marks: number[];
  height?: number;
}

const WIDTH = 680;
const LEFT = 58;
const RIGHT = 10;
const TOP = 8;
const BOTTOM = 20;
const COLUMNS = 300;

/** A whole run on one strip: what lies in each column is drawn from its lowest to its highest value. */
export function WatchChart({ label, stepSeconds, values, window, marks, height = 120 }: WatchChartProps) {
  const columns = columnsOf(values);
  const known = columns.flatMap((c) => (c ? [c.low, c.high] : []));
  const sorted = known.toSorted((a, b) => a - b);
  const spare = Math.floor(0.01 * sorted.length);
  const all = [
    sorted[spare] ?? 0,
    sorted[sorted.length - 1 - spare] ?? 0,
    ...(window ? [window.from, window.to] : []),
  ];
  const low = Math.min(...all);
  const high = Math.max(...all);
  const pad = Math.max(0.01, 0.1 * (high - low));
  const total = Math.max(1, values.length) * stepSeconds;
  const x = (seconds: number) => LEFT + (seconds / total) * (WIDTH - LEFT - RIGHT);
  const y = (v: number) =>
    TOP + Math.max(0, Math.min(1, (high + pad - v) / (high - low + 2 * pad))) * (height - TOP - BOTTOM);
  const each = total / columns.length;
  let band = "";
  columns.forEach((c, i) => {
    if (c)
      band += `M${x((i + 0.5) * each).toFixed(1)} ${(y(c.high) - 0.8).toFixed(1)}V${(y(c.low) + 0.8).toFixed(1)}`;
  });
  const decimals = high - low < 0.3 ? 3 : 2;
  return (
    <svg viewBox={`0 0 ${WIDTH} ${height}`} width="100%" role="img" aria-label={label}>
      <StripFrame
        left={LEFT}
        right={WIDTH - RIGHT}
        top={TOP}
        bottom={height - BOTTOM}
        y={y}
        labels={[low, high]}
        decimals={decimals}
        window={window}
      />
      <path
        d={band}
        stroke={INK}
        strokeWidth={Math.max(1.4, ((WIDTH - LEFT - RIGHT) / columns.length) * 0.9)}
        fill="none"
      />
      {marks.map((at) => (
        <path key={at} d={`M${x(at)} ${TOP} l-5 -8 h10 z`} fill={token("fail")} />
      ))}
      <text x={LEFT} y={height - 4} fontSize={12} fill={SOFT}>
        {label}
      </text>
      <text x={WIDTH - RIGHT} y={height - 4} textAnchor="end" fontSize={12} fill={SOFT}>
        {minutes(total)}
      </text>
    </svg>
  );
}

const minutes = (seconds: number) =>
  seconds < 90 ? `${Math.round(seconds)} s` : `${(seconds / 60).toFixed(1)} min`;

function columnsOf(values: ReadonlyArray<number | null>): Array<{ low: number; high: number } | null> {
  const count = Math.max(1, Math.min(COLUMNS, values.length));
  return Array.from({ length: count }, (_, c) => {
    const from = Math.floor((c * values.length) / count);
    const to = Math.floor(((c + 1) * values.length) / count);
    const inside = values.slice(from, to).filter((v): v is number => v !== null);
    return inside.length === 0 ? null : { low: Math.min(...inside), high: Math.max(...inside) };
  });
}
