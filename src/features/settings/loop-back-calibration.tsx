"use client";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import LinearProgress from "@mui/material/LinearProgress";
import { useEffect, useRef, useState } from "react";
import { playBlocks } from "@/audio/sound-player";
import { fixed } from "@/core/text/number-text";
import { single } from "@/core/signals/presets";
import type { Calibration } from "@/core/records/input-calibration";
import { changeCalibration } from "@/storage/calibrations";
import { Card } from "@/ui/card";
import { callback, handOver, startPlayer } from "@/workers/start-worker";
import type { LoopBack } from "@/core/live/loop-back";

interface LoopBackCalibrationProps {
  input: { deviceId: string; name: string } | null;
  outputId: string | null;
  known: Calibration["loopBack"];
  measure(toneHz: number): Promise<LoopBack>;
}

const TONE_HZ = 1000;
const TONE_SECONDS = 5;
const SILENT_SECONDS = 3;
const RATE_HZ = 48_000;

/** Measures what the card adds by itself, with its output cabled to its input. */
export function LoopBackCalibration({ input, outputId, known, measure }: LoopBackCalibrationProps) {
  const [share, setShare] = useState<number | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const running = useRef<AbortController | null>(null);
  // what is measured belongs to this input, and to somebody who is here
  useEffect(() => () => running.current?.abort(new Error("The input was changed. Measure again.")), [input]);

  const run = async () => {
    if (!input) return;
    setTrouble(null);
    setShare(0);
    const player = startPlayer();
    const over = new AbortController();
    running.current = over;
    try {
      const { port1, port2 } = new MessageChannel();
      const tone = single(
        { kind: "sine", channels: "both", frequencyHz: TONE_HZ, levelDb: -6, seconds: TONE_SECONDS },
        0.01,
      );
      await player.api.open(
        tone,
        RATE_HZ,
        handOver(port1, [port1]),
        callback((done: number) => setShare(0.6 * done)),
      );
      await unlessOver(over.signal, async (ended) => {
        const playing = await playBlocks(port2, RATE_HZ, outputId, 1, ended);
        over.signal.addEventListener("abort", playing.stop);
        if (over.signal.aborted) playing.stop();
      });
      setShare(0.7);
      await unlessOver(over.signal, (ended) => void setTimeout(ended, 1000 * SILENT_SECONDS));
      const loop = await unlessOver<LoopBack>(over.signal, async (done) => done(await measure(TONE_HZ)));
      await changeCalibration(input.deviceId, input.name, {
        loopBack: { ...loop, at: new Date().toISOString() },
      });
    } catch (error) {
      setTrouble((error as Error).message);
    } finally {
      player.end();
      setShare(null);
    }
  };

  return (
    <Card title="Loop-back">
      <Box sx={{ color: "text.secondary", lineHeight: 1.4, mb: 1.5 }}>
        Cable the output to the input, loudspeakers off. A 1 kHz tone plays at −6 dBFS for five seconds, then
        silence: what comes back beside it is the card’s own.
      </Box>
      <Button variant="contained" disabled={!input || share !== null} onClick={() => void run()}>
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

/** What is begun, to its end; rejects with the reason as soon as it is not wanted any more. */
function unlessOver<T = unknown>(
  over: AbortSignal,
  begin: (done: (value: T) => void) => Promise<void> | void,
): Promise<T> {
  return new Promise((done, failed) => {
    over.throwIfAborted();
    over.addEventListener("abort", () => failed(over.reason as Error));
    Promise.resolve(begin(done)).catch(failed);
  });
}
