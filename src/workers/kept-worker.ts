import type { WorkerOf } from "./start-worker";

/** A worker that is begun when it is first needed, and begun anew after the browser ended it. */
export class KeptWorker<Api> {
  private running: WorkerOf<Api> | null = null;

  constructor(private readonly start: () => WorkerOf<Api>) {}

  /** What can be asked of it. What was asked of one that is gone has failed, with a sentence. */
  get api(): WorkerOf<Api>["api"] {
    return (this.running ?? this.begin()).api;
  }

  /** The same of one that runs already; null where none does. */
  get begun(): WorkerOf<Api>["api"] | null {
    return this.running?.api ?? null;
  }

  end(): void {
    this.running?.end();
    this.running = null;
  }

  private begin(): WorkerOf<Api> {
    const mine = this.start();
    this.running = mine;
    mine.died.catch(() => {
      if (this.running === mine) this.end();
    });
    return mine;
  }
}
