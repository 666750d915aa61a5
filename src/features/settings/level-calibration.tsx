"use client";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import { fullScaleDbu } from "@/core/records/input-calibration";
import { whyNoSteadySine } from "@/core/measure/steady-sine";
import { fixed } from "@/core/text/number-text";
import type { SignalReport } from "@/core/measure/signal-findings";
import type { Calibration } from "@/core/records/input-calibration";
import { changeCalibration } from "@/storage/calibrations";
import { Card } from "@/ui/card";

interface LevelCalibrationProps {
  input: { deviceId: string; name: string } | null;
  report: SignalReport | null;
  known: Calibration["level"];
}

/** Turns dBFS into dBu from a sine of known voltage on both inputs. */
export function LevelCalibration({ input, report, known }: LevelCalibrationProps) {
  const [volts, setVolts] = useState("0.775");
  const value = Number(volts);
  const levels = report?.channels.map(({ rmsDbfs }) => rmsDbfs) ?? [];
  const why = report ? whyNoSteadySine(report) : "nothing is heard yet";
  const usable = value > 0 && value < 100 && why === null;
  const keep = () =>
    input &&
    void changeCalibration(input.deviceId, input.name, {
      level: {
        leftDbu: fullScaleDbu(value, levels[0]),
        rightDbu: fullScaleDbu(value, levels[1] ?? levels[0]),
        at: new Date().toISOString(),
      },
    });
  return (
    <Card title="Level">
      <Box sx={{ color: "text.secondary", lineHeight: 1.4, mb: 1.5 }}>
        Feed both channels a steady sine whose voltage was measured with a meter, and leave the input knob
        there.
      </Box>
      <TextField
        size="small"
        label="Volts RMS"
        value={volts}
        error={!(value > 0 && value < 100)}
        onChange={({ target }) => setVolts(target.value)}
      />
      <Box sx={{ my: 1.5, color: "text.secondary" }}>
        {why ?? `reads ${levels.map((level) => fixed(level + 3.01, 2)).join(" and ")} dBFS (sine peak)`}
      </Box>
      <Button variant="contained" disabled={!input || !usable} onClick={keep}>
        Keep
      </Button>
      <Box sx={{ mt: 1.5 }}>
        {known
          ? `Kept: full scale is ${fixed(known.leftDbu, 2, true)} dBu left, ${fixed(known.rightDbu, 2, true)} dBu right, ${known.at.slice(0, 10)}.`
          : "Not calibrated: levels are shown in dBFS only."}
      </Box>
    </Card>
  );
}
