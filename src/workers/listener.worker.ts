import "./without-eval";
import * as Comlink from "comlink";
import { openSound } from "@/core/formats/open-sound";
import { bytesOfBlob } from "@/core/formats/blob-bytes";
import { wavFile } from "@/core/formats/wav-writer";
import { findSides } from "@/core/live/find-sides";
import { loopBackOf } from "@/core/live/loop-back";
import { measureForBench } from "@/core/recordings/measure-for-bench";
import { InputSource } from "./input-source";
import { NOTHING_WANTED, type ListenerApi, type Wanted } from "./listener-api";
import type { LiveSource } from "./live-source";
import { PracticeSource } from "./practice-source";
import { seldom } from "./now-and-then";
import { serve } from "./serve";

/** What this worker listens to, from its start to its end. */
let source: LiveSource | null = null;
/** May be told before the source has started. */
let wanted: Wanted = NOTHING_WANTED;

function practice(): PracticeSource {
  if (source instanceof PracticeSource) return source;
  throw new Error("The practice machine is switched off. Start it under Practice.");
}

function recentSound() {
  if (!source) throw new Error("The input has stopped. Start it and try again.");
  return source.live.recent();
}

function listenTo<S extends LiveSource>(started: S): S {
  if (source) throw new Error("This worker listens to another source already.");
  started.wanted = wanted;
  source = started;
  return started;
}

/** Sound as a file for the page; null where there is none. */
function asWav(kept: { sampleRateHz: number; channels: Float32Array[] } | undefined) {
  if (!kept || kept.channels.length === 0 || kept.channels[0].length === 0) return null;
  const rate = Math.round(kept.sampleRateHz);
  const wav = wavFile(kept.channels, rate, "int24");
  return Comlink.transfer({ wav, seconds: kept.channels[0].length / rate }, [wav.buffer]);
}

const api: ListenerApi = {
  async startPractice(start, listenFor, onResult) {
    return listenTo(await PracticeSource.start(start, listenFor, onResult)).state;
  },

  async turnPractice(trimmer, turns) {
    practice().turn(trimmer, turns);
    return practice().state;
  },

  async repairPractice(work) {
    practice().repair(work);
  },

  async pressKey(key) {
    await practice().press(key);
    return practice().state;
  },

  async loadTape(reference) {
    await practice().load(reference);
    return practice().state;
  },

  async loadBlank(blank) {
    await practice().loadBlank(blank);
    return practice().state;
  },
  async windToStart(way) {
    await practice().windToStart(way);
    return practice().state;
  },

  async turnSide() {
    practice().turnSide();
    return practice().state;
  },

  async resetCounter() {
    practice().resetCounter();
    return practice().state;
  },

  async chooseInput(sequence) {
    practice().chooseInput(sequence);
  },

  async startInput(port, start, listenFor, onResult, onStall) {
    listenTo(new InputSource(port, start, listenFor, onResult, onStall));
  },

  async want(now) {
    wanted = now;
    if (source) source.wanted = now;
  },

  async clearPlayback() {
    source?.live.clearPlayback();
  },

  async forgetQuiet() {
    source?.live.forgetQuiet();
  },

  async beginBlanking() {
    source?.live.beginBlanking();
  },

  async beginControls() {
    source?.live.beginControls();
  },

  async beginWind() {
    return source?.live.beginWind() ?? null;
  },

  async clearHold() {
    source?.live.clearHold();
  },

  async sayHears(what) {
    source?.live.sayHears(what);
  },

  async setTapeSwitch(type) {
    practice().setTapeSwitch(type);
    return practice().state;
  },
  async setSwitches(wanted) {
    practice().setSwitches(wanted);
    return practice().state;
  },

  async monitor(what) {
    practice().monitor(what);
    return practice().state;
  },

  async watch(on, before) {
    if (on) source?.live.startWatch(before);
    else source?.live.stopWatch();
  },

  async noteTransport(events, spectrum) {
    source?.live.noteTransport(events, spectrum);
  },

  async mark() {
    return source?.live.mark() ?? 0;
  },

  async evidence() {
    return asWav(source?.live.evidence());
  },

  async clip(seconds) {
    return asWav(source?.live.lastSeconds(seconds));
  },

  async loopBack(toneHz) {
    const { channels, sampleRateHz } = recentSound();
    return loopBackOf(channels[0], sampleRateHz, toneHz);
  },

  async findSides() {
    const { channels, sampleRateHz } = recentSound();
    return findSides(channels, sampleRateHz);
  },

  async measureFile(file, as, onProgress) {
    return measureForBench(file.name, await openSound(bytesOfBlob(file)), as, seldom(onProgress));
  },

  async finish() {
    await source?.finish();
    source = null;
  },
};

serve(api);
