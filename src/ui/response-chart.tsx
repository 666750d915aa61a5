"use client";
import Box from "@mui/material/Box";
import { useMemo } from "react";
import { Line } from "react-chartjs-2";
import { useChartInk } from "./chart-ink";
import "./chart-setup";

export interface ResponseLine {
  label: string;
  points: Array<{ frequencyHz: number; db: number }>;
  /** Channels have their own colour, stroke and mark everywhere; a model is a thin line without marks. */
  look: "left" | "right" | "model" | "plain";
}

interface ResponseChartProps {
  label: string;
  lines: ResponseLine[];
  height?: number;
  /** The scale is never closer than this either way of 0 dB. */
  leastDb?: number;
}

const THIRDS = [31.5, 63, 125, 250, 500, 1000, 2000, 4000, 8000, 16000];
const hertz = (hz: number) => (hz >= 1000 ? `${hz / 1000}k` : String(hz));

/** Levels against frequency, on the usual logarithmic axis. */
export function ResponseChart({ label, lines, height = 240, leastDb = 3 }: ResponseChartProps) {
  const { ink, soft, line, oxide, left, right } = useChartInk();
  const data = useMemo(
    () => ({
      datasets: lines.map(({ label: name, points, look }) => ({
        label: name,
        data: points.map(({ frequencyHz, db }) => ({ x: frequencyHz, y: db })),
        borderColor: { left, right, model: oxide, plain: ink }[look],
        backgroundColor: { left, right, model: oxide, plain: ink }[look],
        borderWidth: look === "model" ? 1.5 : 2,
        borderDash: look === "right" ? [6, 4] : look === "model" ? [2, 3] : [],
        pointStyle: ({ left: "circle", right: "rect", model: "line", plain: "line" } as const)[look],
        pointRadius: look === "left" || look === "right" ? 4 : 0,
        pointHitRadius: 8,
      })),
    }),
    [lines, ink, oxide, left, right],
  );
  const values = lines.flatMap(({ points }) => points.map(({ db }) => db)).filter(Number.isFinite);
  const title = (text: string) => ({ display: true, text, color: soft, font: { size: 13 } });
  return (
    <Box sx={{ height }}>
      <Line
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
              labels: { color: soft, usePointStyle: true, boxHeight: 7, font: { size: 13 } },
            },
            tooltip: {
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
  );
}
