import type { Samples } from "@/core/dsp/signal";
import type { LiveResult } from "@/core/measure/live-transport";
import { SignalCheck } from "@/core/measure/signal-check";
import type { RatePoint } from "@/core/measure/rate-points";
import type { TransportEvent } from "@/core/measure/transport-events";
import { WatchLog, type WatchedBefore, type WatchTrack } from "@/core/measure/watch-log";
import type { PlaybackNow } from "@/core/playback/playback-now";
import { SourceAndTapeFollower, type Followed, type SourceAndTape } from "@/core/playback/source-and-tape";
import { atSpeed } from "@/core/reference/at-speed";
import { timeConstants } from "@/core/reference/reference-tape";
import type { ReturnedNow } from "@/core/returned/heard-pass";
import { usualFormat } from "@/core/standards/track-formats";
import { Every } from "./every";
import { FollowedTransport } from "./followed-transport";
import type { ListeningOptions, ListeningResult } from "./listening-result";
import { LivePlayback } from "./live-playback";
import { LiveReturned } from "./live-returned";
import { RecentSound } from "./recent-sound";
import { RecordSideWatch } from "./record-side-watch";
import type { Resumed } from "./recording-watch";
import { WhatPlays } from "./what-plays";
import { WideBandFollower } from "./wide-band-follower";
import { WorkshopEars, type EarsWanted } from "./workshop-ears";

const RECOGNISED_SECONDS = 30;
const RECOGNISE_EVERY_SECONDS = 2;
const WATCH_EVERY_SECONDS = 2;
const CHECK_EVERY_SECONDS = 0.45;
/** How far back questions about the present look. */
const RECENT_SECONDS = 10;
/** Kept even when no evidence is wanted, for questions about the present. */
const LEAST_KEPT_SECONDS = RECENT_SECONDS;
/** The longest sound of a preset, what comes after it, and what is around. */
const SEQUENCE_KEPT_SECONDS = 34;
const RESPONSE_ROLE = "response";
const PLAYBACK_EVERY_SECONDS = 0.45;
const LONGEST_BRIDGED_SECONDS = 0.1;

/**
 * Everything that is listened for in a live source at once: speed and flutter of the tone that plays, the state of
 * the signal, which band of the tape it is, and the last seconds themselves. Push blocks, ask ten times a second.
 */
export class LiveListening {
  private readonly transport: FollowedTransport;
  private readonly check: SignalCheck;
  private readonly plays: WhatPlays;
  private readonly recentSound: RecentSound;
  private readonly playback: LivePlayback;
  private readonly wide: WideBandFollower;
  private readonly comparison: SourceAndTapeFollower;
  private readonly returned: LiveReturned;
  private readonly recordSide: RecordSideWatch;
  private readonly ears: WorkshopEars;
  private readonly checkEvery: Every;
  private readonly playbackEvery: Every;
  private readonly comparisonEvery: Every;
  private readonly recogniseEvery = new Every(RECOGNISE_EVERY_SECONDS);
  /** Null while no long run is watched. */
  private watch: { log: WatchLog; every: Every } | null = null;
  private seconds = 0;
  private marks = 0;
  private newReturned: ReturnedNow | null = null;
  /** Which of several bands of one frequency is listened for. */
  private wantedRole = "";

  constructor(private readonly options: ListeningOptions) {
    const { sampleRateHz, channelCount, nominalHz, evidenceSeconds, pace = 1 } = options;
    this.transport = new FollowedTransport({ sampleRateHz, channelCount, nominalHz, pace });
    this.checkEvery = new Every(pace * CHECK_EVERY_SECONDS);
    this.playbackEvery = new Every(pace * PLAYBACK_EVERY_SECONDS);
    this.comparisonEvery = new Every(pace * PLAYBACK_EVERY_SECONDS);
    this.recogniseEvery.done(0);
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
    this.recordSide = new RecordSideWatch(this.recentSound, channelCount, pace);
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
      this.recordSide.againBlanking();
    } else this.hear(Array.from({ length: channelCount }, () => new Float32Array(samples)));
  }

  private hear(block: Samples[]): void {
    this.recentSound.push(block);
    this.recordSide.push(block);
    this.plays.push(block);
    this.ears.push(block);
    this.transport.push(block);
    this.seconds += block[0].length / this.options.sampleRateHz;
  }

  /** Something was turned. Returns how often that was told, by which results from before and after it are told apart. */
  mark(): number {
    this.returned.mark(this.seconds);
    this.recordSide.endBlanking();
    return this.interrupt();
  }

  /** What plays was interrupted, by a key of the machine: settled figures begin anew, though nothing was turned. */
  interrupt(): number {
    this.beginAnew();
    return ++this.marks;
  }

  private beginAnew(): void {
    this.transport.mark(this.seconds);
    this.recordSide.quietFrom(this.seconds);
    this.playback.mark(this.seconds);
    this.comparison.mark(this.seconds);
  }

  /** The other direction plays, or another head: the tones that were heard do not belong to it. */
  clearPlayback(): void {
    this.playback.clear(this.seconds);
    this.comparison.clear();
    this.returned.clear(this.seconds);
    this.recordSide.endBlanking();
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
    this.recordSide.watchRecording(on, from);
  }

  /** Whether noise is measured, while nothing plays or nothing but faint tones do. */
  listenForQuiet(wanted: "silence" | "faint tones" | null): void {
    this.recordSide.listenForQuiet(wanted);
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
    this.recordSide.beginBlanking();
  }

  /** The same anew, if it is listened for. */
  againBlanking(): void {
    this.recordSide.againBlanking();
  }

  /** Whether it may be listened for. */
  listenForBlanking(may: boolean): void {
    if (!may) this.recordSide.endBlanking();
  }

  /** Something else is quiet from now on: no tape in it, or another one. */
  forgetQuiet(): void {
    this.recordSide.quietFrom(this.seconds);
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
    const { seconds, plays } = this;
    this.wantedRole = withPlayback ?? "";
    if (this.recogniseEvery.takes(seconds)) this.recognise();
    const check = this.checkEvery.takes(seconds) ? this.check.report : null;
    const withLog = withFlutter || this.watch !== null;
    const live = this.transport.result(withLog);
    // a sequence was recorded by who knows what: it tells nothing of the speed of this machine
    const { sequencePlays } = plays;
    if (sequencePlays) Object.assign(live, { speed: null, flutter: null, waveform: null });
    const stretch = withLog && live.flutter ? this.transport.stretch(seconds) : null;
    this.ears.plays(this.playingHz()?.[0] ?? null, live.speed?.instantPercent ?? null);
    const comparison = follows && this.compared(follows);
    if (comparison) this.recordSide.hears(comparison.hears);
    return {
      ...live,
      marks: this.marks,
      nominalHz: this.transport.nominalHz,
      check,
      stretch,
      watch: this.watched(live),
      playback: withPlayback !== null ? this.heardTones() : null,
      comparison,
      ...this.recordSide.result(seconds, plays.tone !== null),
      returned: this.takeReturned(),
      ...this.ears.hear,
      band: plays.band,
      sequencePlays,
      bandsHeard: plays.bandsHeard,
      tapeDoubt: plays.doubt,
    };
  }

  /** Begins or ends the log of a long run. */
  startWatch(before: WatchedBefore | null = null): void {
    this.watch = { log: new WatchLog(this.seconds, before), every: new Every(WATCH_EVERY_SECONDS) };
  }
  stopWatch(): void {
    this.watch = null;
  }

  /** By hand: what is heard is the source, or the tape; null leaves it to be found out. */
  sayHears(what: "source" | "tape" | null): void {
    this.comparison.say(what);
  }

  private takeReturned(): ReturnedNow | null {
    const fresh = this.newReturned;
    this.newReturned = null;
    // something may have been turned since it was worked out
    return fresh && { ...fresh, told: this.returned.told };
  }

  private compared(follows: Followed): SourceAndTape | null {
    if (!this.comparisonEvery.takes(this.seconds)) return null;
    return this.comparison.update(this.seconds, follows === "any tone" ? this.playingHz() : follows, () =>
      this.recentSound.contents(RECENT_SECONDS),
    );
  }

  private playingHz(): [number] | null {
    const { tone } = this.plays;
    return tone && [tone.band.frequencyHz * (tone.index < 0 ? 1 : this.options.speedFactor)];
  }

  private heardTones(): PlaybackNow | null {
    if (!this.playbackEvery.takes(this.seconds)) return null;
    return this.playback.update(this.seconds, this.plays.tone, () =>
      this.recentSound.contents(RECENT_SECONDS),
    );
  }

  /** What was found in a stretch belongs to the log of a long run. */
  noteTransport(events: TransportEvent[], spectrum: RatePoint[]): void {
    this.watch?.log.addEvents(events);
    this.watch?.log.addSpectrum(spectrum);
  }

  private watched({ speed, flutter, channels }: LiveResult): WatchTrack | null {
    if (!this.watch) return null;
    const { log, every } = this.watch;
    log.add(this.seconds, {
      speedPercent: speed?.instantPercent ?? null,
      flutterPercent: flutter?.settled ? flutter.weighted.peakPercent : null,
      levelDb: Math.max(...channels.map(({ peakDbfs }) => peakDbfs)),
    });
    return every.takes(this.seconds) ? log.snapshot : null;
  }

  private recognise(): void {
    const { recognition, carrierHz } = this.plays.recognise(this.wantedRole);
    if (recognition && this.wantedRole === RESPONSE_ROLE) {
      const heard = this.wide.hear(recognition, this.seconds, this.recentSound);
      if (heard) this.playback.hearWide(heard.wide, heard.begunSeconds);
    }
    if (carrierHz !== null) this.transport.follow(carrierHz, this.seconds);
    const { wanted } = this.returned;
    if (wanted)
      this.newReturned = this.returned.update(this.seconds, this.plays.goes(wanted), this.recentSound);
  }
}
