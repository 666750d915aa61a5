"use client";
import Box from "@mui/material/Box";
import type { Chart } from "chart.js";
import { useMemo, useRef } from "react";
import { Line } from "react-chartjs-2";
import type { Corridor } from "@/core/standards/tolerance-classes";
import { ChartExports } from "./chart-exports";
import { useChartInk } from "./chart-ink";
import "./chart-setup";

export interface ResponseLine {
  label: string;
  points: Array<{ frequencyHz: number; db: number }>;
  /**
   * Channels have their own colour, stroke and mark everywhere; as found stands behind them, thin and hollow; a model is a
   * thin line without marks.
   */
  look: Look;
}

export type Look = "left" | "right" | "left found" | "right found" | "model" | "plain";

interface ResponseChartProps {
  label: string;
  lines: ResponseLine[];
  height?: number;
  /** The scale is never closer than this either way of 0 dB. */
  leastDb?: number;
  /** What passes, drawn as a band. */
  corridor?: Corridor | null;
  /** Offers to take it out: the picture as a data URL, and the numbers. */
  exports?: { onPng(dataUrl: string): void; onCsv(): void };
}

const CORRIDOR = "corridor";

/** Upper and lower edge of what passes, with the space between them filled. */
function corridorLines(corridor: Corridor | null, colour: string) {
  if (!corridor) return [];
  const edge = (db: number) => [corridor.fromHz, corridor.toHz].map((x) => ({ x, y: db }));
  const plain = { label: CORRIDOR, borderWidth: 0, pointRadius: 0, pointHitRadius: 0, order: 9 };
  return [
    { ...plain, data: edge(corridor.db), backgroundColor: colour, fill: "+1" },
    { ...plain, data: edge(-corridor.db) },
  ];
}

const MANY_POINTS = 30;

/** Of a curve with many points each mark is smaller, so that the line is seen. */
function radiusOf(look: Look, points: number): number {
  if (look === "model" || look === "plain") return 0;
  const whole = look.endsWith("found") ? 3 : 4;
  return points > MANY_POINTS ? whole / 2 : whole;
}

const THIRDS = [31.5, 63, 125, 250, 500, 1000, 2000, 4000, 8000, 16000];
const hertz = (hz: number) => (hz >= 1000 ? `${hz / 1000}k` : String(hz));

/** Levels against frequency, on the usual logarithmic axis. */
export function ResponseChart({
  label,
  lines,
  height = 240,
  leastDb = 3,
  corridor = null,
  exports,
}: ResponseChartProps) {
  const chart = useRef<Chart<"line", { x: number; y: number }[]>>(null);
  const { ink, soft, line, oxide, left, right, window } = useChartInk();
  const data = useMemo(
    () => ({
      datasets: [
        ...lines.map(({ label: name, points, look }) => {
          const colour = look.startsWith("left")
            ? left
            : look.startsWith("right")
              ? right
              : look === "model"
                ? oxide
                : ink;
          const found = look.endsWith("found");
          return {
            label: name,
            data: points.map(({ frequencyHz, db }) => ({ x: frequencyHz, y: db })),
            borderColor: colour,
            backgroundColor: found ? "transparent" : colour,
            borderWidth: found ? 1 : look === "model" ? 1.5 : 2,
            borderDash: look === "right" ? [6, 4] : look === "model" || found ? [2, 3] : [],
            pointStyle: look.startsWith("left") ? "circle" : look.startsWith("right") ? "rect" : "line",
            pointRadius: radiusOf(look, points.length),
            pointHitRadius: 8,
          };
        }),
        ...corridorLines(corridor, window),
      ],
    }),
    [lines, ink, oxide, left, right, window, corridor],
  );
  const values = lines.flatMap(({ points }) => points.map(({ db }) => db)).filter(Number.isFinite);
  const title = (text: string) => ({ display: true, text, color: soft, font: { size: 13 } });
  return (
    <Box>
      <Box sx={{ height }}>
        <Line
          ref={chart}
          aria-label={label}
          role="img"
          data={data}
          options={{
            animation: false,
            maintainAspectRatio: false,
            interaction: { mode: "nearest", axis: "x", intersect: false },
            plugins: {
              legend: {
                display: lines.length > 1,
                labels: {
                  color: soft,
                  usePointStyle: true,
                  boxHeight: 7,
                  font: { size: 13 },
                  filter: ({ text }) => text !== CORRIDOR,
                },
              },
              tooltip: {
                filter: ({ dataset }) => dataset.label !== CORRIDOR,
                callbacks: {
                  title: ([item]) => `${Math.round(item.parsed.x ?? 0)} Hz`,
                  label: (item) =>
                    `${item.dataset.label}: ${(item.parsed.y ?? 0).toFixed(2).replace("-", "−")} dB`,
                },
              },
            },
            scales: {
              x: {
                type: "logarithmic",
                min: 25,
                max: 20_000,
                title: title("frequency, Hz"),
                grid: { color: line },
                afterBuildTicks: (axis) => {
                  axis.ticks = THIRDS.map((value) => ({ value }));
                },
                ticks: { color: soft, callback: (value) => hertz(Number(value)), font: { size: 13 } },
              },
              y: {
                suggestedMin: Math.min(-leastDb, ...values),
                suggestedMax: Math.max(leastDb, ...values),
                title: title("level, dB"),
                grid: { color: line },
                ticks: {
                  color: soft,
                  maxTicksLimit: 7,
                  font: { size: 13 },
                  callback: (value) => String(value).replace("-", "−"),
                },
              },
            },
          }}
        />
      </Box>
      {exports && (
        <ChartExports
          onPng={() => chart.current && exports.onPng(chart.current.toBase64Image())}
          onCsv={exports.onCsv}
        />
      )}
    </Box>
  );
}
