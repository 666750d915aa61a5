import type { Samples } from "@/core/dsp/signal";
import { BlankingWatch, type BlankingChannel } from "@/core/measure/blanking";
import { oscillatorLine, type OscillatorLine } from "@/core/measure/oscillator-line";
import { quietOf, type Quiet } from "@/core/measure/quiet";
import type { RecordingRun } from "@/core/records/recording-run";
import { Every } from "./every";
import type { RecentSound } from "./recent-sound";
import { RecordingWatch, WATCHED_TONES, type Resumed } from "./recording-watch";

export interface RecordSideHear {
  /** The recording that is watched; fresh twice a second, null in between and while none is. */
  recording: RecordingRun | null;
  /** Bias that is left in what is heard, likewise. */
  oscillator: OscillatorLine | null;
  /** Noise of what plays nothing; fresh every two seconds, null in between, while a tone plays, and while not asked for. */
  quiet: Quiet | null;
  /** A blanking test so far, by channel; fresh twice a second, null in between and while none is listened for. */
  blanking: Array<BlankingChannel | null> | null;
}

const EVERY_SECONDS = 0.45;
const OSCILLATOR_SECONDS = 1;
const QUIET_SECONDS = 8;
const QUIET_EVERY_SECONDS = 2;

/**
 * What is listened for while a machine records, or plays nothing: a recording as it goes on, an old programme that is
 * blanked, the quiet. Each as long as it is wanted.
 */
export class RecordSideWatch {
  private recording: RecordingWatch | null = null;
  private blanking: BlankingWatch | null = null;
  private wantsQuiet: "silence" | "faint tones" | null = null;
  private quietSince = 0;
  private readonly recordingEvery: Every;
  private readonly blankingEvery: Every;
  private readonly quietEvery = new Every(QUIET_EVERY_SECONDS);

  /** @param pace seconds of sound in a second of the clock */
  constructor(
    private readonly recentSound: RecentSound,
    private readonly channelCount: number,
    pace: number,
  ) {
    this.recordingEvery = new Every(pace * EVERY_SECONDS);
    this.blankingEvery = new Every(pace * EVERY_SECONDS);
  }

  push(block: Samples[]): void {
    this.recording?.push(block);
    this.blanking?.push(block);
  }

  /** What sounded before does not belong to what is quiet from now on. */
  quietFrom(seconds: number): void {
    this.quietSince = seconds;
  }

  /** Whether a recording is watched; `from` is one that was watched before. */
  watchRecording(on: boolean, from: Resumed | null): void {
    if (!on) this.recording = null;
    else
      this.recording ??= new RecordingWatch(
        this.recentSound.sampleRateHz,
        this.channelCount,
        WATCHED_TONES,
        from,
      );
  }

  /** What is heard of the recording at this moment. */
  hears(what: Parameters<RecordingWatch["hears"]>[0]): void {
    this.recording?.hears(what);
  }

  listenForQuiet(wanted: "silence" | "faint tones" | null): void {
    this.wantsQuiet = wanted;
  }

  beginBlanking(): void {
    this.blanking = new BlankingWatch(this.recentSound.sampleRateHz, this.channelCount);
  }

  /** The same anew, if it is listened for. */
  againBlanking(): void {
    if (this.blanking) this.beginBlanking();
  }

  endBlanking(): void {
    this.blanking = null;
  }

  /** @param tonePlays a tone is no quiet */
  result(seconds: number, tonePlays: boolean): RecordSideHear {
    const { recording, blanking } = this;
    const watched = recording && this.recordingEvery.takes(seconds) ? recording : null;
    return {
      recording: watched?.result ?? null,
      oscillator:
        watched &&
        oscillatorLine(this.recentSound.contents(OSCILLATOR_SECONDS), this.recentSound.sampleRateHz),
      quiet: this.quiet(seconds, tonePlays),
      blanking: blanking && this.blankingEvery.takes(seconds) ? blanking.result : null,
    };
  }

  private quiet(seconds: number, tonePlays: boolean): Quiet | null {
    if (this.wantsQuiet === null || (this.wantsQuiet === "silence" && tonePlays)) return null;
    if (!this.quietEvery.takes(seconds)) return null;
    const since = Math.min(QUIET_SECONDS, seconds - this.quietSince);
    return quietOf(this.recentSound.contents(Math.max(0, since)), this.recentSound.sampleRateHz);
  }
}
