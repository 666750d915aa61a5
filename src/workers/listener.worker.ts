import * as Comlink from "comlink";
import { bytesOfBlob } from "@/core/formats/byte-source";
import { openSound } from "@/core/formats/open-sound";
import type { SoundFile } from "@/core/formats/sound-file";
import { wavFile } from "@/core/formats/wav-writer";
import { findSides } from "@/core/listen/find-sides";
import { atSpeed, LiveListening } from "@/core/listen/live-listening";
import { worstTransport, type Geometry } from "@/core/listen/transport-view";
import { loopBackOf } from "@/core/listen/loop-back";
import { explainResponse } from "@/core/advice/response-doctor";
import { LivePlayback } from "@/core/listen/live-playback";
import { isWide } from "@/core/listen/wide-band";
import { timeConstants } from "@/core/reference/reference-tape";
import { usualFormat } from "@/core/standards/track-formats";
import { measureRecording } from "@/core/listen/measure-recording";
import { PracticeDeck } from "@/core/machine/practice-deck";
import type { Tape } from "@/core/machine/tape";
import { TransportMeter } from "@/core/measure/transport-meter";
import { blankTape, practiceTape, sequenceInput } from "@/core/practice/practice-tape";
import { keepTape, restoreTape } from "@/storage/practice-tapes";
import type { Sequence } from "@/core/signals/sequence";
import type { FileMeasurement, ListenerApi, ListenFor, PracticeState } from "./listener-api";

const RESULTS_PER_SECOND = 10;
const PRACTICE_RATE_HZ = 48000;
/** Practice sound owed after the page slept is let go, not caught up with. */
const LONGEST_CATCH_UP_SECONDS = 0.5;
const STALLED_SECONDS = 1.5;
const STARTING_SECONDS = 2;

let live: LiveListening | null = null;
let withFlutter = false;
let withPlayback: string | null = null;
let deck: PracticeDeck | null = null;
let tape: Tape | null = null;
let sequence: Sequence | null = null;
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
  if (tape) void keepTape(tape);
  tape = null;
}

function practiceState(): PracticeState {
  if (!deck) throw new Error("The practice machine is switched off. Start it under Practice.");
  const trimmers = deck.trimmers.map(({ slotTurns, atStop }) => ({ slotTurns, atStop }));
  return { trimmers, deck: deck.status };
}

async function inserted(content: Tape): Promise<Tape> {
  if (tape) await keepTape(tape);
  await restoreTape(content);
  tape = content;
  return content;
}

const api: ListenerApi = {
  async startPractice({ parameters, seed, turnedTo, done }, listenFor, onResult) {
    stop();
    const content = await inserted(practiceTape(listenFor.tape));
    deck = new PracticeDeck({ parameters, seed, sampleRateHz: PRACTICE_RATE_HZ, tape: content });
    for (const work of done) deck.repair(work);
    deck.trimmers.forEach((trimmer, i) => trimmer.turn(turnedTo[i] ?? 0));
    deck.press("play");
    live = new LiveListening({ ...listenFor, sampleRateHz: PRACTICE_RATE_HZ, channelCount: 2 });
    let last = performance.now();
    timer = setInterval(() => {
      if (!deck || !live) return;
      const now = performance.now();
      const seconds = Math.min(LONGEST_CATCH_UP_SECONDS, (now - last) / 1000);
      last = now;
      live.push(deck.render(Math.round(seconds * PRACTICE_RATE_HZ)));
      onResult(live.result(withFlutter, withPlayback), deck.status);
    }, 1000 / RESULTS_PER_SECOND);
    return practiceState();
  },

  async turnPractice(trimmer, turns) {
    deck?.trimmers[trimmer].turn(turns);
    return practiceState();
  },

  async repairPractice(work) {
    deck?.repair(work);
  },

  async pressKey(key) {
    if (key === "record") deck?.setInput(sequence && sequenceInput(sequence, PRACTICE_RATE_HZ));
    deck?.press(key);
    if (tape && key !== "record") await keepTape(tape);
    live?.mark();
    return practiceState();
  },

  async loadTape(reference) {
    const speedCmPerS = tape?.speedCmPerS ?? 4.76;
    deck?.load(await inserted(reference ? practiceTape(reference) : blankTape(speedCmPerS)));
    return practiceState();
  },

  async turnSide() {
    deck?.turnSide();
    return practiceState();
  },

  async resetCounter() {
    deck?.resetCounter();
    return practiceState();
  },

  async chooseInput(chosen) {
    sequence = chosen;
  },

  async startInput(port, { sampleRateHz, channelCount, clockPpm }, listenFor, onResult, onStall) {
    stop();
    live = new LiveListening({
      ...listenFor,
      sampleRateHz: sampleRateHz * (1 + clockPpm / 1e6),
      channelCount,
    });
    input = port;
    let expected: number | null = null;
    let first = Infinity;
    let silentTicks = 0;
    port.onmessage = ({ data }: MessageEvent<{ start: number; channels: Float32Array[] }>) => {
      const { start, channels } = data;
      // while it starts, an input comes and goes; nothing is measured by then
      if (expected !== null && start > expected && start - first > STARTING_SECONDS * sampleRateHz)
        live?.lose(start - expected);
      first = Math.min(first, start);
      expected = start + channels[0].length;
      silentTicks = -1;
      live?.push(channels);
    };
    timer = setInterval(() => {
      if (live && silentTicks === -1) onResult(live.result(withFlutter, withPlayback));
      silentTicks++;
      if (silentTicks === STALLED_SECONDS * RESULTS_PER_SECOND) onStall();
    }, 1000 / RESULTS_PER_SECOND);
  },

  async showFlutter(wanted) {
    withFlutter = wanted;
  },

  async showPlayback(role) {
    withPlayback = role;
  },

  async clearPlayback() {
    live?.clearPlayback();
  },

  async clearHold() {
    live?.clearHold();
  },

  async explain(points, curve) {
    return explainResponse(points, curve);
  },

  async watch(wanted) {
    if (wanted) live?.startWatch();
    else live?.stopWatch();
  },

  async mark() {
    return live?.mark() ?? 0;
  },

  async evidence() {
    const kept = live?.evidence();
    if (!kept || kept.channels.length === 0 || kept.channels[0].length === 0) return null;
    const rate = Math.round(kept.sampleRateHz);
    const wav = wavFile(kept.channels, rate, "int24");
    return Comlink.transfer({ wav, seconds: kept.channels[0].length / rate }, [wav.buffer]);
  },

  async loopBack(toneHz) {
    const kept = live?.recent();
    if (!kept) throw new Error("The input has stopped. Start it and try again.");
    return loopBackOf(kept.channels[0], kept.sampleRateHz, toneHz);
  },

  async findSides() {
    const kept = live?.recent();
    if (!kept) throw new Error("Start the source first.");
    return findSides(kept.channels, kept.sampleRateHz);
  },

  async stop() {
    stop();
  },

  async measureFile(file, { tape: reference, speedFactor, nominalHz, geometry, tracks }, onProgress) {
    cancelled = false;
    const sound = await openSound(bytesOfBlob(file));
    return reference.bands.length > 1 || isWide(reference.bands[0])
      ? measureTape(file.name, sound, { tape: atSpeed(reference, speedFactor), tracks }, onProgress)
      : measureTone(file.name, sound, nominalHz, geometry, onProgress);
  },

  async cancelFile() {
    cancelled = true;
  },
};

async function measureTone(
  name: string,
  sound: SoundFile,
  nominalHz: number,
  geometry: Geometry,
  onProgress: (share: number) => void,
): Promise<FileMeasurement | null> {
  const meter = new TransportMeter(sound.sampleRateHz, sound.channelCount, nominalHz);
  let frames = 0;
  let reported = 0;
  for await (const block of sound.blocks()) {
    meter.push(block);
    frames += block[0].length;
    if (performance.now() - reported > 100) {
      reported = performance.now();
      onProgress(frames / sound.frameCount);
    }
    if (cancelled) return null;
  }
  const channels = meter.channels.map((channel, c) => {
    const speed = meter.speed(c);
    const flutter = meter.flutter(c);
    return {
      channel,
      speed: speed.result,
      flutter: flutter.result,
      warnings: [...new Set([...speed.warnings, ...flutter.warnings])],
    };
  });
  const { sampleRateHz, durationSeconds, warnings } = sound;
  const transport = worstTransport(meter, geometry);
  return { name, sampleRateHz, durationSeconds, warnings, channels, transport, playback: null };
}

/** Of a tape with several bands: speed from the band that is for it, or else from the one that is known best. */
async function measureTape(
  name: string,
  sound: SoundFile,
  { tape: reference, tracks }: Pick<ListenFor, "tape" | "tracks">,
  onProgress: (share: number) => void,
): Promise<FileMeasurement | null> {
  const report = await measureRecording(sound, {
    tape: reference,
    sequences: [],
    onProgress,
    cancelled: () => cancelled,
  });
  if (!report) return null;
  const usable = report.stretches.filter(({ speed }) => speed !== null);
  const forSpeed = usable.filter(({ index }) => reference.bands[index].role === "speed");
  const [best] = [...forSpeed, ...usable].toSorted(
    (a, b) => Number(forSpeed.includes(b)) - Number(forSpeed.includes(a)),
  );
  const { sampleRateHz, durationSeconds } = report;
  const warnings = best ? report.warnings : [...report.warnings, `No tone of ${reference.name} was heard.`];
  const channels = best
    ? [{ channel: best.speed!.channel, speed: best.speed, flutter: best.flutter, warnings: best.warnings }]
    : [];
  const heard = report.heard!;
  const speedCmPerS = reference.speedCmPerS * heard.speedRatio;
  const playback = new LivePlayback({
    sampleRateHz,
    tape: reference,
    speedFactor: 1,
    tracks: tracks ?? usualFormat(speedCmPerS),
    speedCmPerS,
    equalisation: timeConstants(reference.equalisation, reference.speedCmPerS),
  }).take(heard);
  return { name, sampleRateHz, durationSeconds, warnings, channels, transport: null, playback };
}

Comlink.expose(api);
