import type { Samples } from "@/core/dsp/signal";
import type { Recognition } from "@/core/programme/recognition";
import type { ReferenceTape } from "@/core/reference/reference-tape";
import type { HeardBands } from "@/core/playback/heard-bands";
import { ToneBandMeter } from "@/core/measure/tone-band-meter";
import { heardWide, wideMeters } from "@/core/playback/wide-band";

/** So far from a heard tone its own frequency is free, and its edges are blurred by so much. */
const TONE_SHARE = 0.2;
const BLUR_SECONDS = 0.15;
const HIGHEST_TONE_SHARE = 0.44;

/**
 * Measures every band of a tape that was recognised in a recording: level and phase of the tones, levels along sweeps
 * and noises. Push the whole recording, in blocks of any length, and ask once, at the end.
 */
export class BandMeters {
  private readonly tones;
  private readonly wide;
  private at = 0;

  constructor(
    recognition: Recognition,
    tape: ReferenceTape,
    sound: { sampleRateHz: number; channelCount: number },
  ) {
    const { sampleRateHz, channelCount } = sound;
    const { sections, repeats, strangers } = recognition;
    const isTaken = (seconds: number, hertz: number) =>
      [...sections, ...repeats, ...strangers].some(
        ({ startSeconds, endSeconds, frequencyHz }) =>
          seconds > startSeconds - BLUR_SECONDS &&
          seconds < endSeconds + BLUR_SECONDS &&
          (frequencyHz === 0 || Math.abs(frequencyHz / hertz - 1) < TONE_SHARE),
      );
    this.tones = sections
      .map((found) => ({ ...found, band: tape.bands[found.index] }))
      .filter(({ band }) => band.kind === "tone" && band.frequencyHz < HIGHEST_TONE_SHARE * sampleRateHz)
      .map((found) => ({
        ...found,
        meter: new ToneBandMeter(sampleRateHz, channelCount, { ...found, isTaken }),
      }));
    this.wide = wideMeters(recognition, tape, sound);
  }

  push(block: readonly Samples[]): void {
    for (const { meter } of [...this.tones, ...this.wide]) meter.push(block, this.at);
    this.at += block[0].length;
  }

  result(): Pick<HeardBands, "bands" | "wide"> {
    return {
      bands: this.tones.flatMap(({ index, band, startSeconds, endSeconds, meter }) => {
        const pair = meter.result();
        return pair ? [{ index, band, startSeconds, endSeconds, pair }] : [];
      }),
      wide: this.wide.map(heardWide),
    };
  }
}
