"use client";
import Box from "@mui/material/Box";
import { useState } from "react";
import type { ResponseFindings } from "@/core/advice/response-doctor";
import { headHints, usualWander } from "@/core/advice/head-hints";
import { limitFor } from "@/core/alignment/registry";
import { useThought } from "../use-thought";
import { fixed } from "@/core/text/number-text";
import { timeConstants } from "@/core/reference/reference-tape";
import { equaliserRemedy } from "@/core/workshop/equaliser-remedy";
import { headRemedy } from "@/core/workshop/head-remedy";
import { fluxDb } from "@/core/standards/equalisation";
import { typedNumber } from "@/core/text/typed-number";
import { NumberField } from "@/ui/number-field";
import { ResponseChart } from "@/ui/response-chart";
import type { JobView } from "@/features/job/use-job-records";
import type { ListenerState } from "../listening/use-listener";
import { headSigns } from "@/core/stations/head-signs";
import type { PlaybackNumbers, ResponseOfChannel } from "@/core/playback/playback-numbers";

interface DoctorSaysProps {
  view: JobView;
  numbers: PlaybackNumbers | null;
  channels: ResponseOfChannel[];
  referenceHz: number | null;
  listener: ListenerState;
}

const FEWEST_POINTS = 4;

/** What each curve looks like, what to try first, and what to solder, with the curve that this would give. */
export function DoctorSays({ view, numbers, channels, referenceHz, listener }: DoctorSaysProps) {
  const left = useFindings(view, channels[0], referenceHz, listener, numbers);
  const right = useFindings(view, channels[1], referenceHz, listener, numbers);
  const hints = numbers
    ? headHints(
        headSigns(view, numbers, usualWander(view.machine.dualCapstan ?? false, view.job.speedCmPerS)),
      )
    : [];
  if (channels.every(({ points }) => points.length < FEWEST_POINTS))
    return <Box sx={{ color: "text.secondary", py: 2 }}>At least four bands say something; play on.</Box>;
  return (
    <Box sx={{ display: "flex", flexDirection: "column", gap: 1 }}>
      {channels.map((one, c) => {
        const findings = [left, right][c];
        if (!findings) return null;
        return (
          <Box key={one.channel} component="section" aria-label={`What ${one.channel} looks like`}>
            <Box sx={{ lineHeight: 1.4 }}>
              {one.channel !== "both" && <b>{one.channel}: </b>}
              {findings.sentence}
            </Box>
            <Parts view={view} response={one} findings={findings} />
          </Box>
        );
      })}
      {hints.map(({ fault, because, tryFirst }) => (
        <Box key={fault} sx={{ lineHeight: 1.4 }}>
          <b>It may be the {fault}</b>: {because}. {tryFirst}
        </Box>
      ))}
    </Box>
  );
}

/** The findings of a channel, thought out aside whenever its points change; null before that. */
function useFindings(
  view: JobView,
  response: ResponseOfChannel | undefined,
  referenceHz: number | null,
  { thinker }: ListenerState,
  numbers: PlaybackNumbers | null,
): ResponseFindings | null {
  const { tape, job } = view;
  const { phase = null } = numbers?.now ?? {};
  const azimuthLimit = limitFor(view.machine, "azimuth.phase");
  const azimuthKnown =
    phase !== null &&
    phase.counted &&
    azimuthLimit !== null &&
    Math.abs(phase.degrees) + phase.uncertaintyDegrees <= azimuthLimit;
  const points = response?.points ?? [];
  const asks = points.length >= FEWEST_POINTS;
  const channel = response?.channel ?? "";
  const key = JSON.stringify([azimuthKnown, channel, points.map(({ levelDb }) => levelDb.toFixed(1))]);
  return useThought(
    thinker,
    "response",
    `response ${channel}`,
    key,
    asks
      ? {
          points,
          curve: {
            speedCmPerS: job.speedCmPerS,
            equalisation: timeConstants(tape.equalisation, tape.speedCmPerS),
            referenceHz: referenceHz ?? undefined,
            azimuthKnown,
          },
        }
      : null,
  );
}

/** Component arithmetic: a resistor at the equaliser, a capacitor across the head, and what each would make of the curve. */
function Parts({
  view,
  response: { points, channel },
  findings,
}: {
  view: JobView;
  response: ResponseOfChannel;
  findings: ResponseFindings;
}) {
  const [kiloohms, setKiloohms] = useState("");
  const [millihenries, setMillihenries] = useState(String(view.machine.headInductanceMh ?? ""));
  const [first] = findings.explanations;
  const { t2Microseconds } = first.parameters;
  const { tape } = view;
  const own = timeConstants(tape.equalisation, tape.speedCmPerS);
  const hz = points.map(({ frequencyHz }) => frequencyHz);
  const loss = -(first.fittedDb.at(-1) ?? 0);
  const ohms = 1000 * typedNumber(kiloohms);
  const resistor =
    t2Microseconds > 0 && ohms > 0 ? equaliserRemedy(ohms, t2Microseconds, own.t2Microseconds) : null;
  const henries = typedNumber(millihenries) / 1000;
  const capacitor = henries > 0 && !(t2Microseconds > 0) ? headRemedy(henries, loss, hz) : null;
  const change = resistor
    ? hz.map(
        (f) =>
          fluxDb({ ...own, t2Microseconds }, f) -
          fluxDb({ ...own, t2Microseconds: resistor.resultMicroseconds }, f),
      )
    : (capacitor?.predictedDb ?? null);
  if (first.cause === "flat" || first.cause === "unknown") return null;
  return (
    <Box sx={{ mt: 0.75 }}>
      <Box sx={{ display: "flex", gap: 1, alignItems: "center", flexWrap: "wrap" }}>
        {t2Microseconds > 0 ? (
          <NumberField label="Its resistor, kΩ" value={kiloohms} onChange={setKiloohms} width={140} />
        ) : (
          <NumberField label="Head, mH" value={millihenries} onChange={setMillihenries} width={120} />
        )}
        <Box sx={{ flex: 1, lineHeight: 1.35 }}>
          {resistor
            ? `${(resistor.nearestOhms / 1000).toPrecision(3)} kΩ in ${resistor.kind} with it (${(resistor.partOhms / 1000).toPrecision(3)} kΩ wanted) gives ${resistor.resultMicroseconds.toFixed(0)} µs.`
            : capacitor
              ? `${capacitor.nearestPicofarads} pF across the head (${capacitor.capacitancePicofarads.toFixed(0)} pF wanted) lifts the top by ${fixed(capacitor.liftDb, 1)} dB; it resonates at ${(capacitor.resonanceHz / 1000).toFixed(1)} kHz.`
              : t2Microseconds > 0
                ? "With the resistor that sets it, the part to solder is worked out here."
                : "A capacitor across the head helps a loss of half a decibel to eight at the top; clean and set azimuth first."}
        </Box>
      </Box>
      {change && (
        <ResponseChart
          label={`Predicted response, ${channel}`}
          height={150}
          lines={[
            {
              label: "as it is",
              look: channel === "right" ? "right" : "left",
              points: points.map(({ frequencyHz, levelDb }) => ({ frequencyHz, db: levelDb })),
            },
            {
              label: "with that part",
              look: "model",
              points: points.map(({ frequencyHz, levelDb }, i) => ({
                frequencyHz,
                db: levelDb + change[i],
              })),
            },
          ]}
        />
      )}
    </Box>
  );
}
