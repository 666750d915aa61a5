/** A sound-card input that is running: its blocks come out of `port`. */
export interface SoundCardInput {
  deviceId: string;
  name: string;
  sampleRateHz: number;
  channelCount: number;
  port: MessagePort;
  /** What the browser says it does to the sound in spite of being asked not to; empty when it is left alone. */
  processing: string[];
  stop(): void;
}

/** What became of an input that stopped by itself, and the way back. */
export const INPUT_LOST = {
  unplugged: "The sound card went away. Plug it in and start it again.",
  interrupted: "The sound card was stopped by the system, by sleep or by another program. Start it again.",
  silent: "Nothing has come from the sound card for a while. Start it again.",
};
type Loss = keyof typeof INPUT_LOST;

const UNPROCESSED = { echoCancellation: false, noiseSuppression: false, autoGainControl: false };

/**
 * Opens a sound-card input, asking for unprocessed stereo: the one with that id, or the default one.
 * @param onLost called once when the device goes away, or the system stops it (sleep, another program), with a sentence
 * @throws Error with a sentence for the user when it is refused or missing
 */
export async function openSoundCard(
  deviceId: string | null,
  onLost: (why: string) => void,
): Promise<SoundCardInput> {
  if (!navigator.mediaDevices?.getUserMedia)
    throw new Error("This page may not use the sound card. Open Unzel on http://localhost or over https.");
  let stream: MediaStream;
  try {
    stream = await navigator.mediaDevices.getUserMedia({
      audio: { ...UNPROCESSED, channelCount: 2, ...(deviceId && { deviceId: { exact: deviceId } }) },
    });
  } catch (error) {
    throw new Error(refusal((error as DOMException).name, deviceId !== null));
  }
  const [track] = stream.getAudioTracks();
  const settings = track.getSettings();
  const context = new AudioContext({ sampleRate: settings.sampleRate, latencyHint: "interactive" });
  let stopped = false;
  const stop = () => {
    stopped = true;
    track.stop();
    if (context.state !== "closed") void context.close();
  };
  const lose = (loss: Loss) => {
    if (stopped) return;
    stop();
    onLost(INPUT_LOST[loss]);
  };
  try {
    await context.audioWorklet.addModule("/worklets/capture.js");
    await context.resume();
    const channelCount = settings.channelCount ?? 2;
    const capture = new AudioWorkletNode(context, "unzel-capture", {
      numberOfInputs: 1,
      numberOfOutputs: 0,
      channelCount,
      channelCountMode: "explicit",
      channelInterpretation: "discrete",
    });
    const { port1, port2 } = new MessageChannel();
    capture.port.postMessage(port1, [port1]);
    context.createMediaStreamSource(stream).connect(capture);
    track.addEventListener("ended", () => lose("unplugged"));
    context.addEventListener("statechange", () => {
      if (context.state === "running" || stopped) return;
      // after sleep the browser may let it run on when asked; otherwise it is lost
      context.resume().catch(() => lose("interrupted"));
      setTimeout(() => context.state !== "running" && lose("interrupted"), 2000);
    });
    return {
      deviceId: settings.deviceId ?? deviceId ?? "default",
      name: track.label || "sound card",
      sampleRateHz: context.sampleRate,
      channelCount,
      port: port2,
      processing: [
        ...(settings.echoCancellation ? ["echo cancellation"] : []),
        ...(settings.noiseSuppression ? ["noise suppression"] : []),
        ...(settings.autoGainControl ? ["automatic gain"] : []),
      ],
      stop,
    };
  } catch (error) {
    stop();
    throw new Error(`The sound card could not be started: ${(error as Error).message}`);
  }
}

function refusal(name: string, chosen: boolean): string {
  if (name === "NotAllowedError")
    return "The browser was not allowed to listen. Allow the microphone for this page in the address bar, then try again.";
  if (name === "OverconstrainedError" || (name === "NotFoundError" && chosen))
    return "The sound card that was chosen is not there. Plug it in, or choose another input, then try again.";
  return "No sound-card input answers. Plug it in, check that no other program holds it, then try again.";
}
