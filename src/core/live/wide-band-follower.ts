import { STILL_PLAYING_SECONDS } from "@/core/programme/programme-recogniser";
import type { Recognition } from "@/core/programme/recognition";
import type { ReferenceTape } from "@/core/reference/reference-tape";
import { Every } from "./every";
import type { RecentSound } from "./recent-sound";
import { isWide, WideBandMeter, widePlace, type WideBand } from "@/core/playback/wide-band";

/** So much of a sweep or noise is kept, and room for where it is found to begin. */
const LONGEST_SECONDS = 90;
const MARGIN_SECONDS = 8;
/** While it plays it is measured so often; once more when it has ended. */
const EVERY_SECONDS = 4;
const ENOUGH_NOISE_SECONDS = 10;
/** A sweep whose beginning was missed by more than this share is not whole. */
const MISSED_SHARE = 0.1;

/** Measures the sweeps and noises of a tape while they play, from the sound that a live source remembers. */
export class WideBandFollower {
  private readonly every = new Every(EVERY_SECONDS);
  /** What was measured to its end last. */
  private done = "";

  /**
   * @param tape as it sounds on the machine
   * @param speedFactor tape speed of the machine over that of the tape, by which levels go back to the tape's frequencies
   */
  constructor(
    private readonly tape: ReferenceTape,
    private readonly speedFactor: number,
  ) {}

  /** How much of the past has to be remembered; little for a tape without such bands. */
  get secondsToKeep(): number {
    const longest = Math.max(0, ...this.tape.bands.filter(isWide).map(({ seconds }) => seconds));
    return Math.min(LONGEST_SECONDS, longest + MARGIN_SECONDS);
  }

  /**
   * What plays, or played last, as far as it was heard; null when there is nothing new to say.
   * @param seconds now, which is where `recentSound` ends
   */
  hear(
    { sections, repeats, speedRatio }: Recognition,
    seconds: number,
    recentSound: RecentSound,
  ): { wide: WideBand; begunSeconds: number } | null {
    const found = [...sections, ...repeats]
      .filter(({ index }) => isWide(this.tape.bands[index]))
      .toSorted((a, b) => a.startSeconds - b.startSeconds)
      .at(-1);
    if (!found) return null;
    const { index, startSeconds, endSeconds, beginsSeconds } = found;
    const band = this.tape.bands[index];
    const place = widePlace(found, this.tape, speedRatio);
    const ended = seconds > endSeconds + STILL_PLAYING_SECONDS;
    const key = `${index} ${Math.round(beginsSeconds)} ${ended}`;
    if (key === this.done || !(ended || this.every.isDue(seconds))) return null;
    this.every.done(seconds);
    if (ended) this.done = key;
    const length = band.seconds / place.speedRatio;
    const whole =
      band.kind === "sweep"
        ? ended && startSeconds - beginsSeconds < MISSED_SHARE * length
        : endSeconds - startSeconds > Math.min(ENOUGH_NOISE_SECONDS, 0.8 * length);
    const sound = recentSound.contents(seconds - startSeconds + 1);
    const before = seconds - sound[0].length / recentSound.sampleRateHz;
    const meter = new WideBandMeter(recentSound.sampleRateHz, sound.length, band, {
      startSeconds: startSeconds - before,
      endSeconds: endSeconds - before,
      beginsSeconds: beginsSeconds - before,
      speedRatio: place.speedRatio,
    });
    meter.push(sound, 0);
    const levels = meter.levels.map((channel) =>
      channel.map((level) => ({ ...level, frequencyHz: level.frequencyHz / this.speedFactor })),
    );
    return {
      wide: { index, band, endSeconds, levels, clipped: meter.clipped, whole, fresh: true },
      begunSeconds: startSeconds,
    };
  }
}
