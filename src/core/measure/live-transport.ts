import { meanOf } from "@/core/dsp/mean";
import { amplitudeDb } from "@/core/dsp/decibels";
import type { Samples } from "@/core/dsp/signal";
import { latestWaveform, type FlutterWaveform } from "./flutter-waveform";
import { flutterNotKept, flutterOf, type FlutterResult } from "./flutter";
import type { ScrapeFlutter } from "./scrape-meter";
import { speedOf } from "./speed";
import { cutStart, type SteadyStretch } from "./steady-stretch";
import { TransportMeter, type ChannelTone } from "./transport-meter";

/** Remembered of a live source. */
const KEEP_SECONDS = 60;
const SPEED_WINDOW_SECONDS = 6;
/** Whether a tone plays is judged by so much. */
const TONE_WINDOW_SECONDS = 8;
const FLUTTER_WINDOW_SECONDS = 24;
const SETTLED_SECONDS = 2.5;
const BLOCK_SECONDS = 0.25;
/** A change counts as a turn of something when it is this many times the scatter of quarter-second means. */
const STEP_SCATTERS = 6;
const SMALLEST_SCATTER = 0.0002;
const RUN_UP_SECONDS = 2;
const INSTANT_SECONDS = 0.3;
/** Tone that stopped longer ago than this is not playing. */
const STILL_PLAYING_SECONDS = 0.25;
const FLUTTER_EVERY_SECONDS = 0.45;

export interface LiveSpeed {
  errorPercent: number;
  /** Own uncertainty, ± at 95 %. */
  uncertaintyPercent: number;
  windowSeconds: number;
  /** Steady for long enough to be logged. */
  settled: boolean;
  /** It has been moving one way all the time. */
  creeps: boolean;
  /** Mean of the last moments only, for the moving strip. */
  instantPercent: number;
  /** The last settled value before the speed last changed. */
  beforeChange: { errorPercent: number; uncertaintyPercent: number; atSeconds: number } | null;
}

export interface LiveFlutter extends FlutterResult {
  channel: string;
  settled: boolean;
  /** Null where the carrier is too low to show it. */
  scrape: ScrapeFlutter | null;
}

export interface LiveChannel {
  channel: string;
  peakDbfs: number;
  /** Null while the tone is heard. */
  problem: string | null;
}

export interface LiveResult {
  seconds: number;
  channels: LiveChannel[];
  speed: LiveSpeed | null;
  flutter: LiveFlutter | null;
  /** The last seconds of the deviation; null while flutter is not asked for. */
  waveform: FlutterWaveform | null;
}

/**
 * Readings of a tone that plays now: push blocks, ask about ten times a second.
 *
 * The speed is averaged over as long as it has been steady, up to six seconds: a change (somebody turned
 * something) cuts the window short, so that the number follows at once and then firms up.
 */
export class LiveTransport {
  private readonly meter: TransportMeter;
  private readonly peaks: number[];
  private steadySince = 0;
  private markedAt = 0;
  private lastSettled: LiveSpeed["beforeChange"] = null;
  private beforeChange: LiveSpeed["beforeChange"] = null;
  private lastFlutter: LiveFlutter | null = null;
  private nextFlutter = 0;

  /**
   * @param pace seconds of sound in a second of the clock, by which flutter is made anew
   * @throws RangeError when the sample rate cannot hold the tone
   */
  constructor(
    sampleRateHz: number,
    channelCount: number,
    nominalHz: number,
    private readonly pace = 1,
  ) {
    this.meter = new TransportMeter(sampleRateHz, channelCount, nominalHz, {
      keepSeconds: KEEP_SECONDS,
    });
    this.peaks = this.meter.channels.map(() => 0);
    this.meter.forgetOldTones();
  }

  push(block: Samples[]): void {
    block.forEach((samples, c) => {
      for (let i = 0; i < samples.length; i++) {
        const magnitude = Math.abs(samples[i]);
        if (magnitude > this.peaks[c]) this.peaks[c] = magnitude;
      }
    });
    this.meter.push(block);
  }

  /** Something was turned just now: what came before no longer belongs to the reading. */
  mark(): void {
    this.markedAt = this.meter.seconds;
    this.changed(this.meter.seconds);
  }

  result(withFlutter: boolean): LiveResult {
    const now = this.meter.seconds;
    const tones = this.meter.channels.map((_, c) => this.meter.tone(c, now - TONE_WINDOW_SECONDS));
    const channels = tones.map((tone, c): LiveChannel => {
      const stopped = tone.stretch !== null && !stillPlays(tone.stretch, now);
      const peakDbfs = amplitudeDb(this.peaks[c]);
      this.peaks[c] = 0;
      return {
        channel: tone.channel,
        peakDbfs,
        problem:
          tone.stretch === null
            ? (tone.warnings.at(-1) ?? null)
            : stopped
              ? `${tone.channel}: the tone has stopped.`
              : null,
      };
    });
    const playing = tones.flatMap((tone, c) => (channels[c].problem === null && tone.stretch ? [tone] : []));
    if (playing.length === 0) {
      this.steadySince = now;
      this.lastFlutter = null;
      return { seconds: now, channels, speed: null, flutter: null, waveform: null };
    }
    const speeds = playing.map((tone) => this.speed(tone.stretch as SteadyStretch, now));
    const speed = speeds.reduce((a, b) => (b.uncertaintyPercent < a.uncertaintyPercent ? b : a));

    if (withFlutter && now >= this.nextFlutter) {
      this.nextFlutter = now + this.pace * FLUTTER_EVERY_SECONDS;
      this.updateFlutter(playing.map((tone) => this.sinceChange(this.longer(tone, now))));
    }
    if (!withFlutter) return { seconds: now, channels, speed, flutter: null, waveform: null };
    const worse = playing.find(({ channel }) => channel === this.lastFlutter?.channel) ?? playing[0];
    const waveform = latestWaveform(this.sinceChange(worse));
    return { seconds: now, channels, speed, flutter: this.lastFlutter, waveform };
  }

  /** All that is remembered of the tone that plays, slips and all, since something was turned; null while none plays. */
  remembered(): SteadyStretch | null {
    const now = this.meter.seconds;
    for (let c = 0; c < this.meter.channels.length; c++) {
      const { stretch } = this.meter.tone(c, Math.max(this.markedAt, now - KEEP_SECONDS));
      if (stretch === null || !stillPlays(stretch, now)) continue;
      if (stretch.startSeconds <= now - KEEP_SECONDS + 1) return stretch;
      // it was started or turned then, and took a while to come to its speed
      return cutStart(stretch, Math.round(RUN_UP_SECONDS * stretch.rateHz));
    }
    return null;
  }

  /** The same tone from further back, unless what lies there is another stretch that has ended since. */
  private longer(tone: ChannelTone, now: number): ChannelTone {
    const before = this.meter.tone(this.meter.channels.indexOf(tone.channel), now - FLUTTER_WINDOW_SECONDS);
    return before.stretch && stillPlays(before.stretch, now) ? before : tone;
  }

  private sinceChange(tone: {
    channel: string;
    stretch: SteadyStretch | null;
  }): SteadyStretch & { channel: string } {
    const stretch = tone.stretch as SteadyStretch;
    const skip = Math.round((this.steadySince - stretch.startSeconds) * stretch.rateHz);
    return { ...cutStart(stretch, skip), channel: tone.channel };
  }

  private speed(stretch: SteadyStretch, now: number): LiveSpeed {
    const { deviation, rateHz, startSeconds } = stretch;
    const block = Math.round(BLOCK_SECONDS * rateHz);
    const first = Math.max(
      0,
      Math.round((Math.max(this.steadySince, now - SPEED_WINDOW_SECONDS) - startSeconds) * rateHz),
    );
    const means: number[] = [];
    for (let end = deviation.length; end - block >= first; end -= block)
      means.push(meanOf(deviation, end - block, end));
    const cut = changePoint(means);
    if (cut !== null) this.changed(now - cut * BLOCK_SECONDS);
    const from = cut === null ? first : deviation.length - cut * block;
    const window = deviation.subarray(Math.min(from, Math.max(0, deviation.length - 2 * block)));
    const measured = speedOf(cutStart(stretch, deviation.length - window.length));
    const settled = measured.seconds >= SETTLED_SECONDS;
    const { errorPercent, uncertaintyPercent } = measured;
    if (settled) this.lastSettled = { errorPercent, uncertaintyPercent, atSeconds: now };
    return {
      errorPercent,
      uncertaintyPercent,
      windowSeconds: measured.seconds,
      settled,
      creeps: measured.creepPercent !== 0,
      instantPercent:
        100 * meanOf(deviation, deviation.length - Math.round(INSTANT_SECONDS * rateHz), deviation.length),
      beforeChange: this.beforeChange,
    };
  }

  private changed(at: number): void {
    if (this.lastSettled) this.beforeChange = this.lastSettled;
    this.lastSettled = null;
    this.steadySince = at;
  }

  /** Keeps the channel with the larger figure, since the verdict is about the worse one. */
  private updateFlutter(stretches: Array<SteadyStretch & { channel: string }>): void {
    this.lastFlutter = null;
    for (const stretch of stretches) {
      if (stretch.deviation.length < stretch.rateHz) continue;
      const result = flutterOf(stretch, this.meter.nominalHz);
      if (this.lastFlutter && result.weighted.peakPercent <= this.lastFlutter.weighted.peakPercent) continue;
      this.lastFlutter = {
        channel: stretch.channel,
        ...result,
        scrape: this.meter.scrape(this.meter.channels.indexOf(stretch.channel)),
        settled: flutterNotKept(result) === null,
      };
    }
  }
}

const stillPlays = ({ startSeconds, deviation, rateHz }: SteadyStretch, now: number): boolean =>
  startSeconds + deviation.length / rateHz >= now - STILL_PLAYING_SECONDS;

/**
 * How many of the newest block means belong together, when the two before them both lie off to one side; null
 * when all belong together.
 * The scatter comes from differences of neighbours, which a single step hardly touches.
 */
export function changePoint(newestFirst: number[]): number | null {
  if (newestFirst.length < 4) return null;
  const differences = newestFirst.slice(1).map((m, i) => Math.abs(m - newestFirst[i]));
  differences.sort((a, b) => a - b);
  const scatter = Math.max(SMALLEST_SCATTER, differences[differences.length >> 1] / 0.954);
  let sum = newestFirst[0];
  for (let j = 1; j + 1 < newestFirst.length; j++) {
    const away = [newestFirst[j] - sum / j, newestFirst[j + 1] - sum / j];
    const together = away[0] * away[1] > 0 ? Math.min(Math.abs(away[0]), Math.abs(away[1])) : 0;
    if (together > STEP_SCATTERS * scatter * Math.sqrt(1 / j + 0.5)) return j;
    sum += newestFirst[j];
  }
  // the oldest block has no neighbour behind it: the run-up of a start is often in it alone
  const oldest = newestFirst.length - 1;
  const others = sum / oldest;
  return Math.abs(newestFirst[oldest] - others) > STEP_SCATTERS * scatter ? oldest : null;
}
