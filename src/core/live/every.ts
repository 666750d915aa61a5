/** When something is to be worked out again, by the seconds that were heard. */
export class Every {
  private next = 0;

  constructor(private readonly intervalSeconds: number) {}

  isDue(seconds: number): boolean {
    return seconds >= this.next;
  }

  /** It was worked out. */
  done(seconds: number): void {
    this.next = seconds + this.intervalSeconds;
  }

  /** Whether it is due; then it counts as done. */
  takes(seconds: number): boolean {
    if (!this.isDue(seconds)) return false;
    this.done(seconds);
    return true;
  }
}
