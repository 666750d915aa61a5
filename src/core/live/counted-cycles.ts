import type { TonePair } from "@/core/measure/tone-pair";
import { cyclesCounted } from "@/core/playback/ladder";
import { tonePresent } from "./tone-present";

/** A step of more, from one piece of the track to the next, may as well have been one the other way round. */
const MOST_STEP_DEGREES = 110;
/** So far from where it stood when the rest of the ladder was heard, a tone is of another setting than that. */
const ANOTHER_SETTING_DEGREES = 35;

/** The phases of tones with their whole cycles, as far as they still hold: from the ladder, and followed while one is turned. */
export class CountedCycles {
  private readonly counted = new Map<number, number>();
  /** Where the tone that is followed stood when the rest was heard. */
  private stood: { index: number; degrees: number } | null = null;

  /** Degrees with the whole cycles; undefined where they are not counted. @param index of the tone */
  of(index: number): number | undefined {
    return this.counted.get(index);
  }

  clear(): void {
    this.counted.clear();
    this.stood = null;
  }

  drop(index: number): void {
    this.counted.delete(index);
  }

  /** Of what was heard before, only the tone that plays is known, since it was followed. */
  keepOnly(index: number | null): void {
    for (const other of this.counted.keys()) if (other !== index) this.counted.delete(other);
    this.stood = null;
  }

  /** The same tone is taken for another band of the tape now. @param stays the one before is still counted too */
  passOn(from: number, to: number, stays: boolean): void {
    const counted = this.counted.get(from);
    if (counted === undefined) return;
    this.counted.set(to, counted);
    if (!stays) this.counted.delete(from);
  }

  /** What the ladder tells; a tone that was followed keeps its own count. */
  learn(azimuth: Parameters<typeof cyclesCounted>[0], followed: number | null): void {
    for (const { index, phaseDegrees } of cyclesCounted(azimuth))
      if (index !== followed || !this.counted.has(index)) this.counted.set(index, phaseDegrees);
  }

  /**
   * Carries the whole cycles of a tone along its track.
   * @param isNew so many of its last pieces, a tenth of a second each, were not followed yet
   * @returns "turned": it stands elsewhere than when the rest was heard; "lost": it went too fast, no tone is counted now
   */
  follow(index: number, tone: TonePair, isNew: number): "followed" | "turned" | "lost" {
    const { pair } = tone;
    const before = this.counted.get(index);
    if (before === undefined || pair === null) return "followed";
    const there = tonePresent(tone);
    let at = before;
    for (let i = Math.max(0, there.length - isNew); i < there.length; i++) {
      if (!there[i]) continue;
      const next = nearestAngle(pair.track[i], at);
      if (Math.abs(next - at) > MOST_STEP_DEGREES) {
        this.clear();
        return "lost";
      }
      at = next;
    }
    this.counted.set(index, at);
    if (this.stood?.index !== index) this.stood = { index, degrees: before };
    return Math.abs(at - this.stood.degrees) > ANOTHER_SETTING_DEGREES ? "turned" : "followed";
  }
}

/** The angle of the same direction that is nearest to another. */
export const nearestAngle = (degrees: number, to: number): number =>
  degrees + 360 * Math.round((to - degrees) / 360);
