import type { Samples } from "@/core/dsp/signal";
import { blockWithin } from "@/core/measure/block-within";
import { channelName } from "@/core/measure/channel-name";
import { distortionOf } from "@/core/measure/distortion";
import { countsDropOuts, DropOutMeter, USUAL_DEPTH_DB } from "@/core/measure/drop-outs";
import { HumMeter, type HumLine } from "@/core/measure/hum";
import { FullScaleRuns } from "@/core/measure/full-scale";
import { HalvedSound, isEnoughHalved } from "@/core/measure/halved-sound";
import { KeptSound, type KeptClock } from "@/core/measure/kept-sound";
import { SoundRooms } from "@/core/measure/sound-rooms";
import { residueBesideHum, type Residue } from "@/core/measure/residue";
import { steadyNoise } from "@/core/measure/steady-noise";
import { weightedNoise, type WeightedNoise } from "@/core/measure/weighted-noise";
import { orderLines } from "@/core/measure/order-lines";
import { sweepLevels } from "@/core/measure/sweep-levels";
import { ToneBandMeter, type TonePlace } from "@/core/measure/tone-band-meter";
import type { TonePair } from "@/core/measure/tone-pair";
import { sweepShape, type Section } from "@/core/programme/programme";
import type { RecognisedSection } from "@/core/programme/recognition";
import { isFollowed, noiseGain } from "./noise-gain";
import { aroundSeconds, highestHz } from "./section-reach";
import type { ReturnedPoint, ReturnedStep, ReturnedTone, ReturnedTwoTone } from "./returned";

/** One sound of a sequence as it came back in one channel. */
export type SectionReturned =
  | ReturnedTone
  | { kind: "step"; frequencyHz: number; step: ReturnedStep }
  | { kind: "points"; points: ReturnedPoint[]; clipped: boolean }
  | ReturnedTwoTone
  | SilenceReturned
  /** Nothing was sent on the channel, or nothing can be said of what came back. */
  | { kind: "nothing"; why: string | null };

/** A silence as it came back. */
export interface SilenceReturned {
  kind: "silence";
  /** Of the tone that stood before it. */
  residue: Residue | null;
  noise: WeightedNoise | null;
  hum: HumLine[];
  /** Why nothing of it is measured: it is not steady; null where it is. */
  doubt: string | null;
}

export interface SectionPlace extends RecognisedSection {
  /** Speed of what came back re what was sent. */
  speedRatio: number;
  /** What kind of noise it is, where it is noise. */
  colour: "pink" | "white" | null;
  /** So much silence follows it. */
  quietSeconds: number;
  /** Frequency of the tone that stands before it in the sequence, as sent; null for none. */
  toneBeforeHz: number | null;
  isTaken: TonePlace["isTaken"];
}

/** More of one sound is not needed; a sweep has to be whole. */
const LONGEST_SECONDS = { tone: 60, "two-tone": 60, noise: 60, silence: 60, sweep: 180 } as const;
/** Left out at both ends: the mark places a sound within some milliseconds. */
const EDGE_SECONDS = 0.12;
/** A machine that cuts the tone late, and the print of it through the windings, stay out of a silence. */
const SILENCE_EDGE_SECONDS = 0.4;
/** Hiss and reverberation of the gap after a noise, away from its edges. */
const QUIET_EDGE_SECONDS = 0.08;
const FEWEST_QUIET_SECONDS = 0.25;
const HIGHEST_SHARE = 0.44;
/** Of a long tone this much tells its third harmonic. */
const LONGEST_THIRD_SECONDS = 20;
/** Strangers hang together by chance with 1 ÷ (bandwidth · time). */
const PER_SECOND_AND_HERTZ = 0.04;
const CHANCE_TIMES = 5;

/**
 * Keeps the sound of one section of a sequence, pushed in blocks of any length, and measures it once, at the end.
 * Sections of one recording share their rooms.
 */
export class SectionMeter {
  private readonly sound: KeptSound | HalvedSound;
  /** The silence after a noise; null where there is too little of it, and after anything else. */
  private readonly quiet: KeptSound | HalvedSound | null;
  /** For each channel, where drop-outs are counted: right through a tone, however long it is. */
  private readonly dropOuts: ReadonlyArray<DropOutMeter | null>;
  private band: ToneBandMeter | null = null;
  /** What it wants of the recording, in frames. */
  private readonly from: number;
  private readonly lastTo: number;
  private readonly fullScale: readonly FullScaleRuns[];
  private heardTo = 0;

  constructor(
    private readonly sampleRateHz: number,
    private readonly channelCount: number,
    private readonly section: Section,
    private readonly place: SectionPlace,
    private readonly rooms = new SoundRooms(),
  ) {
    const { startSeconds, endSeconds, quietSeconds, speedRatio } = place;
    const around = aroundSeconds(section, speedRatio);
    const last = Math.min(endSeconds, startSeconds + LONGEST_SECONDS[section.kind]);
    const Kept = isEnoughHalved(highestHz(section, place), sampleRateHz) ? HalvedSound : KeptSound;
    const kept = (fromSeconds: number, toSeconds: number) =>
      new Kept(sampleRateHz, channelCount, { fromSeconds, toSeconds }, rooms);
    const ends = { fromSeconds: startSeconds - around, toSeconds: last + around };
    this.from = Math.round(ends.fromSeconds * sampleRateHz);
    this.lastTo = Math.round(ends.toSeconds * sampleRateHz);
    // of a tone that is followed as it comes only its third harmonic is read from what is kept
    const third = Math.min(last, startSeconds + EDGE_SECONDS + LONGEST_THIRD_SECONDS);
    this.sound = isTone(section) ? kept(startSeconds, third) : kept(ends.fromSeconds, ends.toSeconds);
    this.quiet =
      section.kind === "noise" && quietSeconds >= FEWEST_QUIET_SECONDS
        ? kept(endSeconds + QUIET_EDGE_SECONDS, endSeconds + quietSeconds / speedRatio - QUIET_EDGE_SECONDS)
        : null;
    const counts = isTone(section) && this.counts(this.innerTo - this.innerFrom);
    this.fullScale = Array.from({ length: Math.min(2, channelCount) }, () => new FullScaleRuns());
    this.dropOuts = this.fullScale.map((_, c) =>
      counts && this.sentOn(c) ? new DropOutMeter(sampleRateHz, this.heardHz, USUAL_DEPTH_DB) : null,
    );
  }

  /** One frame beyond the last that it wants. */
  get to(): number {
    return Math.max(this.lastTo, this.quiet?.to ?? 0, this.dropOuts.some(Boolean) ? this.innerTo : 0);
  }

  /** @param at which frame of the recording the block begins with */
  push(block: readonly Samples[], at: number): void {
    this.sound.push(block, at);
    this.followTone(block, at);
    this.quiet?.push(block, at);
    const inside = blockWithin(block, at, { from: this.innerFrom, to: this.innerTo });
    if (!inside) return;
    this.dropOuts.forEach((meter, c) => meter?.push(inside.channels[c]));
    this.fullScale.forEach((runs, c) => runs.push(inside.channels[c]));
    this.heardTo = inside.last;
  }

  /** A tone's meter is made when the tone comes and let go of with it: a sequence may hold hundreds. */
  private followTone(block: readonly Samples[], at: number): void {
    const { section, place, sampleRateHz, channelCount, heardHz } = this;
    if (!isTone(section) || heardHz > HIGHEST_SHARE * sampleRateHz) return;
    if (at >= this.lastTo || at + block[0].length <= this.from) return;
    this.band ??= new ToneBandMeter(
      sampleRateHz,
      channelCount,
      { ...place, frequencyHz: heardHz },
      this.rooms,
    );
    this.band.push(block, at);
  }

  /** What came back in each channel; ask once, at the end. */
  result(): SectionReturned[] {
    return this.sound.measure((heard, clock) => this.measured(heard, clock));
  }

  private measured(heard: Float32Array[], clock: KeptClock): SectionReturned[] {
    if (heard.length === 0) return [];
    const { section } = this;
    switch (section.kind) {
      case "tone":
        return section.role === "staircase" ? this.steps(heard, clock) : this.tones(heard, clock);
      case "two-tone":
        return this.twoTones(heard, clock);
      case "sweep":
        return this.sweeps(heard, clock);
      case "noise":
        return this.noises(heard, clock);
      case "silence":
        return this.silences(heard, clock);
    }
  }

  private sentOn(c: number): boolean {
    const { channels = "both" } = this.section;
    return this.channelCount === 1 || channels === "both" || channels === channelName(c, 2);
  }

  /** The section itself without its edges. */
  private inside(x: Float32Array, clock: KeptClock, edgeSeconds = EDGE_SECONDS): Float32Array {
    const { startSeconds, endSeconds } = this.place;
    const at = (seconds: number) => frameAt(seconds, clock);
    return x.subarray(Math.max(0, at(startSeconds + edgeSeconds)), Math.max(0, at(endSeconds - edgeSeconds)));
  }

  /** The section without its edges, in frames of the recording. */
  private get innerFrom(): number {
    return Math.round((this.place.startSeconds + EDGE_SECONDS) * this.sampleRateHz);
  }
  private get innerTo(): number {
    return Math.round((this.place.endSeconds - EDGE_SECONDS) * this.sampleRateHz);
  }

  private counts(frames: number): boolean {
    return countsDropOuts(this.heardHz, this.sampleRateHz, frames / this.sampleRateHz);
  }

  private clips(c: number): boolean {
    return this.fullScale[c].count > 0;
  }

  private get heardHz(): number {
    return this.section.frequencyHz * this.place.speedRatio;
  }

  private tones(heard: Float32Array[], clock: KeptClock): SectionReturned[] {
    const { section, sampleRateHz } = this;
    if (this.heardHz > HIGHEST_SHARE * sampleRateHz) return heard.map(() => nothing(TOO_HIGH));
    const pair = this.band?.result() ?? null;
    this.band = null;
    if (pair === null) return heard.map(() => nothing(TOO_SHORT));
    return pair.channels.map(({ levelDbfs, uncertaintyDb, spreadDb, clipped }, c): ReturnedTone => {
      const third = this.thirdOf(heard[c], clock, c);
      const dropOuts = this.dropOutsOf(c);
      const own = {
        kind: "sine" as const,
        frequencyHz: section.frequencyHz,
        spreadDb,
        clipped: clipped || this.clips(c),
        ...third,
        dropOuts,
      };
      const hum = pair.leftOverDb?.[c] ?? 0;
      if (this.sentOn(c))
        return {
          ...own,
          levelDb: levelDbfs - section.levelDb,
          uncertaintyDb: Math.hypot(uncertaintyDb, hum),
        };
      const { db, atMostDb, uncertaintyDb: unsure, problem } = crosstalkOf(pair, c);
      return {
        ...own,
        levelDb: null,
        crosstalkDb: db,
        crosstalkAtMostDb: atMostDb,
        uncertaintyDb: unsure,
        problem,
      };
    });
  }

  private thirdOf(
    x: Float32Array,
    clock: KeptClock,
    c: number,
  ): Pick<ReturnedTone, "thirdPercent" | "thirdMeasurable"> {
    const inside = this.inside(x, clock).subarray(0, Math.round(LONGEST_THIRD_SECONDS * this.sampleRateHz));
    // a step of a response is asked for its level alone
    const isAsked = this.sentOn(c) && this.section.role !== "steps";
    const found = isAsked ? orderLines(inside, this.sampleRateHz, this.heardHz, [3]) : null;
    const third = found?.lines.at(0);
    return { thirdPercent: third?.percent ?? null, thirdMeasurable: third?.measurable ?? false };
  }

  /** Of a tone that lasts long enough for a rate a minute to mean something. */
  private dropOutsOf(c: number): ReturnedTone["dropOuts"] {
    const meter = this.dropOuts[c];
    const { place } = this;
    if (!meter || !this.counts(this.heardTo - this.innerFrom)) return null;
    const { seconds, events } = meter.result();
    // as sent, so that the same place of a tape is the same at whatever speed it is played
    const asSent = (one: number) => one * place.speedRatio;
    return {
      seconds: asSent(seconds),
      events: events.map((one) => ({
        ...one,
        atSeconds: asSent(one.atSeconds + EDGE_SECONDS),
        seconds: asSent(one.seconds),
      })),
    };
  }

  private steps(heard: Float32Array[], clock: KeptClock): SectionReturned[] {
    return heard.map((x, c) => {
      if (!this.sentOn(c)) return NOTHING_SENT;
      const found = distortionOf(this.inside(x, clock), clock.sampleRateHz, this.heardHz);
      if (found === null) return nothing(NO_TONE);
      if (found.foreign) return nothing(FOREIGN);
      const { levelDbfs, third, thdPercent, clipped, harmonics } = found;
      const sentDbfs = this.section.levelDb;
      const levelDb = levelDbfs - sentDbfs;
      const shares = {
        thirdPercent: third?.percent ?? null,
        thdPercent: third && thdPercent,
        measurable: third?.measurable ?? false,
      };
      return {
        kind: "step",
        frequencyHz: this.section.frequencyHz,
        step: { sentDbfs, levelDb, ...shares, harmonics, clipped: clipped || this.clips(c) },
      };
    });
  }

  private twoTones(heard: Float32Array[], clock: KeptClock): SectionReturned[] {
    const { frequencyHz, secondHz = 0 } = this.section;
    const [low, high] = [frequencyHz, secondHz].toSorted((a, b) => a - b);
    const order = high / low;
    const orders = [order, order - 2, order - 1, order + 1, order + 2];
    return heard.map((x, c) => {
      if (!this.sentOn(c)) return NOTHING_SENT;
      const lowHz = low * this.place.speedRatio;
      const found = orderLines(this.inside(x, clock), clock.sampleRateHz, lowHz, orders);
      if (found === null || found.lines.length < orders.length) return nothing(NO_TONE);
      const [upper, ...side] = found.lines;
      const [lower2, lower1, upper1, upper2] = side.map(({ percent }) => percent / upper.percent);
      return {
        kind: "two-tone",
        intermodulationPercent: 100 * Math.hypot(lower1 + upper1, lower2 + upper2),
        measurable: side.some(({ measurable }) => measurable),
        clipped: this.clips(c),
      };
    });
  }

  private sweeps(heard: Float32Array[], clock: KeptClock): SectionReturned[] {
    const { section, place } = this;
    const startSeconds = place.beginsSeconds - clock.startSeconds;
    const shape = sweepShape(section);
    const levels = sweepLevels(heard, clock.sampleRateHz, shape, { ...place, startSeconds }, true);
    return levels.map((points, c) =>
      this.sentOn(c)
        ? {
            kind: "points",
            points: points.map((p) => ({ ...p, levelDb: p.levelDb - section.levelDb })),
            clipped: this.clips(c),
          }
        : NOTHING_SENT,
    );
  }

  private silences(heard: Float32Array[], clock: KeptClock): SectionReturned[] {
    const { toneBeforeHz, speedRatio } = this.place;
    const { sampleRateHz } = clock;
    const inside = heard.map((x) => this.inside(x, clock, SILENCE_EDGE_SECONDS));
    return inside.map((x): SectionReturned => {
      const hum = new HumMeter(sampleRateHz);
      hum.push(x);
      const { from, to, doubt } = steadyNoise(x, sampleRateHz);
      const steady = x.subarray(from, to);
      const noise = doubt === null ? weightedNoise([steady], sampleRateHz) : null;
      const residue =
        toneBeforeHz === null || doubt !== null
          ? null
          : residueBesideHum(steady, sampleRateHz, toneBeforeHz * speedRatio, hum.hum.mainsHz);
      return { kind: "silence", residue, noise: noise?.[0] ?? null, hum: hum.hum.lines, doubt };
    });
  }

  private noises(heard: Float32Array[], clock: KeptClock): SectionReturned[] {
    const { section, place } = this;
    const { sampleRateHz } = clock;
    const { colour, startSeconds, endSeconds, speedRatio } = place;
    if (colour === null) return heard.map(() => NOTHING_SENT);
    const from = Math.max(0, frameAt(startSeconds - EDGE_SECONDS, clock));
    const noise = heard.map((x) => x.subarray(from, frameAt(endSeconds - EDGE_SECONDS / 2, clock)));
    const where = { startSeconds: startSeconds - clock.startSeconds - from / sampleRateHz, speedRatio };
    const sent = { kind: colour, levelDb: section.levelDb };
    const gainsWith = (quiet: Float32Array[]) =>
      noiseGain(noise, sampleRateHz, sent, where, quiet.length > 0 ? quiet : null, true);
    const gains = this.quiet ? this.quiet.measure(gainsWith) : gainsWith([]);
    if (gains === null) return heard.map(() => nothing(NOT_THAT_NOISE));
    return gains.map((channel, c) => {
      if (!this.sentOn(c)) return NOTHING_SENT;
      if (!isFollowed(channel)) return nothing(NOT_THAT_NOISE);
      const points = channel.map(({ gainDb, ...rest }) => ({ ...rest, levelDb: gainDb }));
      return { kind: "points", points, clipped: this.clips(c) };
    });
  }
}

/** Which sample of what is kept was at a time of the recording. */
const frameAt = (seconds: number, { sampleRateHz, startSeconds }: KeptClock): number =>
  Math.round((seconds - startSeconds) * sampleRateHz);

/** A tone by itself, not a step of a staircase. */
const isTone = ({ kind, role }: Section): boolean => kind === "tone" && role !== "staircase";

const nothing = (why: string): SectionReturned => ({ kind: "nothing", why });
const NOTHING_SENT: SectionReturned = { kind: "nothing", why: null };
const TOO_HIGH = "is too high for the sample rate of the recording";
const TOO_SHORT = "is too short to be measured";
const NO_TONE = "holds no tone";
const FOREIGN = "holds another tone or a buzz beside the one that was sent";
const NOT_THAT_NOISE = "is not the noise that was sent, or too much else is in it";

/** A channel that gives less of its own tone is not playing. */
const DEAD_DBFS = -75;
/** What comes across louder than this comes by a wire, not by a leak, dB. */
const WIRED_DB = -6;
/** Below this a channel holds nothing that could be measured. */
const NOTHING_DBFS = -130;

interface Crosstalk {
  db: number | null;
  /** Where no more than chance is there: it is at most this. */
  atMostDb: number | null;
  uncertaintyDb: number;
  /** Why there is no figure, in a sentence that goes on from the name of a segment; null where there is, or noise hides it. */
  problem: string | null;
}

/**
 * What came across to a channel that nothing was sent on, re the other: the part of it that hangs together with the
 * tone, so that noise is no crosstalk. What is louder than a leak, or beside a channel that plays nothing, is wiring.
 */
function crosstalkOf({ channels, pair, seconds, frequencyHz }: TonePair, c: number): Crosstalk {
  const none: Crosstalk = { db: null, atMostDb: null, uncertaintyDb: 0, problem: null };
  if (pair === null) return none;
  const [own, other] = [channels[c].levelDbfs, channels[1 - c].levelDbfs];
  if (own - other > WIRED_DB || other < DEAD_DBFS)
    return {
      ...none,
      problem:
        other < DEAD_DBFS
          ? "gives no crosstalk: nothing comes back on the channel that it was sent on. Check that channel first"
          : "gives no crosstalk: the tone is as loud on the other channel. The channels are swapped or joined: check the wiring",
    };
  const chance = 1 / (PER_SECOND_AND_HERTZ * frequencyHz * seconds);
  if (own < NOTHING_DBFS || pair.coherence < CHANCE_TIMES * chance) {
    const share = Math.min(1, 2 * CHANCE_TIMES * chance);
    return { ...none, atMostDb: Math.max(own, NOTHING_DBFS) - other + 10 * Math.log10(share) };
  }
  const db = own - other + 10 * Math.log10(Math.max(pair.coherence, 1e-12));
  // of the chance part half lies along what hangs together
  return { ...none, db, uncertaintyDb: 2 * 8.686 * Math.sqrt(chance / 2 / pair.coherence) };
}
