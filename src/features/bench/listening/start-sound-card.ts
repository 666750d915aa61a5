import { INPUT_LOST, openSoundCard } from "@/audio/sound-card";
import type { LiveSource } from "@/core/live/heard-live";
import { readCalibration } from "@/storage/calibrations";
import { readSettings } from "@/storage/settings";
import { callback, handOver } from "@/workers/start-worker";
import { fail, listenFor, lose, openWorker, take, type SourceDesk } from "./source-desk";

/** Starts the input that was chosen, with what its calibration knows of it. */
export async function startSoundCard(desk: SourceDesk): Promise<void> {
  const { options, sessions, dispatch } = desk;
  const session = sessions.begin();
  const { id } = session;
  dispatch({ session: id, kind: "begun", source: "sound card" });
  try {
    await sessions.earlierEnded();
    const { inputId } = await readSettings();
    if (session.closed) return;
    const input = await openSoundCard(inputId, (why) => lose(desk, session, why));
    session.own(() => input.stop());
    const { port, ...about } = input;
    const calibration = (await readCalibration(input.deviceId)) ?? null;
    const listen = await listenFor(options);
    if (session.closed) return;
    dispatch({ session: id, kind: "card opened", card: { ...about, calibration } });
    const clock = calibration?.clock;
    const mine = openWorker(desk, session);
    const from: LiveSource = {
      source: { kind: "sound card", name: input.name },
      clockPercent: clock ? clock.uncertaintyPpm / 1e4 : undefined,
      fullScale: calibration?.level ?? null,
      ownNoiseDbfs: calibration?.loopBack?.noiseDbfs ?? null,
    };
    await mine.worker.api.startInput(
      handOver(port, [port]),
      { sampleRateHz: input.sampleRateHz, channelCount: input.channelCount, clockPpm: clock?.ppm ?? 0 },
      listen,
      callback(take(desk, mine, from)),
      callback(() => lose(desk, session, INPUT_LOST.silent)),
    );
    dispatch({
      session: id,
      kind: "card started",
      trouble:
        input.processing.length > 0
          ? `The browser changes the sound (${input.processing.join(", ")}) although it was asked not to. Levels cannot be trusted; turn that off in the system's sound settings.`
          : null,
    });
  } catch (error) {
    fail(desk, session, (error as Error).message, true);
  }
}
