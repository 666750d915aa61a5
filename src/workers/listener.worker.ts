import * as Comlink from "comlink";
import { bytesOfBlob } from "@/core/formats/byte-source";
import { openSound } from "@/core/formats/open-sound";
import { PracticeDeck, type PracticeDeckOptions } from "@/core/machine/practice-deck";
import { LiveTransport, type LiveResult } from "@/core/measure/live-transport";
import { TransportMeter } from "@/core/measure/transport-meter";
import type { FileMeasurement, ListenerApi, PracticeState } from "./listener-api";

const RESULTS_PER_SECOND = 10;
const PRACTICE_RATE_HZ = 48000;
/** Practice sound owed after the page slept is let go, not caught up with. */
const LONGEST_CATCH_UP_SECONDS = 0.5;

let live: LiveTransport | null = null;
let withFlutter = false;
let emit: ((result: LiveResult) => void) | null = null;
let deck: PracticeDeck | null = null;
let timer: ReturnType<typeof setInterval> | undefined;
let input: MessagePort | null = null;
let cancelled = false;

function stop(): void {
  clearInterval(timer);
  timer = undefined;
  input?.close();
  input = null;
  live = null;
  deck = null;
}

function practiceState(): PracticeState {
  const trimmer = deck?.transport.trimmer;
  return { slotTurns: trimmer?.slotTurns ?? 0, atStop: trimmer?.atStop ?? false };
}

const api: ListenerApi = {
  async startPractice(options: Omit<PracticeDeckOptions, "sampleRateHz">, nominalHz, turnedTo, onResult) {
    stop();
    deck = new PracticeDeck({ ...options, sampleRateHz: PRACTICE_RATE_HZ });
    deck.transport.trimmer.turn(turnedTo);
    live = new LiveTransport(PRACTICE_RATE_HZ, 2, nominalHz);
    emit = onResult;
    let last = performance.now();
    timer = setInterval(() => {
      if (!deck || !live) return;
      const now = performance.now();
      const seconds = Math.min(LONGEST_CATCH_UP_SECONDS, (now - last) / 1000);
      last = now;
      live.push(deck.render(Math.round(seconds * PRACTICE_RATE_HZ)));
      emit?.(live.result(withFlutter));
    }, 1000 / RESULTS_PER_SECOND);
    return practiceState();
  },

  async turnPractice(turns) {
    deck?.transport.trimmer.turn(turns);
    return practiceState();
  },

  async startInput(port, sampleRateHz, channelCount, nominalHz, onResult) {
    stop();
    live = new LiveTransport(sampleRateHz, channelCount, nominalHz);
    emit = onResult;
    input = port;
    let heard = false;
    port.onmessage = ({ data }: MessageEvent<Float32Array[]>) => {
      heard = true;
      live?.push(data);
    };
    timer = setInterval(() => {
      if (live && heard) emit?.(live.result(withFlutter));
      heard = false;
    }, 1000 / RESULTS_PER_SECOND);
  },

  async showFlutter(wanted) {
    withFlutter = wanted;
  },

  async mark() {
    live?.mark();
  },

  async stop() {
    stop();
  },

  async measureFile(file, nominalHz, onProgress): Promise<FileMeasurement | null> {
    cancelled = false;
    const wav = await openSound(bytesOfBlob(file));
    const meter = new TransportMeter(wav.sampleRateHz, wav.channelCount, nominalHz);
    let frames = 0;
    let reported = 0;
    for await (const block of wav.blocks()) {
      meter.push(block);
      frames += block[0].length;
      if (performance.now() - reported > 100) {
        reported = performance.now();
        onProgress(frames / wav.frameCount);
      }
      if (cancelled) return null;
    }
    const rows = meter.channels.map((channel, c) => {
      const speed = meter.speed(c);
      const flutter = meter.flutter(c);
      return {
        channel,
        speed: speed.result,
        flutter: flutter.result,
        warnings: [...new Set([...speed.warnings, ...flutter.warnings])],
      };
    });
    return {
      name: file.name,
      sampleRateHz: wav.sampleRateHz,
      durationSeconds: wav.durationSeconds,
      warnings: wav.warnings,
      channels: rows,
    };
  },

  async cancelFile() {
    cancelled = true;
  },
};

Comlink.expose(api);
