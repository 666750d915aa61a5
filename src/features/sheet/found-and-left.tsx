import { fixed } from "@/core/text/number-text";
import { quantityOf } from "@/core/alignment/registry";
import { UNIT_WORDS } from "@/core/text/units";
import type { SheetRow } from "@/core/alignment/sheet";
import { spanFor } from "@/ui/rule";

const WIDTH = 660;
const MARGIN = 24;

/** As found (hollow) and as left (solid) on one ruler with the window between the limits. */
export function FoundAndLeft({ row }: { row: SheetRow }) {
  const figures = [row.asFound, row.asLeft].flatMap((figure) => figure?.reading.value ?? []);
  if (figures.length === 0) return null;
  const { signed, unit, scale, atLeast = false } = quantityOf(row.quantity);
  const span = scale?.[1] ?? spanFor(Math.max(...figures.map(Math.abs)), row.limit ?? 0, unit);
  const low = scale?.[0] ?? (signed ? -span : 0);
  const x = (value: number) =>
    MARGIN + ((Math.max(low, Math.min(span, value)) - low) / (span - low)) * (WIDTH - 2 * MARGIN);
  const passes =
    row.limit === null ? null : atLeast ? [row.limit, span] : [signed ? -row.limit : 0, row.limit];
  const wedge = (value: number) => `M${x(value) - 6} 14 h12 v10 L${x(value)} 40 L${x(value) - 6} 24 z`;
  return (
    <svg
      viewBox={`0 0 ${WIDTH} 68`}
      width="100%"
      role="img"
      aria-label={`${row.name}: as found ${row.asFound ? fixed(row.asFound.reading.value, 3) : "not taken"}, as left ${row.asLeft ? fixed(row.asLeft.reading.value, 3) : "not taken"} ${UNIT_WORDS[unit]}`}
    >
      {passes && (
        <rect x={x(passes[0])} y={20} width={x(passes[1]) - x(passes[0])} height={21} fill="var(--window)" />
      )}
      <line x1={MARGIN} x2={WIDTH - MARGIN} y1={41} y2={41} stroke="var(--ink)" strokeWidth={1.5} />
      {(signed ? [0, 0.25, 0.5, 0.75, 1] : [0, 0.2, 0.4, 0.6, 0.8, 1]).map((t) => {
        const value = low + (span - low) * t;
        return (
          <g key={t}>
            <line x1={x(value)} x2={x(value)} y1={41} y2={48} stroke="var(--ink)" />
            <text x={x(value)} y={61} textAnchor="middle" fontSize={11} fill="var(--soft)">
              {fixed(value, span >= 20 ? 0 : span >= 4 ? 1 : span >= 0.4 ? 2 : 3, signed)}
            </text>
          </g>
        );
      })}
      {row.asFound && (
        <path d={wedge(row.asFound.reading.value)} fill="none" stroke="var(--ink)" strokeWidth={1.5} />
      )}
      {row.asLeft && <path d={wedge(row.asLeft.reading.value)} fill="var(--ink)" />}
      {row.asFound && (
        <text x={x(row.asFound.reading.value)} y={10} textAnchor="middle" fontSize={11} fill="var(--soft)">
          {row.asLeft && Math.abs(x(row.asLeft.reading.value) - x(row.asFound.reading.value)) < 70
            ? "found, left"
            : "as found"}
        </text>
      )}
      {row.asLeft &&
        !(row.asFound && Math.abs(x(row.asLeft.reading.value) - x(row.asFound.reading.value)) < 70) && (
          <text x={x(row.asLeft.reading.value)} y={10} textAnchor="middle" fontSize={11} fill="var(--soft)">
            as left
          </text>
        )}
    </svg>
  );
}
