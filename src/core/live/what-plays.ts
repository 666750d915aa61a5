import type { Samples } from "@/core/dsp/signal";
import type { ToneNow } from "@/core/playback/playback-now";
import { certifiedFrequencyHz, sectionName, type Programme, type Section } from "@/core/programme/programme";
import {
  ProgrammeRecogniser,
  STILL_PLAYING_SECONDS,
  type PlayingSection,
} from "@/core/programme/programme-recogniser";
import type { HeardGo } from "@/core/programme/recognise-by-marks";
import type { Recognition } from "@/core/programme/recognition";
import { atSpeed } from "@/core/reference/at-speed";
import { programmeOfTape } from "@/core/reference/programme-of-tape";
import type { ReferenceTape } from "@/core/reference/reference-tape";
import { programmeOfSequence } from "@/core/signals/programme-of-sequence";
import type { Sequence } from "@/core/signals/sequence";

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

interface Options {
  sampleRateHz: number;
  channelCount: number;
  tape: ReferenceTape;
  /** Told by their marks; those without are heard as tones. */
  sequences?: readonly Sequence[];
  /** Tape speed of the machine over that of the tape. */
  speedFactor: number;
  /** How much of the past is recognised. */
  keepSeconds: number;
}

/** Tones that are not on the tape are known by their frequency, to so many hertz. */
const OWN_TONE_STEP_HZ = 5;
/** Between its parts a sequence is still played. */
const SEQUENCE_GOES_ON_SECONDS = 5;

/** Which band of the tape plays now, or which part of a sequence. Push blocks, have it recognised every few seconds. */
export class WhatPlays {
  /** The tone that plays, of the tape or not. */
  tone: ToneNow | null = null;
  band: BandNow | null = null;
  /** Why the tape in the machine can hardly be the one chosen. */
  doubt: string | null = null;
  private readonly heard = new Set<number>();
  private readonly recogniser: ProgrammeRecogniser;
  private readonly programme: Programme;
  private readonly sequences: Programme[];
  /** The sequence that played last, and when a part of it was heard last. */
  private sequence: { name: string | null; heardSeconds: number } = { name: null, heardSeconds: -Infinity };

  constructor(private readonly options: Options) {
    const { sampleRateHz, channelCount, tape, speedFactor, keepSeconds, sequences = [] } = options;
    this.sequences = sequences.filter(({ marked }) => marked).map(programmeOfSequence);
    this.programme = programmeOfTape(atSpeed(tape, speedFactor));
    const marks = this.sequences.length > 0;
    this.recogniser = new ProgrammeRecogniser(sampleRateHz, channelCount, { keepSeconds, marks });
  }

  push(block: Samples[]): void {
    this.recogniser.push(block);
  }

  /** Every go at a marked sequence that was heard so far. */
  goes(programme: Programme): HeardGo[] {
    return this.recogniser.goes(programme);
  }

  /** Places in the tape's list of the bands that have been heard so far. */
  get bandsHeard(): number[] {
    return [...this.heard].sort((a, b) => a - b);
  }

  /**
   * The sentence for it while a marked sequence is played; null otherwise. Between its parts, and until its first part is
   * known, it is told by its mark.
   */
  get sequencePlays(): string | null {
    const { name, heardSeconds } = this.sequence;
    const marked = this.recogniser.lastMarkSeconds(this.sequences) ?? -Infinity;
    if (this.recogniser.heardSeconds - Math.max(marked, heardSeconds) > SEQUENCE_GOES_ON_SECONDS) return null;
    return name === null || marked > heardSeconds ? "A test sequence plays" : `The sequence ${name} plays`;
  }

  /**
   * @param role of several bands of one frequency, the one that is listened for
   * @returns what was heard of the tape, null while a sequence plays; and the frequency of the band that plays
   */
  recognise(role: string): { recognition: Recognition | null; carrierHz: number | null } {
    const part = this.recogniser.playing(this.sequences);
    if (part === null && this.sequencePlays === null) return this.hearTape(role);
    this.doubt = null;
    [this.tone, this.band] = [null, null];
    if (part) this.hearPart(part);
    return { recognition: null, carrierHz: null };
  }

  private hearPart({ programme: { name, sections }, heard }: PlayingSection): void {
    const { index, startSeconds, endSeconds } = heard;
    const section = sections[index];
    this.sequence = { name, heardSeconds: this.recogniser.heardSeconds };
    if (section.kind === "tone") this.tone = this.toneOfItsOwn(this.recogniser.seconds);
    const seconds = endSeconds - startSeconds;
    this.band = { sequence: name, index, kind: section.kind, name: sectionName(section), seconds };
  }

  private hearTape(role: string) {
    const { tape, speedFactor } = this.options;
    const now = this.recogniser.seconds;
    const recognition = this.recogniser.recognise(this.programme);
    this.doubt = recognition.doubt;
    for (const { index } of recognition.sections) this.heard.add(index);
    const plays = [...recognition.sections, ...recognition.repeats];
    const playing = plays.find(({ endSeconds }) => endSeconds > now - STILL_PLAYING_SECONDS);
    const known = plays.map(({ index }) => tape.bands[index]);
    const sure = new Set(known.map(({ frequencyHz }) => frequencyHz)).size > 1;
    this.tone =
      playing && tape.bands[playing.index].kind === "tone"
        ? this.bandMeant(playing.index, playing.startSeconds, sure, role)
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
    const carrierHz = playing ? certifiedFrequencyHz(tape.bands[playing.index]) * speedFactor : null;
    return { recognition, carrierHz };
  }

  /** A tone heard by itself may be any band of its frequency: then the one that is wanted. */
  private bandMeant(heard: number, startSeconds: number, sure: boolean, role: string): ToneNow {
    const { bands } = this.options.tape;
    const { frequencyHz } = bands[heard];
    const meant = bands.findIndex(
      (band) => band.kind === "tone" && band.frequencyHz === frequencyHz && band.role === role,
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
}
