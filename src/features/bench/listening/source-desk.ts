import type { Dispatch } from "react";
import type { Geometry } from "@/core/advice/transport-view";
import type { LiveSource } from "@/core/live/heard-live";
import type { ListeningResult } from "@/core/live/listening-result";
import type { Session, Sessions } from "@/core/live/session";
import type { HeadTracks } from "@/core/playback/azimuth-view";
import type { ReferenceTape } from "@/core/reference/reference-tape";
import type { Sequence } from "@/core/signals/sequence";
import type { DeckStatus } from "@/core/simulator/deck-status";
import { everySequence } from "@/storage/sequences";
import { readSettings } from "@/storage/settings";
import type { Wanted } from "@/workers/listener-api";
import { finishListener, startListener, type Listener } from "@/workers/start-worker";
import type { Thinker } from "@/workers/thinker";
import { keepPractice, withRecording, type KeptPractice } from "./kept-practice";
import type { ListeningEvent } from "./listening-state";

export interface ListenOptions {
  jobId: string;
  machineId: string;
  machineName: string;
  tape: ReferenceTape;
  /** Frequency that the reference tone should have at this tape speed. */
  nominalHz: number;
  speedCmPerS: number;
  geometry: Geometry;
  tracks: HeadTracks | null;
}

/** What a session of the page has opened, for what is asked of it while it runs. */
export interface OpenedSource {
  session: Session;
  worker: Listener;
  /** Of a practice machine: how it is kept between visits. */
  kept: KeptPractice | null;
  /** What it records the next time. */
  sends: Sequence | null;
}

/** What the sources of a bench share: one of them runs at a time, and all tell what happens to the same page. */
export interface SourceDesk {
  options: ListenOptions;
  sessions: Sessions;
  thinker: Thinker;
  /** What the newest live session has opened. */
  opened: { current: OpenedSource | null };
  /** What the station that is worked at needs to hear. */
  wanted: { current: Wanted };
  dispatch: Dispatch<ListeningEvent>;
}

/** What may be played, on which machine, live or in a file. */
export const played = async ({ tape, speedCmPerS, nominalHz, tracks }: ListenOptions) => ({
  tape,
  speedFactor: speedCmPerS / tape.speedCmPerS,
  nominalHz,
  tracks,
  sequences: await everySequence(),
});

export const listenFor = async (options: ListenOptions) => ({
  ...(await played(options)),
  evidenceSeconds: (await readSettings()).evidenceSeconds,
});

/** What did not start, or broke off, is ended and told; of a session that has ended nobody wants to know. */
export function fail({ dispatch }: SourceDesk, session: Session, why: string, canStartAgain: boolean): void {
  if (session.closed) return;
  void session.close();
  dispatch({ session: session.id, kind: "failed", why, canStartAgain });
}

/** A source stopped by itself: what was measured stays to be seen, what was logged is stored. */
export function lose({ dispatch }: SourceDesk, session: Session, why: string): void {
  if (session.closed) return;
  void session.close();
  dispatch({ session: session.id, kind: "lost", why: `${why} What was logged is kept.` });
}

/** Opens the worker that listens in a session, and ends with it. */
export function openWorker(desk: SourceDesk, session: Session): OpenedSource {
  const worker = startListener();
  session.own(() => finishListener(worker));
  const mine: OpenedSource = { session, worker, kept: null, sends: null };
  desk.opened.current = mine;
  worker.died.catch(({ message }: Error) => lose(desk, session, message));
  void worker.api.want(desk.wanted.current);
  return mine;
}

/** Shows what a live source gives, and thinks about the parts that are heard in it. */
export function take(desk: SourceDesk, mine: OpenedSource, from: LiveSource) {
  const { dispatch, thinker, options } = desk;
  const { session, worker } = mine;
  return (result: ListeningResult, deck?: DeckStatus) => {
    dispatch({ session: session.id, kind: "heard", result, from, deck });
    if (deck && desk.opened.current === mine) keepRecording(options.jobId, mine, deck);
    if (!result.stretch) return;
    const { stretch, marks } = result;
    void thinker.ask("parts", "parts", { stretch, geometry: options.geometry }).then((transport) => {
      if (!transport || session.closed) return;
      dispatch({ session: session.id, kind: "parts found", transport, told: marks });
      void worker.api.noteTransport(transport.events, transport.finding.spectrum);
    });
  };
}

/** Keeps how far a recording of the practice machine is, so that it goes on when the page is loaded anew. */
function keepRecording(jobId: string, mine: OpenedSource, deck: DeckStatus): void {
  const kept = mine.kept && withRecording(mine.kept, deck, mine.sends);
  if (!kept) return;
  mine.kept = kept;
  void keepPractice(jobId, kept);
}
