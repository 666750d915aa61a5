import { amplitudeOf } from "@/core/dsp/decibels";
import type { Samples } from "@/core/dsp/signal";
import { blockWithin } from "./block-within";
import { humOfTheBand } from "./hum-of-the-band";
import { KeptSound } from "./kept-sound";
import { SoundRooms } from "./sound-rooms";
import { TonePairMeter, type TonePair } from "./tone-pair";
import { HUM_LINES_HZ, withoutHum } from "./without-hum";

/** Where a tone band lies in a recording, and what else is heard around it. */
export interface TonePlace {
  startSeconds: number;
  endSeconds: number;
  frequencyHz: number;
  /** Whether something else than hum is near a frequency at a time. */
  isTaken(seconds: number, hertz: number): boolean;
}

/** Left out at both ends: the edges of bands are not steady. */
const EDGE_SECONDS = 0.2;
/** More of a long band is not needed. */
const MOST_SECONDS = 60;
const MOST_BESIDE_HUM_SECONDS = 16;
/** Before and after a band, where its hum can be learned. */
const HUM_SECONDS = 5;
/** What a small share of another tone does to a level at most, dB: 20 · log₁₀(1 + share). */
const DB_PER_SHARE = 8.686;
const MOST_DB = 20;
/** Lines of the mains so near to a tone count as part of it. */
const NEAR_HZ = 5.5;
const NEAR_SHARE = 0.032;

const isNear = (toneHz: number, humHz: number): boolean =>
  Math.abs(humHz - toneHz) < Math.max(NEAR_HZ, NEAR_SHARE * toneHz);

/** Whether a line of the mains can lie within the band of a tone. */
export const humMatters = (toneHz: number): boolean => [...HUM_LINES_HZ].some((hz) => isNear(toneHz, hz));

/**
 * Level and phase of one tone band of a recording, pushed in blocks of any length. A line of the mains that lies within
 * the band of a low tone is learned from what is heard before and after it, and taken away.
 */
export class ToneBandMeter {
  private readonly meter: TonePairMeter;
  private readonly from: number;
  private readonly to: number;
  /** The sound around a tone that hum may lie in; null of any other. */
  private readonly kept: KeptSound | null;

  /** @throws RangeError for a tone above four tenths of the sample rate */
  constructor(
    private readonly sampleRateHz: number,
    channelCount: number,
    private readonly place: TonePlace,
    rooms = new SoundRooms(),
  ) {
    const { startSeconds, endSeconds, frequencyHz } = place;
    this.meter = new TonePairMeter(sampleRateHz, channelCount, frequencyHz);
    const besideHum = humMatters(frequencyHz);
    const first = startSeconds + EDGE_SECONDS;
    const longest = besideHum ? MOST_BESIDE_HUM_SECONDS : MOST_SECONDS;
    const last = Math.min(endSeconds - EDGE_SECONDS, first + longest);
    this.from = Math.round(first * sampleRateHz);
    this.to = Math.round(last * sampleRateHz);
    const around = { fromSeconds: first - HUM_SECONDS, toSeconds: last + HUM_SECONDS };
    this.kept = besideHum ? new KeptSound(sampleRateHz, channelCount, around, rooms) : null;
  }

  /** @param at which frame of the recording the block begins with */
  push(block: readonly Samples[], at: number): void {
    if (this.kept) return this.kept.push(block, at);
    const part = blockWithin(block, at, { from: this.from, to: this.to });
    if (part) this.meter.push(part.channels);
  }

  /** Null when too little was heard; ask once, at the end. */
  result(): TonePair | null {
    const { kept } = this;
    return kept ? kept.measure((sound) => this.clearOfHum(sound, kept.from)) : this.meter.result();
  }

  /** @param kept the sound around the tone, from the frame `keptFrom` of the recording on */
  private clearOfHum(kept: Float32Array[], keptFrom: number): TonePair | null {
    const { from, to, place, sampleRateHz } = this;
    if (kept.length === 0) return null;
    const begins = keptFrom / sampleRateHz;
    const [first, last] = [from - keptFrom, Math.min(to - keptFrom, kept[0].length)];
    const clean = kept.map((samples) =>
      withoutHum(samples, sampleRateHz, {
        matters: (hz) => this.isNear(hz),
        isClear: (seconds, hz) => !place.isTaken(begins + seconds, hz),
      }),
    );
    if (first < last) this.meter.push(clean.map(({ samples }) => samples.subarray(first, last)));
    const measured = this.meter.result();
    if (measured === null) return null;
    const leftOverDb = measured.channels.map(({ levelDbfs }, c) => {
      const hum =
        clean[c].leftOver + humOfTheBand(kept[c], sampleRateHz, [first, last], (hz) => this.isNear(hz));
      return Math.min(MOST_DB, DB_PER_SHARE * (hum / amplitudeOf(levelDbfs)));
    });
    return { ...measured, leftOverDb };
  }

  private isNear(hz: number): boolean {
    return isNear(this.place.frequencyHz, hz);
  }
}
