/**
 * Where sound is kept until it is measured: what one piece of it has left takes the next. The pieces of a long recording
 * are large, and what is let go of may lie in memory for long.
 */
export class SoundRooms {
  /** Shortest first. */
  private free: Float32Array[] = [];

  /** At least as long as asked; what is in it is nobody's. */
  take(length: number): Float32Array {
    const found = this.free.find((room) => room.length >= length);
    // where none is large enough, one that is too small is given up for it
    const gone = found ?? this.free.at(-1);
    this.free = this.free.filter((room) => room !== gone);
    return found ?? new Float32Array(length);
  }

  giveBack(room: Float32Array): void {
    this.free = [...this.free, room].toSorted((a, b) => a.length - b.length);
  }
}
