import { WatchedValue } from "./watched-value";

/** What is told of writes that could not be done yet. */
export interface WaitingWrites {
  /** What the first of them is, in plain words. */
  what: string;
  /** How many there are. */
  count: number;
  /** Why the first could not be stored; null while the storage does not answer at all. */
  why: string | null;
}

interface Write {
  what: string;
  /** A later write of the same thing takes the place of one that waits. */
  place: string | null;
  run(): Promise<void>;
  stored(): void;
  refused(error: unknown): void;
}

/** Tried again so often while something waits. */
const AGAIN_MS = 2000;
/** A storage that has not answered for so long is told of. */
const SLOW_MS = 1500;

/** What passes: room is made, a database is opened again. Anything else is wrong with what was to be written. */
const PASSES: readonly string[] = [
  "QuotaExceededError",
  "AbortError",
  "DatabaseClosedError",
  "InvalidStateError",
  "OpenFailedError",
  "OperationError",
  "TimeoutError",
  "TransactionInactiveError",
  "UnknownError",
  "VersionChangeError",
];

/**
 * Writes one after the other, in the order they were asked for. One that the storage refuses is kept on this page and
 * tried again until it is stored, and those after it wait: nothing is stored out of its order, nothing is dropped.
 */
export class WriteQueue extends WatchedValue<WaitingWrites | null> {
  private readonly writes: Write[] = [];
  private running = false;
  private timer: ReturnType<typeof setTimeout> | null = null;

  constructor() {
    super(null);
  }

  /**
   * Resolves once it is stored; rejects when what was to be written is wrong in itself.
   * @param what in plain words, as it is told while it waits
   * @param place what it writes the whole of; null for what is added to what there is
   */
  write(what: string, run: () => Promise<void>, place: string | null = null): Promise<void> {
    return new Promise((resolve, reject) => {
      // the first may be under way: it is not replaced
      const before = this.writes.findIndex((one, i) => i > 0 && place !== null && one.place === place);
      const replaced = before > 0 ? this.writes[before] : null;
      const write: Write = {
        what,
        place,
        run,
        stored: () => {
          replaced?.stored();
          resolve();
        },
        refused: (error) => {
          replaced?.refused(error);
          reject(error as Error);
        },
      };
      if (replaced) this.writes[before] = write;
      else this.writes.push(write);
      const waiting = this.now();
      if (waiting) this.change({ ...waiting, count: this.writes.length });
      void this.go();
    });
  }

  /** Tries at once what waits. */
  readonly again = (): void => {
    if (this.timer !== null) clearTimeout(this.timer);
    this.timer = null;
    void this.go();
  };

  private async go(): Promise<void> {
    if (this.running || this.timer !== null) return;
    this.running = true;
    while (this.writes.length > 0) {
      const [first] = this.writes;
      const slow = setTimeout(() => this.tellOf(first, this.now()?.why ?? null), SLOW_MS);
      try {
        await first.run();
        this.writes.shift();
        first.stored();
      } catch (error) {
        if (PASSES.includes(causeOf(error).name)) {
          this.tellOf(first, reasonOf(error));
          this.timer = setTimeout(this.again, AGAIN_MS);
          break;
        }
        this.writes.shift();
        first.refused(error);
      } finally {
        clearTimeout(slow);
      }
    }
    this.running = false;
    if (this.writes.length === 0) this.change(null);
  }

  private tellOf({ what }: Write, why: string | null): void {
    this.change({ what, count: this.writes.length, why });
  }
}

/** What is behind an error: a transaction that was given up and a bulk of writes name their cause. */
function causeOf(error: unknown): Error {
  const { name, inner, failures } = error as Error & { inner?: Error; failures?: Error[] };
  if (name === "BulkError" && failures?.[0]) return causeOf(failures[0]);
  return inner && (name === "AbortError" || inner.name === "QuotaExceededError")
    ? causeOf(inner)
    : (error as Error);
}

function reasonOf(error: unknown): string {
  const { name, message } = causeOf(error);
  switch (name) {
    case "QuotaExceededError":
      return "the storage of this browser is full: delete old sounds under Settings, or free disk space";
    case "DatabaseClosedError":
    case "InvalidStateError":
    case "OpenFailedError":
    case "VersionChangeError":
      return "the storage of this browser was closed under this page";
    default:
      return `the storage of this browser does not take it: ${message}`;
  }
}

export const writes = new WriteQueue();
