import Box from "@mui/material/Box";
import { useMemo } from "react";
import { distortionOf, type DistortionOf } from "@/core/stations/distortion";
import { distortionCauses } from "@/core/stations/distortion-causes";
import { recordedHere } from "@/core/stations/recorded";
import { fixed } from "@/core/text/number-text";
import { HarmonicLadder } from "@/ui/harmonic-ladder";
import { ThirdAgainstLevel } from "@/ui/third-against-level";
import { Figure } from "../figure";
import { RecordSteps } from "../recording/record-steps";
import { onThisTape } from "../recording/record-view";
import { UsualCauses } from "../usual-causes";
import type { PictureProps, StationPicture } from "./picture";

const UNCERTAINTY_SHARE = 0.04;

/** The harmonics of each channel, source beside tape, and how the third grows with level. */
function Distortion({ view, bench, listener, station, absent }: PictureProps) {
  const mine = useMemo(() => onThisTape(view, bench), [view, bench]);
  const { recorded } = recordedHere(bench);
  const last = recorded.at(-1);
  const channels = last ? distortionOf(last, view.machine.channels) : [];
  const names = view.machine.channels === 1 ? ["both"] : ["left", "right"];
  return (
    <>
      <Box sx={{ display: "grid", gridTemplateColumns: { sm: `repeat(${names.length}, 1fr)` }, gap: 2 }}>
        {names.map((name) => {
          const own = channels.find(({ channel }) => channel === name);
          const zero = own?.zero ?? null;
          const third = zero?.measurable ? zero.thirdPercent : null;
          return (
            <Box key={name} sx={{ minWidth: 0 }}>
              <Figure
                view={mine}
                quantity="distortion.third"
                channel={names.length === 1 ? undefined : name}
                value={third}
                uncertainty={UNCERTAINTY_SHARE * (third ?? 0)}
                settled={last?.fresh ?? false}
                settling={last ? "turned since" : "not heard yet"}
                ends={["", "distorted"]}
                absent={zero ? `not measurable: below ${zero.thirdPercent.toFixed(2)} %` : absent}
                size="narrow"
              />
            </Box>
          );
        })}
      </Box>
      <RecordSteps {...{ bench, listener, station, view }} />
      <Box sx={{ display: "grid", gridTemplateColumns: { sm: `repeat(${names.length}, 1fr)` }, gap: 2 }}>
        {channels.map(({ channel, zero, sourceZero, steps, molDb, saturationDb }) => (
          <Box key={channel} sx={{ minWidth: 0 }}>
            <HarmonicLadder
              label={`Harmonics at 0 level, ${channel}: source beside tape`}
              tape={zero?.harmonics ?? []}
              source={sourceZero?.harmonics ?? []}
            />
            <ThirdAgainstLevel
              label={`Third harmonic against level, ${channel}`}
              steps={steps}
              molDb={molDb}
            />
            <Box sx={{ lineHeight: 1.35 }}>
              {saturationDb === null
                ? "10 kHz still rises at the loudest step, or was not heard: its saturation cannot be told."
                : `10 kHz comes back ${fixed(saturationDb, 1, true)} dB re 0 at most, however much is sent.`}
            </Box>
          </Box>
        ))}
      </Box>
      <Causes {...{ bench, channels }} />
    </>
  );
}

function Causes({ bench, channels }: { bench: PictureProps["bench"]; channels: DistortionOf[] }) {
  return (
    <UsualCauses>
      {distortionCauses(bench, channels).map(({ name, because, tryFirst }) => (
        <li key={name}>
          <b>{name}</b>: {because} Try first: {tryFirst}
        </li>
      ))}
    </UsualCauses>
  );
}

export const distortion: StationPicture = { Middle: Distortion };
