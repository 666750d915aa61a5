/** Where a track is kept: for another one once the first is not read any more. */
export class TrackRoom {
  private stores: [deviation: Float32Array, amplitude: Float32Array] | null = null;

  /** Two arrays of a size or more, the same as before where they have it; what is in them is nobody's. */
  take(size: number): [deviation: Float32Array, amplitude: Float32Array] {
    if (this.stores === null || this.stores[0].length < size)
      this.stores = [new Float32Array(size), new Float32Array(size)];
    return this.stores;
  }
}

/** How long a track is to be. */
export interface TrackLength {
  /** The oldest results are forgotten beyond this. */
  keepSeconds?: number;
  /** So long the source is known to be, so that the store need not grow. */
  expectSeconds?: number;
}

/**
 * What demodulation leaves of one channel: the deviation from the nominal frequency as a fraction, and the
 * tone's amplitude, at a steady low rate. Grows as blocks are appended; with a `keepSeconds` limit the
 * oldest results are forgotten, which keeps a live session bounded.
 */
export class DeviationTrack {
  length = 0;
  /** Time of element 0 in seconds after the first sample of the source. */
  startSeconds: number;
  private deviationStore: Float32Array;
  private amplitudeStore: Float32Array;
  private readonly keep: number;
  /** Results up to this time, perhaps still to come, rest on lost samples. */
  private lostUntilSeconds = -Infinity;

  constructor(
    readonly rateHz: number,
    firstResultSeconds: number,
    { keepSeconds = Infinity, expectSeconds = 0 }: TrackLength = {},
    room = new TrackRoom(),
  ) {
    this.startSeconds = firstResultSeconds;
    this.keep = Math.ceil(keepSeconds * rateHz);
    const expected = Math.min(expectSeconds, keepSeconds * (1 + SPARE_SHARE));
    const size = Math.max(SMALLEST_STORE, Math.ceil(expected * rateHz));
    [this.deviationStore, this.amplitudeStore] = room.take(size);
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

  append(deviation: Float32Array, amplitude: Float32Array): void {
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

  /** Drops what is older than the limit, once that is a share too much, or makes the store twice as large. */
  private makeRoom(needed: number): void {
    const most = Math.ceil(this.keep * (1 + SPARE_SHARE));
    if (needed > most && this.length > this.keep) {
      const drop = this.length - this.keep;
      this.deviationStore.copyWithin(0, drop, this.length);
      this.amplitudeStore.copyWithin(0, drop, this.length);
      this.length -= drop;
      this.startSeconds += drop / this.rateHz;
      needed -= drop;
    }
    const size = this.deviationStore.length;
    if (needed <= size) return;
    const larger = Math.max(needed, Math.min(2 * size, most));
    const move = (old: Float32Array) => {
      const fresh = new Float32Array(larger);
      fresh.set(old.subarray(0, this.length));
      return fresh;
    };
    this.deviationStore = move(this.deviationStore);
    this.amplitudeStore = move(this.amplitudeStore);
  }
}

/** So much more than is kept is held before anything is dropped. */
const SPARE_SHARE = 1 / 32;
const SMALLEST_STORE = 4096;
