import { amplitudeOf } from "@/core/dsp/decibels";
import Box from "@mui/material/Box";
import { usualWander } from "@/core/advice/head-hints";
import { inForce } from "@/core/records/job-records";
import { SIDES } from "@/core/records/fields";
import { readingVerdict } from "@/core/alignment/station-state";
import { verdictOf } from "@/core/judging/verdict";
import { fixed, hertzText, THIN_SPACE, withUncertainty } from "@/core/text/number-text";
import { cyclesCounted, judgedTone } from "@/core/playback/ladder";
import { AzimuthFan, type FanTone } from "@/ui/azimuth-fan";
import { PeakCurve } from "@/ui/peak-curve";
import { PhaseTrace } from "@/ui/phase-trace";
import { READING_FONT } from "@/ui/theme";
import { VerdictMark } from "@/ui/verdict-mark";
import type { JobView } from "@/features/job/use-job-records";
import { limitFor } from "@/core/alignment/registry";
import { azimuthByPhase } from "@/core/stations/azimuth";
import { levelsOfSearch } from "@/core/stations/azimuth-search";
import { Figure } from "../figure";
import type { PictureProps, StationPicture } from "./picture";

const TEN_KHZ = 10_000;

/** The phase at 10 kHz, the fan of the ladder and the X-Y trace; with one channel, the loudest point of the treble. */
function Azimuth(props: PictureProps) {
  return azimuthByPhase(props.view.machine) ? <ByPhase {...props} /> : <ByPeak {...props} />;
}

function ByPhase({ view, bench: { numbers }, absent }: PictureProps) {
  const { machine, job } = view;
  const now = numbers?.now ?? null;
  const { phase = null, azimuth = null } = now ?? {};
  const limit = limitFor(machine, "azimuth.phase");
  const tones = azimuth && azimuth.tones.length > 0 ? cyclesCounted(azimuth) : [];
  const judged = tones.length > 0 ? judgedTone(tones) : null;
  const freshOnes = new Set(now?.tones.filter((tone) => tone.fresh).map(({ index }) => index));
  const playing = now?.playing ?? null;
  const levels = playing?.levelsDbfs ?? [0, 0];
  const fan: FanTone[] = tones.map((tone) => ({ ...tone, old: !freshOnes.has(tone.index) }));
  // while a screw is turned the tone that plays stands elsewhere than it was measured
  if (phase?.counted && judged && !freshOnes.has(judged.index))
    fan.push({
      frequencyHz: judged.frequencyHz,
      phaseDegrees: (phase.degrees * judged.frequencyHz) / TEN_KHZ,
      spreadDegrees: 0,
    });
  const usual = usualWander(machine.dualCapstan ?? false, job.speedCmPerS);
  return (
    <>
      <Figure
        view={view}
        quantity="azimuth.phase"
        value={phase?.degrees ?? null}
        uncertainty={phase?.uncertaintyDegrees ?? 0}
        settled={phase?.settled ?? false}
        ends={["right earlier", "right later"]}
        absent={azimuth?.doubt ?? absent}
        shownAs={phase?.counted === false ? "cycles not counted" : undefined}
      />
      {azimuth && judged && (
        <Box sx={{ display: "flex", columnGap: 2, alignItems: "center", flexWrap: "wrap", minHeight: 0 }}>
          <Box sx={{ flex: "1 1 340px", maxWidth: 380 }}>
            <AzimuthFan
              tones={fan}
              delaySeconds={azimuth.delaySeconds}
              judgedHz={judged.frequencyHz}
              limitDegrees={limit}
            />
          </Box>
          <Box sx={{ flex: "1 1 190px", lineHeight: 1.4 }}>
            <PhaseTrace
              track={playing && playing.phaseTrack.length > 0 ? playing.phaseTrack : judged.track}
              levelRatio={amplitudeOf(levels[1] - levels[0])}
              size={112}
            />
            {azimuth.delaySeconds !== null ? (
              <>
                <Fact name="delay" value={`${fixed(1e6 * azimuth.delaySeconds, 1, true)}${THIN_SPACE}µs`} />
                <Fact name="gap tilted" value={`${fixed(azimuth.tiltArcMinutes ?? 0, 1, true)}′`} />
              </>
            ) : (
              <Box sx={{ color: "warning.main", fontWeight: 600 }}>{azimuth.doubt}</Box>
            )}
            {azimuth.monoSumDbAt10kHz !== null && (
              <Fact
                name="mono sum at 10 kHz"
                value={`${fixed(azimuth.monoSumDbAt10kHz, 1)}${THIN_SPACE}dB`}
              />
            )}
            {azimuth.trackLossDbAt10kHz !== null && (
              <Fact name="each track" value={`${fixed(azimuth.trackLossDbAt10kHz, 1)}${THIN_SPACE}dB`} />
            )}
            {phase && <Steadiness wander={phase.spreadDegrees} usual={usual} dual={machine.dualCapstan} />}
          </Box>
        </Box>
      )}
      <Directions view={view} />
    </>
  );
}

function Fact({ name, value }: { name: string; value: string }) {
  return (
    <Box sx={{ display: "flex", justifyContent: "space-between", gap: 1 }}>
      <Box sx={{ color: "text.secondary" }}>{name}</Box>
      <Box sx={{ fontFamily: READING_FONT, whiteSpace: "nowrap" }}>{value}</Box>
    </Box>
  );
}

function Steadiness({ wander, usual, dual = false }: { wander: number; usual: number; dual?: boolean }) {
  const verdict = verdictOf(wander, 0.1 * wander, usual);
  return (
    <Box sx={{ mt: 0.5 }}>
      <VerdictMark
        verdict={verdict}
        detail={`${verdict === "fail" ? "restless" : verdict === "close" ? "near restless" : "steady"}, ±${fixed(wander, 1)}°`}
      />
      <Box sx={{ color: "text.secondary", fontSize: 14, lineHeight: 1.25 }}>
        {dual ? "two capstans" : "one capstan"}: up to ±{fixed(usual, 0)}°
      </Box>
    </Box>
  );
}

/** The last reading of each direction, side by side. */
function Directions({ view }: { view: JobView }) {
  const last = SIDES.map((side) => ({
    side,
    reading: inForce(view.readings).findLast(
      ({ quantity, context }) =>
        quantity === "azimuth.phase" && context.side === side && context.head === undefined,
    ),
  }));
  if (last.every(({ reading }) => reading === undefined)) return null;
  return (
    <Box
      component="ul"
      aria-label="Both directions"
      sx={{ display: "grid", gridTemplateColumns: "1fr 1fr", gap: 1, p: 0, m: 0, listStyle: "none" }}
    >
      {last.map(({ side, reading }) => (
        <Box
          component="li"
          key={side}
          sx={{
            border: 1,
            borderColor: "divider",
            px: 1.25,
            py: 0.5,
            display: "flex",
            gap: 1,
            alignItems: "baseline",
          }}
        >
          <b>{side}</b>
          {reading ? (
            <>
              <Box sx={{ fontFamily: READING_FONT, flex: 1 }}>
                {withUncertainty(reading.value, reading.uncertainty, "°", true)}
              </Box>
              <VerdictMark verdict={readingVerdict(reading, view.machine)} />
            </>
          ) : (
            <Box sx={{ color: "text.secondary" }}>not logged</Box>
          )}
        </Box>
      ))}
    </Box>
  );
}

function ByPeak({ view, bench, advised, listener, slotTurns, absent }: PictureProps) {
  const { peak, adjuster, toSet } = advised;
  const playing = bench.numbers?.now.playing ?? null;
  const levels = adjuster ? levelsOfSearch(bench, adjuster.id) : [];
  return (
    <>
      <Figure
        view={view}
        quantity="azimuth.belowPeak"
        value={toSet.value}
        uncertainty={toSet.uncertainty}
        settled={toSet.settled}
        ends={["loudest", "quieter"]}
        absent={playing ? "Hold on: a second makes a peak" : absent}
        shownAs={playing ? hertzText(playing.frequencyHz) : undefined}
      />
      <PeakCurve
        levels={levels}
        peakTurns={peak?.peakTurns ?? null}
        present={
          playing && { turns: (levels.at(-1)?.turns ?? 0) + slotTurns, levelDb: playing.levelsDbfs[0] }
        }
        heldDb={playing && Number.isFinite(playing.heldDbfs) ? playing.heldDbfs : null}
        side={peak?.side ?? null}
        onClear={listener.clearHold}
      />
      <Box sx={{ color: "text.secondary", lineHeight: 1.35 }}>
        {playing && !playing.peakSeen
          ? "Turn the screw through the loudest point: before the level has risen and fallen, nobody knows where its peak is."
          : "The loudest second so far counts as the peak, so a drop-out or a bump of the level does not."}
      </Box>
    </>
  );
}

export const azimuth: StationPicture = { Middle: Azimuth };
