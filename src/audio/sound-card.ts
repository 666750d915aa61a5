/** A sound-card input that is running: its blocks come out of `port`. */
export interface SoundCardInput {
  name: string;
  sampleRateHz: number;
  channelCount: number;
  port: MessagePort;
  /** What the browser does to the sound in spite of being asked not to; empty when it is left alone. */
  processing: string[];
  stop(): void;
}

/**
 * Opens the default sound-card input, asking for unprocessed stereo.
 * @param onLost called when the device goes away
 * @throws Error with a sentence for the user when it is refused or missing
 */
export async function openSoundCard(onLost: () => void): Promise<SoundCardInput> {
  if (!navigator.mediaDevices?.getUserMedia)
    throw new Error("This page may not use the sound card. Open Unzel on http://localhost or over https.");
  let stream: MediaStream;
  try {
    stream = await navigator.mediaDevices.getUserMedia({
      audio: { echoCancellation: false, noiseSuppression: false, autoGainControl: false, channelCount: 2 },
    });
  } catch (error) {
    throw new Error(
      (error as DOMException).name === "NotAllowedError"
        ? "The browser was not allowed to listen. Allow the microphone for this page in the address bar, then try again."
        : "No sound-card input answers. Plug it in, check that no other program holds it, then try again.",
    );
  }
  const [track] = stream.getAudioTracks();
  const settings = track.getSettings();
  const context = new AudioContext({ sampleRate: settings.sampleRate, latencyHint: "interactive" });
  const stop = () => {
    track.stop();
    void context.close();
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
    track.addEventListener("ended", () => {
      stop();
      onLost();
    });
    return {
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
