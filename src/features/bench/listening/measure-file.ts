import { callback, startListener } from "@/workers/start-worker";
import { fail, played, type SourceDesk } from "./source-desk";

/** Measures a file as what the station wants to hear. */
export async function measureFile(desk: SourceDesk, file: File): Promise<void> {
  const { options, sessions, dispatch } = desk;
  const session = sessions.begin();
  const { id } = session;
  const droppedAt = new Date().toISOString();
  dispatch({ session: id, kind: "begun", source: "file" });
  dispatch({ session: id, kind: "progress", share: 0 });
  try {
    const { sequence: sequenceId, recording, blanking } = desk.wanted.current;
    const watches: "recording" | "blanking" | null = recording ? "recording" : blanking ? "blanking" : null;
    const as = { ...(await played(options)), geometry: options.geometry, sequenceId, watches };
    if (session.closed) return;
    const worker = startListener();
    session.own(() => worker.end());
    const measured = await worker.api.measureFile(
      file,
      as,
      callback((share: number) => dispatch({ session: id, kind: "progress", share })),
    );
    if (session.closed) return;
    dispatch({ session: id, kind: "file measured", file: measured, droppedAt });
  } catch (error) {
    fail(desk, session, `${file.name}: ${(error as Error).message}`, false);
  } finally {
    void session.close();
  }
}
