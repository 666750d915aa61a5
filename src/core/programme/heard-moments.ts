const FIRST_ROOM = 2048;

/**
 * The strongest tone of each moment of a sound, and the powers of the bins that it was read from: in a few arrays that are
 * used again and again, since there are hundreds of moments in a second.
 */
export class HeardMoments {
  length = 0;
  private hz = new Float64Array(FIRST_ROOM);
  private sure = new Uint8Array(FIRST_ROOM);
  private powers: Float64Array;

  /** @param bins of each moment */
  constructor(readonly bins: number) {
    this.powers = new Float64Array(FIRST_ROOM * bins);
  }

  /** @param sure the tone stands out; @param powers of each bin, which are copied */
  add(hz: number, sure: boolean, powers: Float64Array): void {
    if (this.length === this.hz.length) this.makeRoom();
    this.hz[this.length] = hz;
    this.sure[this.length] = sure ? 1 : 0;
    this.powers.set(powers, this.length * this.bins);
    this.length++;
  }

  /** Frequency of the tone at a moment; null where none stands out, and where there is no such moment. */
  tone(moment: number): number | null {
    return moment >= 0 && moment < this.length && this.sure[moment] === 1 ? this.hz[moment] : null;
  }

  /** Power of a bin at a moment; nought where there is no such moment or bin. */
  power(moment: number, bin: number): number {
    const isThere = moment >= 0 && moment < this.length && bin >= 0 && bin < this.bins;
    return isThere ? this.powers[moment * this.bins + bin] : 0;
  }

  /** Drops so many of the oldest. */
  forget(count: number): void {
    this.hz.copyWithin(0, count, this.length);
    this.sure.copyWithin(0, count, this.length);
    this.powers.copyWithin(0, count * this.bins, this.length * this.bins);
    this.length -= count;
  }

  private makeRoom(): void {
    const { hz, sure, powers } = this;
    this.hz = new Float64Array(2 * hz.length);
    this.sure = new Uint8Array(2 * sure.length);
    this.powers = new Float64Array(2 * powers.length);
    this.hz.set(hz);
    this.sure.set(sure);
    this.powers.set(powers);
  }
}
