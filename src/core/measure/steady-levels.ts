/** A tone stands within so much; peaks of noise do not. */
const WITHIN_DB = 0.2;
const STOOD_SECONDS = 0.8;
/** So many of them at least, however slowly they come, and none that is older than that. */
const FEWEST = 5;
const OLDEST_SECONDS = 4;
/** What stood is forgotten when nothing has stood for so long since. */
const GONE_SECONDS = 2;

/** Levels that have stood still for a while, out of those that come in a row. */
export class SteadyLevels {
  private last: Array<{ levels: readonly number[]; atSeconds: number }> = [];
  private stood: { levels: readonly number[]; atSeconds: number } | null = null;

  /**
   * @param levels of each channel at this moment, dB; null while there are none
   * @returns what stood last; null where nothing has, or not lately
   */
  push(levels: readonly number[] | null, atSeconds: number): readonly number[] | null {
    if (levels === null) this.last = [];
    else this.last.push({ levels, atSeconds });
    // one that is older than the stretch begins it
    while (this.last.length > FEWEST && this.last[1].atSeconds <= atSeconds - STOOD_SECONDS)
      this.last.shift();
    while (this.last.length > 0 && this.last[0].atSeconds < atSeconds - OLDEST_SECONDS) this.last.shift();
    const [first] = this.last;
    const isLongEnough =
      this.last.length >= FEWEST && first !== undefined && first.atSeconds <= atSeconds - STOOD_SECONDS;
    if (isLongEnough && levels && levels.every((_, c) => this.spread(c) < WITHIN_DB))
      this.stood = { levels, atSeconds };
    if (this.stood && atSeconds - this.stood.atSeconds > GONE_SECONDS) this.stood = null;
    return this.stood?.levels ?? null;
  }

  private spread(c: number): number {
    const levels = this.last.map((one) => one.levels[c]);
    return Math.max(...levels) - Math.min(...levels);
  }
}
