/**
 * Where sound is kept until it is measured: what one piece of it has left takes the next. The pieces of a long recording
 * are large, and what is let go of may lie in memory for long.
 */
export class SoundRooms {
  private free: Float32Array[] = [];

  /** At least as long as asked; what is in it is nobody's. */
  take(length: number): Float32Array {
    const fitting = this.free.filter((room) => room.length >= length).toSorted((a, b) => a.length - b.length);
    const room = fitting.at(0) ?? new Float32Array(length);
    this.free = this.free.filter((one) => one !== room);
    return room;
  }

  giveBack(room: Float32Array): void {
    this.free.push(room);
  }
}
