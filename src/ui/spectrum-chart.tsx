"use client";
import Box from "@mui/material/Box";
import type { Chart, Plugin } from "chart.js";
import { useMemo, useRef, memo } from "react";
import { Line } from "react-chartjs-2";
import { POINTS_FROM_HZ, type RatePoint } from "@/core/measure/rate-points";
import { ChartExports } from "./chart-exports";
import { useChartInk } from "./chart-ink";
import "./chart-setup";
import { TEXT_FONT } from "./theme";

export interface SpectrumMark {
  rateHz: number;
  label: string;
}

interface SpectrumChartProps {
  points: RatePoint[];
  /** Names written over their lines. */
  marks: SpectrumMark[];
  onPng(dataUrl: string): void;
  onCsv(): void;
}

const RATES = [0.05, 0.1, 0.2, 0.5, 1, 2, 5, 10, 20, 50, 100, 200];

/** Peak deviation against rate, 0.05 to 200 Hz. */
export const SpectrumChart = memo(function SpectrumChart({
  points,
  marks,
  onPng,
  onCsv,
}: SpectrumChartProps) {
  const chart = useRef<Chart<"line", { x: number; y: number }[]>>(null);
  const { ink, soft, line } = useChartInk();
  const data = useMemo(
    () => ({
      datasets: [
        {
          data: points.map(({ rateHz, percent }) => ({ x: rateHz, y: percent })),
          borderColor: ink,
          borderWidth: 1.5,
          pointRadius: 0,
          pointHitRadius: 8,
        },
      ],
    }),
    [points, ink],
  );
  const names = useMemo(() => namesOver(marks, soft), [marks, soft]);
  const title = (text: string) => ({ display: true, text, color: soft, font: { size: 13 } });
  return (
    <Box>
      <Box sx={{ height: 168 }}>
        <Line
          ref={chart}
          aria-label="Rate spectrum of the deviation"
          role="img"
          data={data}
          plugins={[names]}
          redraw={false}
          key={marks.map(({ label }) => label).join()}
          options={{
            animation: false,
            maintainAspectRatio: false,
            interaction: { mode: "nearest", axis: "x", intersect: false },
            plugins: {
              tooltip: {
                callbacks: {
                  title: ([item]) => `${(item.parsed.x ?? 0).toFixed(2)} Hz`,
                  label: (item) => `±${(item.parsed.y ?? 0).toFixed(4)} %`,
                },
              },
            },
            scales: {
              x: {
                type: "logarithmic",
                min: POINTS_FROM_HZ,
                max: 200,
                title: title("rate, Hz"),
                grid: { color: line },
                afterBuildTicks: (axis) => {
                  axis.ticks = RATES.map((value) => ({ value }));
                },
                ticks: { color: soft, callback: (value) => String(value), font: { size: 13 } },
              },
              y: {
                min: 0,
                title: title("peak deviation, %"),
                grid: { color: line },
                ticks: { color: soft, maxTicksLimit: 5, font: { size: 13 } },
              },
            },
          }}
        />
      </Box>
      <ChartExports onPng={() => chart.current && onPng(chart.current.toBase64Image())} onCsv={onCsv} />
    </Box>
  );
});

/** Writes each name above the place of its line, on three rows so that near ones do not cover each other. */
function namesOver(marks: SpectrumMark[], color: string): Plugin<"line"> {
  return {
    id: "names",
    afterDatasetsDraw({ ctx, scales, chartArea }) {
      ctx.save();
      ctx.fillStyle = ctx.strokeStyle = color;
      ctx.font = `13px ${TEXT_FONT}`;
      marks.forEach(({ rateHz, label }, i) => {
        const x = scales.x.getPixelForValue(rateHz);
        const y = chartArea.top + 12 + 15 * (i % 3);
        ctx.textAlign = x > chartArea.right - 70 ? "right" : "left";
        ctx.fillText(label, x + (ctx.textAlign === "right" ? -4 : 4), y);
        ctx.globalAlpha = 0.5;
        ctx.beginPath();
        ctx.moveTo(x, y - 10);
        ctx.lineTo(x, chartArea.bottom);
        ctx.stroke();
        ctx.globalAlpha = 1;
      });
      ctx.restore();
    },
  };
}
