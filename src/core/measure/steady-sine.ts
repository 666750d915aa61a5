import { amplitudeOf, powerDb } from "@/core/dsp/decibels";
import type { SignalReport } from "./signal-findings";

const QUIETEST_DBFS = -60;
const SHORTEST_SECONDS = 2;
/** How far apart tenths of a second may lie: a generator's do not, those of a good tape hardly. */
const MOST_SWING_DB = 0.3;
/** What the peak of a sine lies above its RMS. */
const SINE_CREST_DB = powerDb(2);
/** A few percent of harmonics, hum 40 dB down and a tape's trembling move it by less. */
const CREST_WITHIN_DB = 0.5;
/** Share of the RMS above which a direct voltage makes it another number than a meter for alternating voltage shows. */
const MOST_DIRECT = 0.1;

/** Why what is heard is not a steady sine on every channel, whose level could be compared with a voltage; null where it is. */
export function whyNoSteadySine({ channels, seconds }: SignalReport): string | null {
  for (const one of channels) {
    const why = whyNot(one);
    if (why !== null) return `${one.channel} ${why}`;
  }
  return seconds < SHORTEST_SECONDS ? "two seconds of it are needed" : null;
}

function whyNot(heard: SignalReport["channels"][number]): string | null {
  const { rmsDbfs, truePeakDbfs, swingDb, clippedSamples, dcPercent } = heard;
  if (rmsDbfs < QUIETEST_DBFS) return "has no level above −60 dBFS";
  if (clippedSamples > 0) return "clipped in the last ten seconds: lower the level";
  if (swingDb > MOST_SWING_DB) return `is not steady: it moved by ${swingDb.toFixed(1)} dB in two seconds`;
  if (Math.abs(dcPercent) / 100 > MOST_DIRECT * amplitudeOf(rmsDbfs)) return "carries a direct voltage";
  const crest = truePeakDbfs - rmsDbfs;
  if (Math.abs(crest - SINE_CREST_DB) > CREST_WITHIN_DB)
    return `is no sine: its peak is ${crest.toFixed(1)} dB above its RMS, that of a sine ${SINE_CREST_DB.toFixed(1)} dB`;
  return null;
}
