"use client";
import Typography from "@mui/material/Typography";
import { explainTransport, NOTHING_KNOWN } from "@/core/advice/explain-transport";
import { speed, speedLimit } from "@/core/stations/speed";
import { POSITIONS, SUPPLIES } from "@/core/records/reading";
import { SIDES } from "@/core/records/fields";
import { speedDifference } from "@/core/guidance/speed-sides";
import { readingsOf } from "@/core/alignment/station-state";
import { Card } from "@/ui/card";
import type { JobView } from "@/features/job/use-job-records";

const MOST_REASONS = 2;

/** What the logged speeds usually mean, each with the reading that speaks for it; nothing while nothing does. */
export function LikelyReasons({ view }: { view: JobView }) {
  const { machine, readings, adjustments } = view;
  const last = readingsOf(view, speed).at(-1);
  const between = (circumstance: "side" | "position" | "supply", ends: readonly [string, string]) =>
    speedDifference(readings, adjustments, circumstance, ends);
  const reasons = explainTransport({
    ...NOTHING_KNOWN,
    speedLimitPercent: speedLimit(machine),
    speedErrorPercent: last?.value ?? null,
    speedUncertaintyPercent: last?.uncertainty ?? 0,
    sideDifferencePercent: between("side", SIDES),
    reelDifferencePercent: between("position", [POSITIONS[0], POSITIONS[2]]),
    supplyDifferencePercent: between("supply", SUPPLIES),
  }).slice(0, MOST_REASONS);
  if (reasons.length === 0) return null;
  return (
    <Card title="What it may be">
      {reasons.map(({ fault, because, cure }) => (
        <Typography key={fault} sx={{ lineHeight: 1.35, mb: 0.75 }}>
          <b>{fault}</b>: {because}. {cure}
        </Typography>
      ))}
    </Card>
  );
}
