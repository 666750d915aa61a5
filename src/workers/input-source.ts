import type { ListeningResult } from "@/core/live/listening-result";
import { LiveListening } from "@/core/live/live-listening";
import { NOTHING_WANTED, type InputStart, type ListenFor, type Wanted } from "./listener-api";
import { resultOf, RESULTS_PER_SECOND, type LiveSource } from "./live-source";

const STALLED_SECONDS = 1.5;
const STARTING_SECONDS = 2;

/** A sound card that sends its blocks through a port. */
export class InputSource implements LiveSource {
  readonly live: LiveListening;
  wanted: Wanted = NOTHING_WANTED;
  private readonly timer: ReturnType<typeof setInterval>;

  constructor(
    private readonly port: MessagePort,
    { sampleRateHz, channelCount, clockPpm }: InputStart,
    listenFor: ListenFor,
    onResult: (result: ListeningResult) => void,
    onStall: () => void,
  ) {
    this.live = new LiveListening({
      ...listenFor,
      sampleRateHz: sampleRateHz * (1 + clockPpm / 1e6),
      channelCount,
    });
    let expected: number | null = null;
    let first = Infinity;
    let silentTicks = 0;
    port.onmessage = ({ data }: MessageEvent<{ start: number; channels: Float32Array[] }>) => {
      const { start, channels } = data;
      // while it starts, an input comes and goes; nothing is measured by then
      if (expected !== null && start > expected && start - first > STARTING_SECONDS * sampleRateHz)
        this.live.lose(start - expected);
      first = Math.min(first, start);
      expected = start + channels[0].length;
      silentTicks = -1;
      this.live.push(channels);
    };
    this.timer = setInterval(() => {
      if (silentTicks === -1) onResult(resultOf(this));
      silentTicks++;
      if (silentTicks === STALLED_SECONDS * RESULTS_PER_SECOND) onStall();
    }, 1000 / RESULTS_PER_SECOND);
  }

  async finish(): Promise<void> {
    clearInterval(this.timer);
    this.port.close();
  }
}
