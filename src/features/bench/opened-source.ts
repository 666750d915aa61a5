import type { Session } from "@/core/live/session";
import type { Sequence } from "@/core/signals/sequence";
import type { Listener } from "@/workers/start-worker";
import type { KeptPractice } from "./kept-practice";

/** What a session of the page has opened, for what is asked of it while it runs. */
export interface OpenedSource {
  session: Session;
  worker: Listener;
  /** Of a practice machine: how it is kept between visits. */
  kept: KeptPractice | null;
  /** What it records the next time. */
  sends: Sequence | null;
}
