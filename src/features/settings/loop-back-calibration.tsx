"use client";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import LinearProgress from "@mui/material/LinearProgress";
import { fixed } from "@/core/text/number-text";
import type { Calibration } from "@/core/records/input-calibration";
import { Card } from "@/ui/card";
import type { LoopBack } from "@/core/live/loop-back";
import { useLoopBack } from "./use-loop-back";

interface LoopBackCalibrationProps {
  input: { deviceId: string; name: string } | null;
  known: Calibration["loopBack"];
  measure(toneHz: number): Promise<LoopBack>;
}

/** Measures what the card adds by itself, with its output cabled to its input. */
export function LoopBackCalibration({ input, known, measure }: LoopBackCalibrationProps) {
  const { share, trouble, start } = useLoopBack(input, measure);
  return (
    <Card title="Loop-back">
      <Box sx={{ color: "text.secondary", lineHeight: 1.4, mb: 1.5 }}>
        Cable the output to the input, loudspeakers off. A 1 kHz tone plays at −6 dBFS for five seconds, then
        silence: what comes back beside it is the card’s own.
      </Box>
      <Button variant="contained" disabled={!input || share !== null} onClick={() => void start()}>
        Measure
      </Button>
      {share !== null && (
        <LinearProgress
          variant="determinate"
          value={100 * share}
          aria-label="Measuring the loop-back"
          sx={{ mt: 1.5 }}
        />
      )}
      {trouble && (
        <Alert severity="warning" sx={{ mt: 1.5 }}>
          {trouble}
        </Alert>
      )}
      <Box sx={{ mt: 1.5, lineHeight: 1.4 }}>
        {known
          ? `Kept: second harmonic ${fixed(known.secondDb, 0)} dB, third ${fixed(known.thirdDb, 0)} dB, noise ${fixed(known.noiseDbfs, 0)} dBFS, ${known.at.slice(0, 10)}. Less than that cannot be measured with this card.`
          : "Not measured: what this card cannot tell is not known."}
      </Box>
    </Card>
  );
}
