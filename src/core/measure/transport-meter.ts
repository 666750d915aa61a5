import { meanOf } from "@/core/dsp/mean";
import { LARGEST_OFFSET, ToneDemodulator } from "@/core/dsp/tone-demodulator";
import type { Samples } from "@/core/dsp/signal";
import { channelName } from "./channel-name";
import { DeviationTrack, type TrackLength, type TrackRoom } from "./deviation-track";
import { flutterOf, type FlutterResult } from "./flutter";
import { InputCheck } from "./input-check";
import { ScrapeMeter, showsScrape, type ScrapeFlutter } from "./scrape-meter";
import { SoundGaps } from "./sound-gaps";
import { cents, speedOf, type SpeedResult } from "./speed";
import { steadyStretch, type SteadyStretch } from "./steady-stretch";

/** A steady part of the tone in one channel, or the reason why there is none. */
export type ChannelTone =
  | { channel: string; stretch: SteadyStretch; warnings: string[] }
  | { channel: string; stretch: null; warnings: string[] };

export interface SpeedChannel extends SpeedResult {
  channel: string;
  frequencyHz: number;
  errorCents: number;
}

const BEATS =
  "Another tone of about the same level beats with this one: speed and flutter are inconclusive. Look for a second generator, hum, or crosstalk of another track.";
const SILENCE_RMS = 1e-5;
const OTHER_TONE_DB = 12;
const LOWEST_PURITY = 0.5;
/** The path may convert the sample rate, which blurs the edges of a hole. */
const HOLE_EDGE_SECONDS = 0.004;

interface ChannelState {
  /** Which of the source it is. */
  at: number;
  check: InputCheck;
  demodulator: ToneDemodulator;
  track: DeviationTrack;
  scrape: ScrapeMeter | null;
}

/**
 * Follows a reference tone on every channel of a stream: push blocks of any length, ask for results at any
 * time. Files, the sound card and the practice machine all go through this one class.
 *
 * `length` bounds what is remembered of a source without an end, or of a very long one. Of a long one the channels may
 * also be followed one by one, each by a meter of its own that hears them all: a hole is one in every channel.
 */
export class TransportMeter {
  /** Of those that are followed, in whose order everything is asked. */
  readonly channels: string[];
  private readonly states: ChannelState[];
  private readonly gaps = new SoundGaps();
  /** Of each channel, once it is finished. */
  private wholeStretches: Array<SteadyStretch | null> | null = null;

  /**
   * @param followed which channels of the source are measured; all of them unless told otherwise
   * @param rooms for their tracks; each makes its own without one
   * @throws RangeError when the sample rate cannot hold the tone.
   */
  constructor(
    readonly sampleRateHz: number,
    private readonly channelCount: number,
    readonly nominalHz: number,
    length: TrackLength = {},
    followed: readonly number[] = Array.from({ length: channelCount }, (_, i) => i),
    rooms: readonly TrackRoom[] = [],
  ) {
    this.channels = followed.map((at) => channelName(at, channelCount));
    this.states = followed.map((at, i) => {
      const demodulator = new ToneDemodulator(sampleRateHz, nominalHz);
      return {
        at,
        check: new InputCheck(sampleRateHz),
        scrape: showsScrape(sampleRateHz, nominalHz) ? new ScrapeMeter(sampleRateHz, nominalHz) : null,
        demodulator,
        track: new DeviationTrack(
          demodulator.outputRateHz,
          demodulator.firstResultSeconds,
          length,
          rooms.at(i),
        ),
      };
    });
  }

  /**
   * One array per channel of the source, all of one length; samples that are not numbers are set to zero in place.
   * @throws RangeError for another number of channels, Error once it is finished
   */
  push(block: Samples[]): void {
    if (this.wholeStretches) throw new Error("nothing can be added to what is finished");
    if (block.length !== this.channelCount)
      throw new RangeError(`expected ${this.channelCount} channels in a block, got ${block.length}`);
    for (const { at, check, demodulator, track, scrape } of this.states) {
      check.push(block[at]);
      scrape?.push(block[at]);
      const { deviation, amplitude } = demodulator.push(block[at]);
      track.append(deviation, amplitude);
    }
    // what the filters saw of a hole is no reading of the tape; it is bridged like a drop-out
    const holes = this.gaps.push(block);
    if (this.gaps.open) holes.push(this.gaps.open);
    for (const { from, to } of holes)
      for (const { demodulator, track } of this.states) {
        const reach = demodulator.firstResultSeconds + HOLE_EDGE_SECONDS;
        track.lose(from / this.sampleRateHz - reach, to / this.sampleRateHz + reach);
      }
  }

  /** Nothing more comes: the whole of each channel is taken once for all that is asked, and nothing of it is copied. */
  finish(): void {
    this.wholeStretches ??= this.states.map(({ track }) => steadyStretch(track, undefined, true));
  }

  /** For a source without an end: judge which tone plays, and its level, by the last few seconds only. */
  forgetOldTones(): void {
    for (const { check } of this.states) check.forgetful = true;
  }

  /** Scrape flutter of a channel; null where the carrier or the sample rate is too low to show it. */
  scrape(channel: number): ScrapeFlutter | null {
    return this.states[channel].scrape?.result ?? null;
  }

  get seconds(): number {
    return Math.max(...this.states.map(({ track }) => track.endSeconds));
  }

  /** The tone of a channel from `fromSeconds` on, with every reason for doubt. */
  tone(channel: number, fromSeconds?: number): ChannelTone {
    const { check, track } = this.states[channel];
    const name = this.channels[channel];
    const warnings: string[] = [];
    const refuse = (why: string): ChannelTone => ({
      channel: name,
      stretch: null,
      warnings: [...warnings, `${name}: ${why}`],
    });
    if (check.brokenSamples > 0)
      warnings.push(
        `${name}: ${check.brokenSamples} samples are not valid numbers and were taken as silence; the file may be damaged.`,
      );
    if (check.clippedRuns > 0)
      warnings.push(
        `${name}: clipped in ${check.clippedRuns} places; lower the input level. Speed and flutter hardly suffer, levels and distortion do.`,
      );

    const heard = check.tone(this.nominalHz);
    if (heard === null || check.rms < SILENCE_RMS) return refuse("silence; nothing arrives on this channel.");
    const offPercent = (hz: number) => 100 * (hz / this.nominalHz - 1);
    if (heard.strongestAboveDb > OTHER_TONE_DB)
      return refuse(
        `the strongest tone is ${heard.strongestHz.toFixed(0)} Hz, not ${this.nominalHz} Hz (${signed(offPercent(heard.strongestHz))} %); is it another band, tape or speed?`,
      );
    if (heard.purity < LOWEST_PURITY)
      return refuse(`no steady tone near ${this.nominalHz} Hz; noise, speech or music plays instead.`);
    if (Math.abs(offPercent(heard.nearHz)) > 100 * LARGEST_OFFSET + 1)
      return refuse(outOfRange(heard.nearHz, this.nominalHz));

    const stretch =
      fromSeconds === undefined && this.wholeStretches
        ? this.wholeStretches[channel]
        : steadyStretch(track, fromSeconds);
    if (stretch === null) return refuse("the tone is too short or too broken up to measure.");
    const mean = meanOf(stretch.deviation);
    if (Math.abs(mean) > LARGEST_OFFSET)
      return refuse(outOfRange(this.nominalHz * (1 + mean), this.nominalHz));
    if (stretch.unsteadySeconds > 1)
      warnings.push(
        `${name}: ${stretch.unsteadySeconds.toFixed(1)} s at the ends were left out, where the speed was more than 1 % away from the rest.`,
      );
    if (stretch.dropouts > 0) warnings.push(`${name}: ${stretch.dropouts} short drop-outs were bridged.`);
    if (stretch.jumps > 0)
      warnings.push(
        `${name}: the tone jumps in ${stretch.jumps} places, by lost samples or a splice; they were bridged.`,
      );
    return { channel: name, stretch, warnings };
  }

  speed(channel: number): { result: SpeedChannel | null; warnings: string[] } {
    const tone = this.tone(channel);
    if (tone.stretch === null) return { result: null, warnings: tone.warnings };
    const speed = speedOf(tone.stretch);
    if (speed.beats) tone.warnings.push(`${tone.channel}: ${BEATS}`);
    if (speed.creepPercent !== 0)
      tone.warnings.push(
        `${tone.channel}: the speed still creeps, by ${signed(speed.creepPercent, 2)} % in ${speed.seconds.toFixed(0)} s; let it settle.`,
      );
    return {
      result: {
        channel: tone.channel,
        ...speed,
        frequencyHz: this.nominalHz * (1 + speed.errorPercent / 100),
        errorCents: cents(speed.errorPercent),
      },
      warnings: tone.warnings,
    };
  }

  flutter(channel: number): {
    result: (FlutterResult & { channel: string; carrierHz: number }) | null;
    warnings: string[];
  } {
    const tone = this.tone(channel);
    if (tone.stretch === null) return { result: null, warnings: tone.warnings };
    const warnings = [...tone.warnings];
    const speed = speedOf(tone.stretch);
    const flutter = flutterOf(tone.stretch, this.nominalHz);
    if (speed.beats) flutter.doubt ??= BEATS;
    if (flutter.seconds < 5)
      warnings.push(
        `${tone.channel}: only ${flutter.seconds.toFixed(1)} s of tone; peak and two-sigma figures need at least 5 s.`,
      );
    const carrierHz = this.nominalHz * (1 + speed.errorPercent / 100);
    return { result: { channel: tone.channel, carrierHz, ...flutter }, warnings };
  }
}

const signed = (percent: number, decimals = 1) =>
  `${percent > 0 ? "+" : "−"}${Math.abs(percent).toFixed(decimals)}`;

const outOfRange = (heardHz: number, nominalHz: number) =>
  `the tone is ${heardHz.toFixed(0)} Hz, ${signed(100 * (heardHz / nominalHz - 1))} % from ${nominalHz} Hz, which is more than ±${100 * LARGEST_OFFSET} %; is it another tape or speed?`;
