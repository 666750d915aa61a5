import type { Answers, Questions, Topic } from "@/core/advice/thinking";
import { startThinking, type WorkerOf } from "./start-worker";
import type { ThinkingApi } from "./thinking.worker";

interface Waiting {
  ask(): Promise<void>;
  dropped(): void;
}

/**
 * Slow thinking in a worker of its own, a question at a time. Of several questions about one thing only the newest is
 * thought about: the others resolve to null, and so does an answer that came after a newer question.
 */
export class Thinker {
  private worker: WorkerOf<ThinkingApi> | null = null;
  private readonly waiting = new Map<string, Waiting>();
  private readonly asked = new Map<string, number>();
  private busy = false;
  private ended = false;

  /** @param start opens the worker, when the first question is asked */
  constructor(private readonly start: () => WorkerOf<ThinkingApi> = startThinking) {}

  /** @param about what the question is of: "response left" and "response right" are two things */
  ask<T extends Topic>(topic: T, about: string, question: Questions[T]): Promise<Answers[T] | null> {
    if (this.ended) return Promise.resolve(null);
    const number = (this.asked.get(about) ?? 0) + 1;
    this.asked.set(about, number);
    this.waiting.get(about)?.dropped();
    return new Promise((resolve, reject) => {
      this.waiting.set(about, {
        dropped: () => resolve(null),
        ask: async () => {
          try {
            this.worker ??= this.start();
            const think = this.worker.api.think as unknown as (
              topic: T,
              question: Questions[T],
            ) => Promise<Answers[T]>;
            const answer = await think(topic, question);
            resolve(this.asked.get(about) === number ? answer : null);
          } catch (error) {
            // the next question has a new one
            this.worker?.end();
            this.worker = null;
            reject(error as Error);
          }
        },
      });
      void this.next();
    });
  }

  /** What is asked about it is not wanted any more. */
  drop(about: string): void {
    this.asked.set(about, (this.asked.get(about) ?? 0) + 1);
    this.waiting.get(about)?.dropped();
    this.waiting.delete(about);
  }

  /** It may be asked; again, after it was ended. */
  begin(): void {
    this.ended = false;
  }

  end(): void {
    this.ended = true;
    for (const about of [...this.waiting.keys()]) this.drop(about);
    this.worker?.end();
    this.worker = null;
  }

  private async next(): Promise<void> {
    if (this.busy) return;
    const [first] = this.waiting;
    if (!first) return;
    const [about, waiting] = first;
    this.waiting.delete(about);
    this.busy = true;
    await waiting.ask();
    this.busy = false;
    void this.next();
  }
}
