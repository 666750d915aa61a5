import "./without-eval";
import { SequenceRenderer } from "@/core/signals/render-sequence";
import type { Sequence } from "@/core/signals/sequence";
import { serve } from "./serve";

const BLOCK = 8192;

/** Renders test sequences for playing, a block whenever one is asked for. */
export interface PlayerApi {
  /** Rejects with a sentence when the sequence cannot be rendered at that rate. */
  open(
    sequence: Sequence,
    sampleRateHz: number,
    out: MessagePort,
    onProgress: (share: number) => void,
  ): Promise<void>;
}

const api: PlayerApi = {
  async open(sequence, sampleRateHz, out, onProgress) {
    const renderer = new SequenceRenderer(sequence, sampleRateHz);
    let at = 0;
    out.onmessage = () => {
      if (at >= renderer.frames) return out.postMessage(null);
      const block = renderer
        .block(at, Math.min(BLOCK, renderer.frames - at))
        .map((channel) => Float32Array.from(channel));
      at += BLOCK;
      out.postMessage(
        block,
        block.map(({ buffer }) => buffer),
      );
      onProgress(Math.min(1, at / renderer.frames));
    };
  },
};

serve(api);
