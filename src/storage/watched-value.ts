/** A value that changes by itself, and whoever wants to know of it. */
export class WatchedValue<T> {
  private readonly listeners = new Set<() => void>();

  constructor(private value: T) {}

  /** What it is; the same object until it changes. */
  readonly now = (): T => this.value;

  /** @returns ends it */
  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  protected change(value: T): void {
    if (value === this.value) return;
    this.value = value;
    for (const listener of this.listeners) listener();
  }
}
