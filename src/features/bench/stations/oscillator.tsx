import Box from "@mui/material/Box";
import { typedContext } from "@/core/alignment/logbook";
import { BACK_DB, GONE_DB } from "@/core/live/recording-watch";
import type { RecordingRun } from "@/core/records/recording-run";
import { counterReading, holdsCauses, holdsNow, leastKhz } from "@/core/stations/oscillator";
import { fixed, THIN_SPACE, withUncertainty } from "@/core/text/number-text";
import { appendReadings, newId } from "@/storage/jobs";
import { WatchChart } from "@/ui/watch-chart";
import { Figure } from "../figure";
import { Send } from "../recording/send";
import { TypedFigures } from "../logging/typed-figures";
import { UsualCauses } from "../usual-causes";
import type { PictureProps, StationPicture } from "./picture";

const TRACKS = ["315 Hz, dB re its beginning", "10 kHz, dB re its beginning", "old tone 1 kHz, dB"];
const HOLDS = { from: -GONE_DB, to: GONE_DB };

/** How long a recording holds: what of it goes, and at which second. */
function Oscillator({ view, bench, listener, station, absent }: PictureProps) {
  const { run, seconds, uncertaintySeconds, lacks } = holdsNow(bench);
  const { machine } = view;
  const line = bench.heard?.oscillator ?? null;
  return (
    <>
      <Figure
        view={view}
        quantity="oscillator.holds"
        value={seconds}
        uncertainty={uncertaintySeconds}
        settled={lacks === null}
        settling="look"
        ends={["dies", "holds"]}
        absent={absent}
        shownAs={run ? stateOf(run) : undefined}
        noVerdict={lacks && run?.went.length === 0 ? "not told yet" : undefined}
      />
      <Box role="status" aria-label="The watch" sx={{ fontWeight: 600, fontSize: 17, lineHeight: 1.35 }}>
        {lacks ?? (run && run.went.length === 0 ? "Everything holds: log it." : "")}
      </Box>
      {run && (
        <UsualCauses>
          {holdsCauses(run).map((cause) => (
            <li key={cause}>{cause}</li>
          ))}
        </UsualCauses>
      )}
      <Send {...{ listener, view, bench, station }} before="erase-tone" />
      {run && (
        <Box sx={{ lineHeight: 0 }}>
          {run.track.dbByTone.map((values, t) => (
            <WatchChart
              key={TRACKS[t]}
              label={TRACKS[t]}
              stepSeconds={run.track.stepSeconds}
              values={values}
              window={t < 2 ? HOLDS : { from: 0, to: BACK_DB }}
              marks={run.went.map(({ atSeconds }) => atSeconds)}
              height={66}
            />
          ))}
        </Box>
      )}
      <TypedFigures
        title={`A counter across a small resistor in series with the erase head shows, kHz (at least ${fixed(leastKhz(machine), 0)}${THIN_SPACE}kHz)`}
        channels={["both"]}
        label={() => "kHz"}
        quantity="oscillator.frequency"
        view={view}
        lacks={null}
        saysOf={(last) => withUncertainty(last.value, last.uncertainty, "kHz", false)}
        wrong={(khz) =>
          khz >= 20 && khz <= 400 ? null : "Oscillators swing at 60 to 150 kHz; is that in kHz?"
        }
        phases={["as found", "as left"]}
        onLog={(_, khz, phase) => {
          const source = { name: "a counter", nominalHz: 0 };
          const context = typedContext(station, bench, source, { newId, now: Date.now() });
          void appendReadings(counterReading(machine, khz, { ...context, phase }));
        }}
      />
      <Box sx={{ color: "text.secondary", lineHeight: 1.35 }}>
        {line
          ? `Heard at the output: ${fixed(line.frequencyKhz, 1)}${THIN_SPACE}kHz at ${line.levelsDbfs.map((db) => fixed(db, 0)).join(" and ")}${THIN_SPACE}dBFS.`
          : "A probe on the oscillator itself loads it and shifts it: one ohm in series with the erase head does not. A sound card of 192 kHz hears what is left of it at the output."}
      </Box>
    </>
  );
}

function stateOf({ went, ended, missed }: RecordingRun): string {
  const unheard = missed.reduce((sum, { fromSeconds, toSeconds }) => sum + toSeconds - fromSeconds, 0);
  const gap = unheard > 0 ? `, ${Math.round(unheard)} s of it unheard` : "";
  return `${went.length > 0 ? "it went" : ended ? "it has ended" : "watching"}${gap}`;
}

export const oscillator: StationPicture = { Middle: Oscillator };
