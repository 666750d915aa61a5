import { OUTPUT_GONE, playOn } from "./play-on";

/** Something that plays through the sound card. */
export interface Playing {
  /** Loudness as an amplitude ratio; changes glide. */
  setGain(gain: number): void;
  stop(): void;
}

/**
 * Plays blocks that come from a port: each message "more" sent to it is answered by [left, right] as Float32Arrays,
 * or by null after the last one.
 * @param outputId the device to play on; null for the default one
 * @param onEnd called when the last sample has sounded, with how many samples came too late
 * @throws Error with a sentence for the user when the output cannot be opened
 */
export async function playBlocks(
  source: MessagePort,
  sampleRateHz: number,
  outputId: string | null,
  gain: number,
  onEnd: (lateSamples: number) => void,
): Promise<Playing> {
  const context = new AudioContext({ sampleRate: sampleRateHz, latencyHint: "playback" });
  try {
    await playOn(context, outputId);
    await context.audioWorklet.addModule("/worklets/playback.js");
    await context.resume();
  } catch {
    void context.close();
    throw new Error(OUTPUT_GONE);
  }
  const player = new AudioWorkletNode(context, "unzel-playback", {
    numberOfInputs: 0,
    numberOfOutputs: 1,
    outputChannelCount: [2],
  });
  player.port.postMessage({ gain });
  player.port.postMessage({ source }, [source]);
  player.connect(context.destination);
  const stop = () => {
    if (context.state !== "closed") void context.close();
  };
  player.port.onmessage = ({ data }: MessageEvent<{ done: boolean; late: number }>) => {
    stop();
    onEnd(data.late);
  };
  return { setGain: (value) => player.port.postMessage({ gain: value }), stop };
}
