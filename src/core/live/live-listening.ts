import { WatchLog, type WatchTrack } from "@/core/measure/watch-log";
import { LiveTransport, type LiveResult, type LiveSpeed } from "@/core/measure/live-transport";
import { SignalCheck } from "@/core/measure/signal-check";
import type { SignalReport } from "@/core/measure/signal-findings";
import { certifiedFrequencyHz, sectionName, type Programme, type Section } from "@/core/programme/programme";
import {
  ProgrammeRecogniser,
  STILL_PLAYING_SECONDS,
  type PlayingSection,
} from "@/core/programme/programme-recogniser";
import { programmeOfTape } from "@/core/reference/programme-of-tape";
import { timeConstants, type ReferenceTape } from "@/core/reference/reference-tape";
import { programmeOfSequence } from "@/core/signals/programme-of-sequence";
import type { Sequence } from "@/core/signals/sequence";
import { atSpeed } from "@/core/reference/at-speed";
import { LivePlayback } from "./live-playback";
import { SourceAndTapeFollower, type SourceAndTape } from "@/core/playback/source-and-tape";
import type { PlaybackNow, ToneNow } from "@/core/playback/playback-now";
import { RecentSound } from "./recent-sound";
import { usualFormat } from "@/core/standards/track-formats";
import type { HeadTracks } from "@/core/playback/azimuth-view";
import { WideBandFollower } from "./wide-band-follower";
import type { RatePoint } from "@/core/measure/rate-points";
import type { SteadyStretch } from "@/core/measure/steady-stretch";
import type { TransportEvent } from "@/core/measure/transport-events";

/** What plays now: a band of the tape, or a part of a sequence. */
export interface BandNow {
  /** The sequence that it belongs to; null for the tape. */
  sequence: string | null;
  /** Its place in it, from 0. */
  index: number;
  kind: Section["kind"];
  name: string;
  /** How long it has been playing without a break. */
  seconds: number;
}

export interface ListeningResult extends LiveResult {
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
const RESPONSE_ROLE = "response";
const PLAYBACK_EVERY_SECONDS = 0.45;
/** Tones that are not on the tape are known by their frequency, to so many hertz. */
const OWN_TONE_STEP_HZ = 5;
/** Between its parts a sequence is still played. */
const SEQUENCE_GOES_ON_SECONDS = 5;
const LONGEST_BRIDGED_SECONDS = 0.1;

/**
 * Everything that is listened for in a live source at once: speed and flutter of the tone that plays, the state of
 * the signal, which band of the tape it is, and the last seconds themselves. Push blocks, ask ten times a second.
 */
export class LiveListening {
  private transport: LiveTransport;
  private nominalHz: number;
  private readonly check: SignalCheck;
  private readonly recogniser: ProgrammeRecogniser;
  private readonly programme: Programme;
  private readonly sequences: Programme[];
  /** The sequence that played last, and when that, or a mark of any, was heard last. */
  private sequence: { name: string | null; heardSeconds: number } = { name: null, heardSeconds: -Infinity };
  private readonly recentSound: RecentSound;
  private readonly heard = new Set<number>();
  private band: BandNow | null = null;
  private doubt: string | null = null;
  private seconds = 0;
  private marks = 0;
  private markedAt = -Infinity;
  private nextCheck = 0;
  private nextFinding = 0;
  private readonly playback: LivePlayback;
  private readonly wide: WideBandFollower;
  private tone: ToneNow | null = null;
  private nextPlayback = 0;
  private readonly comparison: SourceAndTapeFollower;
  private nextComparison = 0;
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
    this.transport = new LiveTransport(sampleRateHz, channelCount, nominalHz);
    const { tape, speedFactor, tracks, sequences = [] } = options;
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
    this.check = new SignalCheck(sampleRateHz, channelCount);
    this.wide = new WideBandFollower(atSpeed(tape, speedFactor), speedFactor);
    this.sequences = sequences.filter(({ marked }) => marked).map(programmeOfSequence);
    const longest = this.wide.secondsToKeep;
    this.recogniser = new ProgrammeRecogniser(sampleRateHz, channelCount, {
      keepSeconds: Math.max(RECOGNISED_SECONDS, longest),
      marks: this.sequences.length > 0,
    });
    this.programme = programmeOfTape(atSpeed(tape, speedFactor));
    const kept = Math.max(LEAST_KEPT_SECONDS, evidenceSeconds, longest);
    this.recentSound = new RecentSound(sampleRateHz, channelCount, kept);
  }

  push(block: Array<Float64Array | Float32Array>): void {
    this.check.push(block);
    this.hear(block);
  }

  /** Samples that the sender knows to have been lost; after many, what comes is a new beginning. */
  lose(samples: number): void {
    this.check.lose(samples);
    const { sampleRateHz, channelCount } = this.options;
    if (samples > LONGEST_BRIDGED_SECONDS * sampleRateHz) this.beginAnew();
    else this.hear(Array.from({ length: channelCount }, () => new Float32Array(samples)));
  }

  private hear(block: Array<Float64Array | Float32Array>): void {
    this.recentSound.push(block);
    this.recogniser.push(block);
    this.transport.push(block);
    this.seconds += block[0].length / this.options.sampleRateHz;
  }

  /** Something was turned. Returns how often that was told, by which results from before and after it are told apart. */
  mark(): number {
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

  /** As much of them as is wanted as evidence, perhaps nothing. */
  evidence(): { sampleRateHz: number; channels: Float32Array[] } {
    const { sampleRateHz } = this.recentSound;
    return { sampleRateHz, channels: this.recentSound.contents(this.options.evidenceSeconds) };
  }

  /**
   * @param withPlayback the role of the bands whose tones are wanted; null for none
   * @param compare whether a tone is followed into a recorder and back
   */
  result(withFlutter: boolean, withPlayback: string | null = null, compare = false): ListeningResult {
    this.wantedRole = withPlayback ?? "";
    if (this.seconds >= this.nextRecognition) {
      this.nextRecognition = this.seconds + RECOGNISE_EVERY_SECONDS;
      this.recognise();
    }
    let check: SignalReport | null = null;
    if (this.seconds >= this.nextCheck) {
      this.nextCheck = this.seconds + CHECK_EVERY_SECONDS;
      check = this.check.report;
    }
    const live = this.transport.result(withFlutter || this.log !== null);
    // a sequence was recorded by who knows what: it tells nothing of the speed of this machine
    const sequencePlays = this.sequencePlays();
    if (sequencePlays) Object.assign(live, { speed: null, flutter: null, waveform: null });
    const stretch = (withFlutter || this.log) && live.flutter ? this.newStretch() : null;
    this.watch(live);
    const speed = live.speed && { ...live.speed, beforeChange: this.sinceMark(live.speed) };
    const bandsHeard = [...this.heard].sort((a, b) => a - b);
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
      comparison: compare ? this.compared() : null,
      band: this.band,
      sequencePlays,
      bandsHeard,
      tapeDoubt: this.doubt,
    };
  }

  /** How the speed stood before it changed, when that was after the last turn that was told. */
  private sinceMark({ beforeChange }: LiveSpeed): LiveSpeed["beforeChange"] {
    if (beforeChange === null) return null;
    const atSeconds = beforeChange.atSeconds + this.transportSince;
    return atSeconds > this.markedAt ? { ...beforeChange, atSeconds } : null;
  }

  /** Begins or ends the log of a long run. */
  startWatch(): void {
    this.log = new WatchLog(this.seconds);
    this.nextWatch = 0;
  }
  stopWatch(): void {
    this.log = null;
  }

  /** By hand: what is heard is the source, or the tape; null leaves it to be found out. */
  sayHears(what: "source" | "tape" | null): void {
    this.comparison.say(what);
  }

  private compared(): SourceAndTape | null {
    if (this.seconds < this.nextComparison) return null;
    this.nextComparison = this.seconds + PLAYBACK_EVERY_SECONDS;
    const hz = this.tone && this.tone.band.frequencyHz * (this.tone.index < 0 ? 1 : this.options.speedFactor);
    return this.comparison.update(this.seconds, hz, () => this.recentSound.contents(RECENT_SECONDS));
  }

  private heardTones(): PlaybackNow | null {
    if (this.seconds < this.nextPlayback) return null;
    this.nextPlayback = this.seconds + PLAYBACK_EVERY_SECONDS;
    return this.playback.update(this.seconds, this.tone, () => this.recentSound.contents(RECENT_SECONDS));
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
    this.nextFinding = this.seconds + FIND_PARTS_EVERY_SECONDS;
    return { ...stretch, startSeconds: stretch.startSeconds + this.transportSince };
  }

  private recognise(): void {
    const plays = this.recogniser.playing(this.sequences);
    if (plays) this.hearSequence(plays);
    else this.hearTape();
  }

  /** Between its parts, and until its first part is known, a sequence is told by its mark. */
  private sequencePlays(): string | null {
    const { name, heardSeconds } = this.sequence;
    const marked = this.recogniser.lastMarkSeconds(this.sequences) ?? -Infinity;
    if (this.seconds - Math.max(marked, heardSeconds) > SEQUENCE_GOES_ON_SECONDS) return null;
    return name === null || marked > heardSeconds ? "A test sequence plays" : `The sequence ${name} plays`;
  }

  /** A part of a sequence plays. */
  private hearSequence({ programme: { name }, section, heard }: PlayingSection): void {
    const { index, startSeconds, endSeconds } = heard;
    this.sequence = { name, heardSeconds: this.seconds };
    this.doubt = null;
    this.tone = section.kind === "tone" ? this.toneOfItsOwn(this.recogniser.seconds) : null;
    this.band = {
      sequence: name,
      index,
      kind: section.kind,
      name: sectionName(section),
      seconds: endSeconds - startSeconds,
    };
  }

  private hearTape(): void {
    const { tape, speedFactor } = this.options;
    const now = this.recogniser.seconds;
    const recognition = this.recogniser.recognise(this.programme);
    this.doubt = recognition.doubt;
    if (this.wantedRole === RESPONSE_ROLE) {
      const heard = this.wide.hear(recognition, this.seconds, this.recentSound);
      if (heard) this.playback.hearWide(heard.wide, heard.begunSeconds);
    }
    for (const { index } of recognition.sections) this.heard.add(index);
    const plays = [...recognition.sections, ...recognition.repeats];
    const playing = plays.find(({ endSeconds }) => endSeconds > now - STILL_PLAYING_SECONDS);
    const known = plays.map(({ index }) => tape.bands[index]);
    const sure = new Set(known.map(({ frequencyHz }) => frequencyHz)).size > 1;
    this.tone =
      playing && tape.bands[playing.index].kind === "tone"
        ? this.bandMeant(playing.index, playing.startSeconds, sure)
        : this.toneOfItsOwn(now);
    const index = this.tone && this.tone.index >= 0 ? this.tone.index : playing?.index;
    this.band =
      playing && index !== undefined
        ? {
            sequence: null,
            index,
            kind: tape.bands[index].kind,
            name: sectionName(tape.bands[index]),
            seconds: playing.endSeconds - playing.startSeconds,
          }
        : null;
    if (playing) this.follow(certifiedFrequencyHz(tape.bands[playing.index]) * speedFactor);
  }

  /** A tone heard by itself may be any band of its frequency: then the one that is wanted at the station. */
  private bandMeant(heard: number, startSeconds: number, sure: boolean): ToneNow {
    const { bands } = this.options.tape;
    const { frequencyHz } = bands[heard];
    const meant = bands.findIndex(
      (band) => band.kind === "tone" && band.frequencyHz === frequencyHz && band.role === this.wantedRole,
    );
    const index = sure || meant < 0 ? heard : meant;
    return { index, band: bands[index], startSeconds, sure };
  }

  /** A steady tone that plays but is not one of the tape, as when a recording is heard off the tape. */
  private toneOfItsOwn(now: number): ToneNow | null {
    const heard = this.recogniser
      .tones()
      .findLast(({ endSeconds }) => endSeconds > now - STILL_PLAYING_SECONDS);
    if (!heard) return null;
    const frequencyHz = OWN_TONE_STEP_HZ * Math.round(heard.frequencyHz / OWN_TONE_STEP_HZ);
    const seconds = heard.endSeconds - heard.startSeconds;
    const band = { kind: "tone" as const, frequencyHz, levelDb: 0, seconds };
    return { index: -frequencyHz, band, startSeconds: heard.startSeconds, sure: false };
  }

  private follow(frequencyHz: number): void {
    const { sampleRateHz, channelCount } = this.options;
    if (frequencyHz < LOWEST_CARRIER_HZ || Math.abs(frequencyHz / this.nominalHz - 1) < 1e-6) return;
    this.nominalHz = frequencyHz;
    this.transportSince = this.seconds;
    this.transport = new LiveTransport(sampleRateHz, channelCount, frequencyHz);
  }
}
