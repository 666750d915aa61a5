/**
 * One source from start to stop. It owns what was opened for it, and closes it with itself however it ends; what is
 * opened only after it has ended is closed at once.
 *
 *     const session = sessions.begin();
 *     const input = await open();
 *     session.own(() => input.stop());
 *     if (session.closed) return;
 */
export class Session {
  private readonly closers: Array<() => unknown> = [];
  private over: Promise<void> | null = null;

  constructor(readonly id: number) {}

  get closed(): boolean {
    return this.over !== null;
  }

  /** Says how something that was opened for the session is closed; that may take its time. */
  own(close: () => unknown): void {
    if (this.over === null) this.closers.push(close);
    else this.over = Promise.allSettled([this.over, attempt(close)]).then(() => undefined);
  }

  /** Ends it: closes everything, the newest first. Resolves when all of that is done; never rejects. */
  close(): Promise<void> {
    this.over ??= Promise.allSettled(this.closers.reverse().map(attempt)).then(() => undefined);
    return this.over;
  }

  /** Resolves when all that it has closed so far is closed. */
  get ended(): Promise<void> {
    return this.over ?? Promise.resolve();
  }
}

const attempt = async (close: () => unknown): Promise<void> => {
  await close();
};

/** The sessions of one page, one at a time: beginning one ends the one before. */
export class Sessions {
  private newest: Session | null = null;
  private begun: Session[] = [];
  private lastId = 0;

  get current(): Session | null {
    return this.newest && !this.newest.closed ? this.newest : null;
  }

  begin(): Session {
    void this.newest?.close();
    this.newest = new Session(++this.lastId);
    this.begun.push(this.newest);
    return this.newest;
  }

  /** Ends the one that runs, if any. */
  async end(): Promise<void> {
    await this.newest?.close();
  }

  /** Resolves when everything of the sessions before the newest is closed. */
  async earlierEnded(): Promise<void> {
    const earlier = this.begun.filter((session) => session !== this.newest);
    await Promise.all(earlier.map(({ ended }) => ended));
    this.begun = this.begun.filter((session) => !earlier.includes(session));
  }
}
