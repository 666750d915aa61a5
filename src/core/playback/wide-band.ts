import { blockWithin } from "@/core/measure/block-within";
import { FullScaleRuns } from "@/core/measure/full-scale";
import { noiseLevels } from "@/core/measure/noise-levels";
import { sweepLevels } from "@/core/measure/sweep-levels";
import type { WideLevel } from "@/core/measure/wide-levels";
import type { RecognisedSection, Recognition } from "@/core/programme/recognition";
import type { ReferenceTape } from "@/core/reference/reference-tape";
import { type Section, sweepShape } from "@/core/programme/programme";

/** A sweep or noise of a tape as it was heard. */
export interface WideBand {
  /** Its place on the tape, from 0. */
  index: number;
  band: Section;
  /** When it was heard last. */
  endSeconds: number;
  /** Of each channel; empty before there was enough to hear. */
  levels: WideLevel[][];
  /** The input clipped in it. */
  clipped: boolean;
  /** It was heard to its end. */
  whole: boolean;
  /** Nothing was turned since it began. */
  fresh: boolean;
}

/** What a sweep may lie off where it was recognised. */
const MARGIN_SECONDS = 0.4;
/** Of longer ones this much is kept in memory. */
const LONGEST_SECONDS = 180;

/** Where a sweep or noise was recognised in a recording. */
export interface WidePlace {
  startSeconds: number;
  endSeconds: number;
  /** Of a sweep: when it would have begun, had all of it been heard. */
  beginsSeconds: number;
  speedRatio: number;
}

export const isWide = ({ kind }: Section): boolean => kind === "sweep" || kind === "noise";

/** @param speedRatio as the tones of the tape tell it, for bands that do not tell it themselves */
export function widePlace(
  { index, startSeconds, endSeconds, beginsSeconds, frequencyHz }: RecognisedSection,
  { bands }: ReferenceTape,
  speedRatio: number | null,
): WidePlace {
  return {
    startSeconds,
    endSeconds,
    beginsSeconds,
    speedRatio: frequencyHz > 0 ? frequencyHz / bands[index].frequencyHz : (speedRatio ?? 1),
  };
}

/** Takes the part of a recording that holds a sweep or noise, in blocks of any length, and gives its levels. */
export class WideBandMeter {
  private readonly from: number;
  private readonly to: number;
  private readonly kept: Float32Array[];
  private readonly fullScale: readonly FullScaleRuns[];
  private taken = 0;

  constructor(
    private readonly sampleRateHz: number,
    channelCount: number,
    private readonly band: Section,
    private readonly place: WidePlace,
  ) {
    const margin = band.kind === "sweep" ? MARGIN_SECONDS : -MARGIN_SECONDS;
    const { startSeconds, endSeconds } = place;
    this.from = Math.max(0, Math.round((startSeconds - margin) * sampleRateHz));
    this.to = Math.round(Math.min(endSeconds + margin, startSeconds + LONGEST_SECONDS) * sampleRateHz);
    const frames = Math.max(0, this.to - this.from);
    this.kept = Array.from({ length: Math.min(2, channelCount) }, () => new Float32Array(frames));
    this.fullScale = this.kept.map(() => new FullScaleRuns());
  }

  /** @param at which frame of the recording the block begins with */
  push(block: ReadonlyArray<Float32Array | Float64Array>, at: number): void {
    const { from, to } = this;
    const part = blockWithin(block, at, { from, to });
    if (!part) return;
    this.kept.forEach((kept, c) => kept.set(part.channels[c], part.first - from));
    this.fullScale.forEach((runs, c) => runs.push(part.channels[c]));
    this.taken = part.last - from;
  }

  get clipped(): boolean {
    return this.fullScale.some(({ count }) => count > 0);
  }

  get levels(): WideLevel[][] {
    const { band, sampleRateHz } = this;
    const heard = this.kept.map((x) => x.subarray(0, this.taken));
    if (band.kind === "noise") return noiseLevels(heard, sampleRateHz);
    const { beginsSeconds, speedRatio } = this.place;
    const startSeconds = beginsSeconds - this.from / sampleRateHz;
    return sweepLevels(heard, sampleRateHz, sweepShape(band), { startSeconds, speedRatio });
  }
}

/** A sweep or noise that was recognised in a recording, and what measures it. */
export interface MeteredBand {
  index: number;
  band: Section;
  endSeconds: number;
  meter: WideBandMeter;
}

/** A meter for every sweep and noise that was recognised in a recording. */
export const wideMeters = (
  { sections, speedRatio }: Recognition,
  tape: ReferenceTape,
  { sampleRateHz, channelCount }: { sampleRateHz: number; channelCount: number },
): MeteredBand[] =>
  sections
    .filter(({ index }) => isWide(tape.bands[index]))
    .map((found) => {
      const { index, endSeconds } = found;
      const band = tape.bands[index];
      const place = widePlace(found, tape, speedRatio);
      return { index, band, endSeconds, meter: new WideBandMeter(sampleRateHz, channelCount, band, place) };
    });

/** What such a meter heard of a whole recording. */
export const heardWide = ({ index, band, endSeconds, meter }: MeteredBand): WideBand => ({
  index,
  band,
  endSeconds,
  levels: meter.levels,
  clipped: meter.clipped,
  whole: true,
  fresh: true,
});
