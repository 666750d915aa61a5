/**
 * What demodulation leaves of one channel: the deviation from the nominal frequency as a fraction, and the
 * tone's amplitude, at a steady low rate. Grows as blocks are appended; with a `keepSeconds` limit the
 * oldest results are forgotten, which keeps a live session bounded.
 */
export class DeviationTrack {
  length = 0;
  /** Time of element 0 in seconds after the first sample of the source. */
  startSeconds: number;
  private deviationStore = new Float32Array(4096);
  private amplitudeStore = new Float32Array(4096);
  private readonly keep: number;
  /** Results up to this time, perhaps still to come, rest on lost samples. */
  private lostUntilSeconds = -Infinity;

  constructor(
    readonly rateHz: number,
    firstResultSeconds: number,
    keepSeconds = Infinity,
  ) {
    this.startSeconds = firstResultSeconds;
    this.keep = Math.ceil(keepSeconds * rateHz);
  }

  get deviation(): Float32Array {
    return this.deviationStore.subarray(0, this.length);
  }

  get amplitude(): Float32Array {
    return this.amplitudeStore.subarray(0, this.length);
  }

  get endSeconds(): number {
    return this.startSeconds + this.length / this.rateHz;
  }

  append(deviation: Float64Array, amplitude: Float64Array): void {
    const needed = this.length + deviation.length;
    if (needed > this.deviationStore.length) this.makeRoom(needed);
    this.deviationStore.set(deviation, this.length);
    this.amplitudeStore.set(amplitude, this.length);
    const first = this.length;
    this.length += deviation.length;
    this.amplitudeStore.fill(0, first, Math.min(this.length, this.index(this.lostUntilSeconds)));
  }

  /** What lies between two times rests on samples that never arrived: counted as tone that is not there. */
  lose(fromSeconds: number, toSeconds: number): void {
    this.lostUntilSeconds = Math.max(this.lostUntilSeconds, toSeconds);
    this.amplitudeStore.fill(0, this.index(fromSeconds), Math.min(this.length, this.index(toSeconds)));
  }

  private index(seconds: number): number {
    return Math.max(0, Math.ceil((seconds - this.startSeconds) * this.rateHz));
  }

  /** Drops what is older than the limit, or doubles the store; dropping waits until half can go. */
  private makeRoom(needed: number): void {
    const drop = this.length > 2 * this.keep ? this.length - this.keep : 0;
    const size = Math.max(
      needed - drop,
      drop > 0 ? this.deviationStore.length : 2 * this.deviationStore.length,
    );
    const move = (old: Float32Array) => {
      const fresh = new Float32Array(size);
      fresh.set(old.subarray(drop, this.length));
      return fresh;
    };
    this.deviationStore = move(this.deviationStore);
    this.amplitudeStore = move(this.amplitudeStore);
    this.length -= drop;
    this.startSeconds += drop / this.rateHz;
  }
}
