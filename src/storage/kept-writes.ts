import { WatchedValue } from "./watched-value";

/** What is reported of writes that could not be done yet. */
export interface WaitingWrites {
  /** What the first of them is, in plain words. */
  what: string;
  /** How many there are. */
  count: number;
  /** Why the first could not be stored; null while the storage does not answer at all. */
  why: string | null;
  /** The first of each kind: what it is, and why it waits. */
  each: ReadonlyArray<{ kind: WriteKind; what: string; count: number; why: string | null }>;
}

/** Kinds of writes that do not wait for each other, those first that are worth most. */
export const WRITE_KINDS = ["logged", "records", "typed", "pictures", "sounds"] as const;
export type WriteKind = (typeof WRITE_KINDS)[number];

interface Write {
  what: string;
  /** A later write of the same thing takes the place of one that waits. */
  place: string | null;
  run(): Promise<void>;
  stored(): void;
  refused(error: unknown): void;
  /** It waits: what it would store is kept somewhere else until it is stored. */
  waits?: () => void;
}

interface WriteOptions {
  /** What it writes the whole of; null for what is added to what there is. */
  place?: string | null;
  kind?: WriteKind;
  /** Called when it has to wait: keeps what it would store where it outlives the page. */
  waits?: () => void;
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

/** One kind of writes, one after the other, in the order they were asked for. */
class Line {
  readonly writes: Write[] = [];
  /** Why the first waits; undefined while nothing does, null while the storage does not answer. */
  why: string | null | undefined = undefined;
  private running = false;
  private timer: ReturnType<typeof setTimeout> | null = null;

  constructor(
    readonly kind: WriteKind,
    private readonly changed: () => void,
  ) {}

  add(write: Write): void {
    // the first may be under way: it is not replaced
    const before = this.writes.findIndex(
      (one, i) => i > 0 && write.place !== null && one.place === write.place,
    );
    if (before > 0) {
      const replaced = this.writes[before];
      const { stored, refused } = write;
      this.writes[before] = {
        ...write,
        stored: () => {
          replaced.stored();
          stored();
        },
        refused: (error) => {
          replaced.refused(error);
          refused(error);
        },
      };
    } else this.writes.push(write);
    if (this.why !== undefined) {
      write.waits?.();
      this.changed();
    }
    void this.go();
  }

  again(): void {
    if (this.timer !== null) clearTimeout(this.timer);
    this.timer = null;
    void this.go();
  }

  /** Gives up what waits first. */
  discard(): void {
    if (this.why === undefined || this.running) return;
    this.writes.shift()?.refused(new Error("It was discarded before it could be stored."));
    this.again();
    this.settle();
  }

  private async go(): Promise<void> {
    if (this.running || this.timer !== null) return;
    this.running = true;
    while (this.writes.length > 0) {
      const [first] = this.writes;
      const slow = setTimeout(() => this.waitsFor(this.why ?? null), SLOW_MS);
      try {
        await first.run();
        this.writes.shift();
        first.stored();
      } catch (error) {
        if (PASSES.includes(causeOf(error).name)) {
          this.waitsFor(reasonOf(error));
          this.timer = setTimeout(() => this.again(), AGAIN_MS);
          break;
        }
        this.writes.shift();
        first.refused(error);
      } finally {
        clearTimeout(slow);
      }
    }
    this.running = false;
    this.settle();
  }

  private settle(): void {
    if (this.writes.length > 0) return;
    this.why = undefined;
    this.changed();
  }

  private waitsFor(why: string | null): void {
    const isNew = this.why === undefined;
    this.why = why;
    if (isNew) for (const { waits } of this.writes) waits?.();
    this.changed();
  }
}

/**
 * Writes each kind of thing one after the other, in the order they were asked for. One that the storage refuses is kept on
 * this page and tried again until it is stored, and those of its kind after it wait: nothing is stored out of its order,
 * nothing is dropped, and a picture that does not fit keeps no reading waiting.
 */
export class WriteQueue extends WatchedValue<WaitingWrites | null> {
  private readonly lines = WRITE_KINDS.map((kind) => new Line(kind, () => this.report()));

  constructor() {
    super(null);
  }

  /**
   * Resolves once it is stored; rejects when what was to be written is wrong in itself, or was discarded.
   * @param what in plain words, as it is reported while it waits
   */
  write(
    what: string,
    run: () => Promise<void>,
    { place = null, kind = "records", waits }: WriteOptions = {},
  ): Promise<void> {
    return new Promise((resolve, reject) => {
      const refused = (error: unknown) => reject(error as Error);
      this.lines
        .find((line) => line.kind === kind)!
        .add({ what, place, run, stored: resolve, refused, waits });
    });
  }

  /** Tries at once what waits. */
  readonly again = (): void => {
    for (const line of this.lines) line.again();
  };

  /** Gives up what waits first of a kind. */
  discard(kind: WriteKind): void {
    this.lines.find((line) => line.kind === kind)!.discard();
  }

  private report(): void {
    const each = this.lines.flatMap(({ kind, writes: [first, ...more], why }) =>
      why === undefined || !first ? [] : [{ kind, what: first.what, count: 1 + more.length, why }],
    );
    const [first] = each;
    const count = each.reduce((sum, one) => sum + one.count, 0);
    this.change(first ? { what: first.what, why: first.why, count, each } : null);
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
