"use client";
import Box from "@mui/material/Box";
import { useColorScheme } from "@mui/material/styles";
import { useEffect, useRef } from "react";

interface SpectrogramProps {
  label: string;
  /** One row per moment, each with the peak deviation in percent at every rate, slowest first. */
  rows: number[][];
  fromHz: number;
  toHz: number;
}

const HEIGHT = 120;
/** From nothing to ink: so many decades below the strongest. */
const DECADES = 1.7;

/** Rates from bottom to top, time from left to right; the darker, the more. */
export function Spectrogram({ label, rows, fromHz, toHz }: SpectrogramProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { colorScheme } = useColorScheme();
  useEffect(() => {
    const paper = canvas.current?.getContext("2d");
    if (!canvas.current || !paper || rows.length === 0) return;
    const { width, height } = canvas.current;
    paper.clearRect(0, 0, width, height);
    paper.fillStyle = getComputedStyle(canvas.current).color;
    const most = Math.max(1e-6, ...rows.flat());
    rows.forEach((row, t) =>
      row.forEach((percent, r) => {
        const shade = 1 + Math.log10(Math.max(percent, 1e-9) / most) / DECADES;
        if (shade <= 0) return;
        paper.globalAlpha = shade;
        const [x0, x1] = [t, t + 1].map((i) => Math.round((i / rows.length) * width));
        const [y0, y1] = [r + 1, r].map((i) => Math.round((1 - i / row.length) * height));
        paper.fillRect(x0, y0, x1 - x0, y1 - y0);
      }),
    );
  }, [rows, colorScheme]);
  return (
    <Box sx={{ lineHeight: 1.2 }}>
      <Box
        component="canvas"
        ref={canvas}
        role="img"
        aria-label={label}
        width={660}
        height={HEIGHT}
        sx={{ width: "100%", height: HEIGHT, border: 1, borderColor: "divider", color: "text.primary" }}
      />
      <Box sx={{ color: "text.secondary", fontSize: 13 }}>
        {label}, from {fromHz} Hz at the bottom to {toHz} Hz at the top
      </Box>
    </Box>
  );
}
