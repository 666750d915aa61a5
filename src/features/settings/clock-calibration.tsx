"use client";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import { clockFrom, clockIsKnown, UNCALIBRATED_PPM } from "@/core/records/input-calibration";
import { fixed, THIN_SPACE } from "@/core/text/number-text";
import type { ListeningResult } from "@/core/live/listening-result";
import type { Calibration } from "@/core/records/input-calibration";
import { changeCalibration } from "@/storage/calibrations";
import { Card } from "@/ui/card";
import { READING_FONT } from "@/ui/theme";

interface ClockCalibrationProps {
  input: { deviceId: string; name: string } | null;
  live: ListeningResult | null;
  toneHz: number;
  known: Calibration["clock"];
  onTone(hz: number): void;
}

/** Compares the device's clock with a frequency that is known better. */
export function ClockCalibration({ input, live, toneHz, known, onTone }: ClockCalibrationProps) {
  const [frequency, setFrequency] = useState(String(toneHz));
  const [uncertainty, setUncertainty] = useState("1");
  const hz = Number(frequency);
  const ppm = Number(uncertainty);
  const usable = hz >= 200 && hz <= 20_000 && ppm > 0;
  const speed = live?.speed ?? null;
  const settled = usable && speed?.settled ? speed : null;
  const found = settled && clockFrom(settled, ppm);
  const enough = settled !== null && clockIsKnown(settled, ppm);
  return (
    <Card title="Clock">
      <Box sx={{ color: "text.secondary", lineHeight: 1.4, mb: 1.5 }}>
        Feed a frequency that is known to a few millionths, from a locked generator or a certified tape on a
        proven deck.
      </Box>
      <Box sx={{ display: "flex", gap: 1 }}>
        <TextField
          size="small"
          label="True frequency, Hz"
          value={frequency}
          error={!(hz >= 200 && hz <= 20_000)}
          onChange={({ target }) => setFrequency(target.value)}
        />
        <TextField
          size="small"
          label="known to ±, ppm"
          value={uncertainty}
          error={!(ppm > 0)}
          onChange={({ target }) => setUncertainty(target.value)}
        />
      </Box>
      <Box sx={{ fontFamily: READING_FONT, my: 1.5, fontSize: 18 }} role="status">
        {found
          ? `${fixed(found.ppm, 1, true)} ± ${found.uncertaintyPpm.toFixed(1)}${THIN_SPACE}ppm${enough ? "" : ": listen on"}`
          : speed
            ? "settling…"
            : "no tone yet"}
      </Box>
      <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap" }}>
        <Button variant="outlined" disabled={!usable} onClick={() => onTone(hz)}>
          Listen to it
        </Button>
        <Button
          variant="contained"
          disabled={!input || !enough || hz !== toneHz}
          onClick={() =>
            input &&
            found &&
            void changeCalibration(input.deviceId, input.name, {
              clock: { ...found, at: new Date().toISOString() },
            })
          }
        >
          Keep
        </Button>
      </Box>
      <Box sx={{ mt: 1.5 }}>
        {known
          ? `Kept: ${fixed(known.ppm, 1, true)} ± ${known.uncertaintyPpm.toFixed(1)} ppm, ${known.at.slice(0, 10)}.`
          : `Not calibrated: taken as right within ±${UNCALIBRATED_PPM} ppm.`}
      </Box>
    </Card>
  );
}
