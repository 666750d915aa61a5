import type { Samples } from "@/core/dsp/signal";
import { WatchLog, type WatchedBefore, type WatchTrack } from "@/core/measure/watch-log";
import { LiveTransport, type LiveResult, type LiveSpeed } from "@/core/measure/live-transport";
import { SignalCheck } from "@/core/measure/signal-check";
import type { SignalReport } from "@/core/measure/signal-findings";
import { timeConstants, type ReferenceTape } from "@/core/reference/reference-tape";
import type { Sequence } from "@/core/signals/sequence";
import { atSpeed } from "@/core/reference/at-speed";
import { LivePlayback } from "./live-playback";
import { SourceAndTapeFollower, type Followed, type SourceAndTape } from "@/core/playback/source-and-tape";
import type { PlaybackNow } from "@/core/playback/playback-now";
import type { ReturnedNow } from "@/core/returned/heard-pass";
import { LiveReturned } from "./live-returned";
import { RecentSound } from "./recent-sound";
import { RecordingWatch, WATCHED_TONES, type Resumed } from "./recording-watch";
import type { RecordingRun } from "@/core/records/recording-run";
import { BlankingWatch, type BlankingChannel } from "@/core/measure/blanking";
import { quietOf, type Quiet } from "@/core/measure/quiet";
import { oscillatorLine, type OscillatorLine } from "@/core/measure/oscillator-line";
import { usualFormat } from "@/core/standards/track-formats";
import type { HeadTracks } from "@/core/playback/azimuth-view";
import { WorkshopEars, type EarsHear, type EarsWanted } from "./workshop-ears";
import { WhatPlays, type BandNow } from "./what-plays";
import { WideBandFollower } from "./wide-band-follower";
import type { RatePoint } from "@/core/measure/rate-points";
import type { SteadyStretch } from "@/core/measure/steady-stretch";
import type { TransportEvent } from "@/core/measure/transport-events";

export interface ListeningResult extends LiveResult, EarsHear {
  /** How often it was told that something was turned. */
  marks: number;
  /** Frequency that the tone is compared with: that of the band that plays. */
  nominalHz: number;
  /** Fresh twice a second, null in between. */
  check: SignalReport | null;
  /** What the guilty parts are to be thought out from; fresh every few seconds, null in between. */
  stretch: SteadyStretch | null;
  /** The long run that is being watched; fresh every two seconds, null in between and while none is. */
  watch: WatchTrack | null;
  /** The tones of the tape, azimuth and response so far; fresh twice a second, null in between. */
  playback: PlaybackNow | null;
  /** What goes into a recorder and what comes back; fresh twice a second, null in between and while not asked for. */
  comparison: SourceAndTape | null;
  /** The recording that is watched; fresh twice a second, null in between and while none is. */
  recording: RecordingRun | null;
  /** Noise of what plays nothing; fresh every two seconds, null in between, while a tone plays, and while not asked for. */
  quiet: Quiet | null;
  /** A blanking test so far, by channel; fresh twice a second, null in between and while none is listened for. */
  blanking: Array<BlankingChannel | null> | null;
  /** Bias that is left in what is heard, likewise. */
  oscillator: OscillatorLine | null;
  /** What was heard of the sequence that is wanted; fresh when that changed, null in between. */
  returned: ReturnedNow | null;
  /** What plays now of the tape or of a sequence; null in between or when nothing was recognised. */
  band: BandNow | null;
  /** The sentence for it when a marked sequence is played: nothing of a reference tape is read from that. */
  sequencePlays: string | null;
  /** Places in the tape's list of the bands that have been heard so far. */
  bandsHeard: number[];
  /** Why the tape in the machine can hardly be the one chosen. */
  tapeDoubt: string | null;
}

export interface ListeningOptions {
  sampleRateHz: number;
  channelCount: number;
  tape: ReferenceTape;
  /** Sequences that may be played instead, told by their marks; none when left out. */
  sequences?: readonly Sequence[];
  /** Tape speed of the machine over that of the tape. */
  speedFactor: number;
  /** Frequency to compare with until a band is recognised. */
  nominalHz: number;
  /** Of the playback head; the usual ones of the tape speed when left out. */
  tracks?: HeadTracks | null;
  /** How much of the past is kept as evidence. */
  evidenceSeconds: number;
  /** Seconds of sound in a second of the clock, by which figures are made anew; 1 when left out. */
  pace?: number;
}

const RECOGNISED_SECONDS = 30;
const RECOGNISE_EVERY_SECONDS = 2;
const FIND_PARTS_EVERY_SECONDS = 4;
const WATCH_EVERY_SECONDS = 2;
const CHECK_EVERY_SECONDS = 0.45;
/** Tones that speed and flutter can be read from. */
const LOWEST_CARRIER_HZ = 900;
/** How far back questions about the present look. */
const RECENT_SECONDS = 10;
/** Kept even when no evidence is wanted, for questions about the present. */
const LEAST_KEPT_SECONDS = RECENT_SECONDS;
/** The longest sound of a preset, what comes after it, and what is around. */
const SEQUENCE_KEPT_SECONDS = 34;
const RESPONSE_ROLE = "response";
const PLAYBACK_EVERY_SECONDS = 0.45;
const LONGEST_BRIDGED_SECONDS = 0.1;
const OSCILLATOR_SECONDS = 1;
const QUIET_SECONDS = 8;
const QUIET_EVERY_SECONDS = 2;

/**
 * Everything that is listened for in a live source at once: speed and flutter of the tone that plays, the state of
 * the signal, which band of the tape it is, and the last seconds themselves. Push blocks, ask ten times a second.
 */
export class LiveListening {
  private transport: LiveTransport;
  private nominalHz: number;
  private readonly pace: number;
  private readonly check: SignalCheck;
  private readonly plays: WhatPlays;
  private readonly recentSound: RecentSound;
  private seconds = 0;
  private marks = 0;
  private markedAt = -Infinity;
  private nextCheck = 0;
  private nextFinding = 0;
  private readonly playback: LivePlayback;
  private readonly wide: WideBandFollower;
  private nextPlayback = 0;
  private readonly comparison: SourceAndTapeFollower;
  private nextComparison = 0;
  private readonly returned: LiveReturned;
  /** Null while no recording is watched. */
  private recording: RecordingWatch | null = null;
  private nextRecording = 0;
  private wantsQuiet: "silence" | "faint tones" | null = null;
  private nextQuiet = 0;
  private quietSince = 0;
  /** Null while no blanking test is listened for. */
  private blanking: BlankingWatch | null = null;
  private nextBlanking = 0;
  private readonly ears: WorkshopEars;
  private newReturned: ReturnedNow | null = null;
  /** Which of several bands of one frequency is listened for. */
  private wantedRole = "";
  private log: WatchLog | null = null;
  private nextWatch = 0;
  private nextRecognition = RECOGNISE_EVERY_SECONDS;
  /** Live results count their seconds anew when the meter changes to another band. */
  private transportSince = 0;

  constructor(private readonly options: ListeningOptions) {
    const { sampleRateHz, channelCount, nominalHz, evidenceSeconds } = options;
    this.nominalHz = nominalHz;
    this.pace = options.pace ?? 1;
    this.transport = new LiveTransport(sampleRateHz, channelCount, nominalHz, this.pace);
    const { tape, speedFactor, tracks } = options;
    const speedCmPerS = tape.speedCmPerS * speedFactor;
    this.playback = new LivePlayback({
      sampleRateHz,
      tape,
      speedFactor,
      speedCmPerS,
      tracks: tracks ?? usualFormat(speedCmPerS),
      equalisation: timeConstants(tape.equalisation, tape.speedCmPerS),
    });
    this.comparison = new SourceAndTapeFollower(sampleRateHz);
    this.returned = new LiveReturned(sampleRateHz, channelCount);
    this.ears = new WorkshopEars(sampleRateHz, channelCount);
    this.check = new SignalCheck(sampleRateHz, channelCount);
    this.wide = new WideBandFollower(atSpeed(tape, speedFactor), speedFactor);
    const longest = this.wide.secondsToKeep;
    this.plays = new WhatPlays({ ...options, keepSeconds: Math.max(RECOGNISED_SECONDS, longest) });
    const { sequences = [] } = options;
    const kept = Math.max(
      sequences.length > 0 ? SEQUENCE_KEPT_SECONDS : LEAST_KEPT_SECONDS,
      evidenceSeconds,
      longest,
    );
    this.recentSound = new RecentSound(sampleRateHz, channelCount, kept);
  }

  push(block: Samples[]): void {
    this.check.push(block);
    this.hear(block);
  }

  /** Samples that the sender knows to have been lost; after many, what comes is a new beginning. */
  lose(samples: number): void {
    this.check.lose(samples);
    const { sampleRateHz, channelCount } = this.options;
    if (samples > LONGEST_BRIDGED_SECONDS * sampleRateHz) {
      this.beginAnew();
      this.againBlanking();
    } else this.hear(Array.from({ length: channelCount }, () => new Float32Array(samples)));
  }

  private hear(block: Samples[]): void {
    this.recentSound.push(block);
    this.recording?.push(block);
    this.blanking?.push(block);
    this.plays.push(block);
    this.ears.push(block);
    this.transport.push(block);
    this.seconds += block[0].length / this.options.sampleRateHz;
  }

  /** Something was turned. Returns how often that was told, by which results from before and after it are told apart. */
  mark(): number {
    this.returned.mark(this.seconds);
    this.blanking = null;
    return this.interrupt();
  }

  /** What plays was interrupted, by a key of the machine: settled figures begin anew, though nothing was turned. */
  interrupt(): number {
    this.beginAnew();
    return ++this.marks;
  }

  private beginAnew(): void {
    this.markedAt = this.seconds;
    this.transport.mark();
    this.playback.mark(this.seconds);
    this.comparison.mark(this.seconds);
  }

  /** The other direction plays, or another head: the tones that were heard do not belong to it. */
  clearPlayback(): void {
    this.playback.clear(this.seconds);
    this.comparison.clear();
    this.returned.clear(this.seconds);
    this.blanking = null;
  }

  /** The sequence whose passes are measured; null for none. */
  wantSequence(id: string | null): void {
    this.returned.want(this.options.sequences?.find((one) => one.id === id) ?? null);
  }

  /**
   * Whether a recording is watched for the second at which it goes.
   * @param from one that was watched before, and how many seconds of it nobody heard since
   */
  watchRecording(on: boolean, from: Resumed | null = null): void {
    const { sampleRateHz, channelCount } = this.options;
    if (!on) this.recording = null;
    else this.recording ??= new RecordingWatch(sampleRateHz, channelCount, WATCHED_TONES, from);
  }

  /** Whether noise is measured, while nothing plays or nothing but faint tones do. */
  listenForQuiet(wanted: "silence" | "faint tones" | null): void {
    this.wantsQuiet = wanted;
  }

  /** What is listened for beside the tape. */
  listenBeside(wanted: EarsWanted): void {
    this.ears.want(wanted);
  }

  /** A control of the machine is worked from now on. */
  beginControls(): void {
    this.ears.beginControls();
  }

  /** The mechanism is timed from now on. Returns the how manyeth time that is. */
  beginWind(): number {
    return this.ears.beginWind();
  }

  /** Listens for an old programme that goes quiet, from now on. */
  beginBlanking(): void {
    const { sampleRateHz, channelCount } = this.options;
    this.blanking = new BlankingWatch(sampleRateHz, channelCount);
  }

  /** The same anew, if it is listened for. */
  againBlanking(): void {
    if (this.blanking) this.beginBlanking();
  }

  /** Whether it may be listened for. */
  listenForBlanking(may: boolean): void {
    if (!may) this.blanking = null;
  }

  /** Something else is quiet from now on: no tape in it, or another one. */
  forgetQuiet(): void {
    this.quietSince = this.seconds;
  }

  /** The search for the loudest point begins anew. */
  clearHold(): void {
    this.playback.clearHold();
  }

  /** The last seconds that were heard, oldest first, full scale = ±1. */
  recent(): { sampleRateHz: number; channels: Float32Array[] } {
    return {
      sampleRateHz: this.recentSound.sampleRateHz,
      channels: this.recentSound.contents(RECENT_SECONDS),
    };
  }

  /** So many of them, as far as they are kept. */
  lastSeconds(seconds: number): { sampleRateHz: number; channels: Float32Array[] } {
    return { sampleRateHz: this.recentSound.sampleRateHz, channels: this.recentSound.contents(seconds) };
  }

  /** As much of them as is wanted as evidence, perhaps nothing. */
  evidence(): { sampleRateHz: number; channels: Float32Array[] } {
    const { sampleRateHz } = this.recentSound;
    return { sampleRateHz, channels: this.recentSound.contents(this.options.evidenceSeconds) };
  }

  /**
   * @param withPlayback the role of the bands whose tones are wanted; null for none
   * @param follows what is followed into a recorder and back; null for nothing
   */
  result(
    withFlutter: boolean,
    withPlayback: string | null = null,
    follows: Followed | null = null,
  ): ListeningResult {
    this.wantedRole = withPlayback ?? "";
    if (this.seconds >= this.nextRecognition) {
      this.nextRecognition = this.seconds + RECOGNISE_EVERY_SECONDS;
      this.recognise();
    }
    let check: SignalReport | null = null;
    if (this.seconds >= this.nextCheck) {
      this.nextCheck = this.seconds + this.pace * CHECK_EVERY_SECONDS;
      check = this.check.report;
    }
    const live = this.transport.result(withFlutter || this.log !== null);
    // a sequence was recorded by who knows what: it tells nothing of the speed of this machine
    const { sequencePlays } = this.plays;
    if (sequencePlays) Object.assign(live, { speed: null, flutter: null, waveform: null });
    const stretch = (withFlutter || this.log) && live.flutter ? this.newStretch() : null;
    this.watch(live);
    this.ears.plays(this.playingHz()?.[0] ?? null, live.speed?.instantPercent ?? null);
    const comparison = follows && this.compared(follows);
    if (comparison) this.recording?.hears(comparison.hears);
    const speed = live.speed && { ...live.speed, beforeChange: this.sinceMark(live.speed) };
    return {
      ...live,
      speed,
      marks: this.marks,
      seconds: live.seconds + this.transportSince,
      nominalHz: this.nominalHz,
      check,
      stretch,
      watch: this.watched(),
      playback: withPlayback !== null ? this.heardTones() : null,
      comparison,
      ...this.watchedRecording(),
      quiet: this.quiet(),
      blanking: this.blanked(),
      returned: this.takeReturned(),
      ...this.ears.hear,
      band: this.plays.band,
      sequencePlays,
      bandsHeard: this.plays.bandsHeard,
      tapeDoubt: this.plays.doubt,
    };
  }

  /** How the speed stood before it changed, when that was after the last turn that was told. */
  private sinceMark({ beforeChange }: LiveSpeed): LiveSpeed["beforeChange"] {
    if (beforeChange === null) return null;
    const atSeconds = beforeChange.atSeconds + this.transportSince;
    return atSeconds > this.markedAt ? { ...beforeChange, atSeconds } : null;
  }

  /** Begins or ends the log of a long run. */
  startWatch(before: WatchedBefore | null = null): void {
    this.log = new WatchLog(this.seconds, before);
    this.nextWatch = 0;
  }
  stopWatch(): void {
    this.log = null;
  }

  /** By hand: what is heard is the source, or the tape; null leaves it to be found out. */
  sayHears(what: "source" | "tape" | null): void {
    this.comparison.say(what);
  }

  private quiet(): Quiet | null {
    if (this.wantsQuiet === null || this.seconds < this.nextQuiet) return null;
    if (this.wantsQuiet === "silence" && this.plays.tone !== null) return null;
    this.nextQuiet = this.seconds + QUIET_EVERY_SECONDS;
    const { sampleRateHz } = this.options;
    // what sounded before a key was pressed does not belong to it
    const since = Math.min(QUIET_SECONDS, this.seconds - Math.max(this.markedAt, this.quietSince));
    return quietOf(this.recentSound.contents(Math.max(0, since)), sampleRateHz);
  }

  private blanked(): ListeningResult["blanking"] {
    if (!this.blanking || this.seconds < this.nextBlanking) return null;
    this.nextBlanking = this.seconds + this.pace * PLAYBACK_EVERY_SECONDS;
    return this.blanking.result;
  }

  private watchedRecording(): Pick<ListeningResult, "recording" | "oscillator"> {
    if (!this.recording || this.seconds < this.nextRecording) return { recording: null, oscillator: null };
    this.nextRecording = this.seconds + this.pace * PLAYBACK_EVERY_SECONDS;
    const { sampleRateHz } = this.options;
    return {
      recording: this.recording.result,
      oscillator: oscillatorLine(this.recentSound.contents(OSCILLATOR_SECONDS), sampleRateHz),
    };
  }

  private takeReturned(): ReturnedNow | null {
    const fresh = this.newReturned;
    this.newReturned = null;
    // something may have been turned since it was worked out
    return fresh && { ...fresh, told: this.returned.told };
  }

  private compared(follows: Followed): SourceAndTape | null {
    if (this.seconds < this.nextComparison) return null;
    this.nextComparison = this.seconds + this.pace * PLAYBACK_EVERY_SECONDS;
    return this.comparison.update(this.seconds, follows === "any tone" ? this.playingHz() : follows, () =>
      this.recentSound.contents(RECENT_SECONDS),
    );
  }

  private playingHz(): [number] | null {
    const { tone } = this.plays;
    return tone && [tone.band.frequencyHz * (tone.index < 0 ? 1 : this.options.speedFactor)];
  }

  private heardTones(): PlaybackNow | null {
    if (this.seconds < this.nextPlayback) return null;
    this.nextPlayback = this.seconds + this.pace * PLAYBACK_EVERY_SECONDS;
    return this.playback.update(this.seconds, this.plays.tone, () =>
      this.recentSound.contents(RECENT_SECONDS),
    );
  }

  private watch({ speed, flutter, channels }: LiveResult): void {
    this.log?.add(this.seconds, {
      speedPercent: speed?.instantPercent ?? null,
      flutterPercent: flutter?.settled ? flutter.weighted.peakPercent : null,
      levelDb: Math.max(...channels.map(({ peakDbfs }) => peakDbfs)),
    });
  }

  /** What was found in a stretch belongs to the log of a long run. */
  noteTransport(events: TransportEvent[], spectrum: RatePoint[]): void {
    this.log?.addEvents(events);
    this.log?.addSpectrum(spectrum);
  }

  private watched(): WatchTrack | null {
    if (!this.log || this.seconds < this.nextWatch) return null;
    this.nextWatch = this.seconds + WATCH_EVERY_SECONDS;
    return this.log.snapshot;
  }

  private newStretch(): SteadyStretch | null {
    if (this.seconds < this.nextFinding) return null;
    const stretch = this.transport.remembered();
    if (stretch === null) return null;
    this.nextFinding = this.seconds + this.pace * FIND_PARTS_EVERY_SECONDS;
    return { ...stretch, startSeconds: stretch.startSeconds + this.transportSince };
  }

  private recognise(): void {
    const { recognition, carrierHz } = this.plays.recognise(this.wantedRole);
    if (recognition && this.wantedRole === RESPONSE_ROLE) {
      const heard = this.wide.hear(recognition, this.seconds, this.recentSound);
      if (heard) this.playback.hearWide(heard.wide, heard.begunSeconds);
    }
    if (carrierHz !== null) this.follow(carrierHz);
    const { wanted } = this.returned;
    if (wanted)
      this.newReturned = this.returned.update(this.seconds, this.plays.goes(wanted), this.recentSound);
  }

  private follow(frequencyHz: number): void {
    const { sampleRateHz, channelCount } = this.options;
    if (frequencyHz < LOWEST_CARRIER_HZ || Math.abs(frequencyHz / this.nominalHz - 1) < 1e-6) return;
    this.nominalHz = frequencyHz;
    this.transportSince = this.seconds;
    this.transport = new LiveTransport(sampleRateHz, channelCount, frequencyHz, this.pace);
  }
}
