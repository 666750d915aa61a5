import { median } from "@/core/dsp/quantile";
import { FRAME_SECONDS, TonePairMeter, type TonePair } from "@/core/measure/tone-pair";
import type { ReferenceTape } from "@/core/reference/reference-tape";
import { type Section, certifiedFrequencyHz } from "@/core/programme/programme";
import { judgedTone } from "@/core/playback/ladder";
import type { HeardBands } from "@/core/playback/heard-bands";
import type {
  HeardTone,
  PhaseAt10kHz,
  PlaybackNow,
  PlayingTone,
  Stand,
  ToneNow,
} from "@/core/playback/playback-now";
import { CountedCycles, nearestAngle } from "./counted-cycles";
import { PeakHold } from "./peak-hold";
import { heardInBoth } from "@/core/measure/azimuth";
import { azimuthView, withKnownPhase, type AzimuthView, type HeadTracks } from "@/core/playback/azimuth-view";
import { responseRuns } from "@/core/playback/response-runs";
import { steadyFrames } from "./steady-frames";
import { levelTogether, tonePresent } from "./tone-present";
import type { TimeConstants } from "@/core/standards/equalisation";
import type { WideBand } from "@/core/playback/wide-band";

export interface PlaybackOptions {
  sampleRateHz: number;
  tape: ReferenceTape;
  speedFactor: number;
  tracks: HeadTracks;
  speedCmPerS: number;
  equalisation: TimeConstants;
}

const EDGE_SECONDS = 0.2;
/** As long as one transform takes; more does not make it known better while somebody turns. */
const MOST_SECONDS = 5.3;
const SHORTEST_SECONDS = 0.9;
const NOW_FRAMES = 10;
/** Treble may be off by itself; below this a level tells which band it is. */
const HIGHEST_TOLD_BY_LEVEL_HZ = 5000;
const CLEARLY_DB = 6;
/** A deck that runs slow plays a band so much lower. */
const SAME_BAND = 0.03;
/** A tone that began within this of another one is the same. */
const SAME_SECONDS = 0.6;
const ENDED_FRAMES = 4;
/** A tone that has just ended looks weaker for so long before that shows. */
const UNSURE_FRAMES = 3;
/** So long a tone that nobody recognises any more, since its level moves, is still followed. */
const HELD_SECONDS = 40;
/** A screw was turned when a steady tone stands so much elsewhere than before. */
const MOVED_DEGREES = 8;
const MOVED_DB = 0.2;
const SETTLED_FRAMES = 20;
const RESTLESS_SECONDS = 7;
const TEN_KHZ = 10_000;
const LEAST_UNCERTAINTY_DEGREES = 0.1;
/** A phase without its cycles may be anywhere. */
const NOT_COUNTED_DEGREES = 180;

/** Collects the tones of a reference tape while it plays, and follows the one that plays now while a screw is turned. */
export class LivePlayback {
  private readonly heard = new Map<number, HeardTone>();
  private readonly cycles = new CountedCycles();
  private readonly hold = new PeakHold();
  /** Sweeps and noises, by their place on the tape. */
  private readonly wide = new Map<number, WideBand>();
  private turnedAt = 0;
  private playing: PlayingTone | null = null;
  /** Of the tone that plays, since the last turn that was told. */
  private stands: Stand[] = [];
  private recognised: { tone: ToneNow; seconds: number } | null = null;
  private lastUpdate = 0;
  /** When the tone that plays was steady last. */
  private steadyAt = 0;

  constructor(private readonly options: PlaybackOptions) {}

  /** Something was turned: what was heard before is of another setting, but the tone that plays was followed. */
  mark(seconds: number): void {
    this.turnedAt = seconds;
    this.stands = [];
    this.wasAnotherSetting();
  }

  /** What was heard up to now is of another setting; of the tone that plays the cycles are known, since it was followed. */
  private wasAnotherSetting(): void {
    this.tonesAreOld();
    for (const [index, band] of this.wide) this.wide.set(index, { ...band, fresh: false });
    this.cycles.keepOnly(this.playing?.index ?? null);
  }

  private tonesAreOld(): void {
    for (const [index, tone] of this.heard) this.heard.set(index, { ...tone, fresh: false });
  }

  /** The other direction, or another head: nothing that was heard counts. */
  clear(seconds: number): void {
    this.turnedAt = seconds;
    this.heard.clear();
    this.wide.clear();
    this.cycles.clear();
    this.hold.clear();
    this.recognised = null;
    this.playing = null;
  }

  clearHold(): void {
    this.hold.clear();
  }

  /** A sweep or noise as far as it was heard. */
  hearWide(band: WideBand, begunSeconds: number): void {
    this.wide.set(band.index, { ...band, fresh: begunSeconds >= this.turnedAt });
  }

  /** What was measured in a recording, as if it had been heard just now. */
  take({ bands, wide }: Pick<HeardBands, "bands" | "wide">): PlaybackNow {
    for (const band of wide) this.wide.set(band.index, band);
    for (const band of bands)
      this.heard.set(band.index, { ...band, begunSeconds: band.startSeconds, fresh: true });
    return this.result();
  }

  /**
   * @param seconds now, on the clock that `tone` began by
   * @param recent the last seconds that were heard, up to now
   */
  update(seconds: number, tone: ToneNow | null, recent: () => Float32Array[]): PlaybackNow {
    const before = this.playing;
    let now = this.asKnown(tone) ?? this.stillHeld(seconds);
    const same =
      before !== null && now !== null && Math.abs(before.frequencyHz / now.band.frequencyHz - 1) < SAME_BAND;
    if (same) {
      // a level that is turned makes the recogniser begin the tone anew; it has gone on all the time
      now = {
        ...now!,
        startSeconds: Math.min(now!.startSeconds, this.recognised?.tone.startSeconds ?? Infinity),
      };
      if (now.index !== before.index)
        this.cycles.passOn(before.index, now.index, this.heard.get(before.index)?.fresh ?? false);
    } else {
      this.hold.clear();
      this.stands = [];
    }
    if (now && tone) this.recognised = { tone: now, seconds };
    this.playing = now === null ? null : this.measure(seconds, now, recent());
    // turned, and gone before it was steady: nobody has followed it to the end
    if (before !== null && !same && !this.heard.get(before.index)?.fresh) this.cycles.drop(before.index);
    this.lastUpdate = seconds;
    return this.result();
  }

  /** A tone that may be several bands is the one that played at that frequency until now: its level was turned meanwhile. */
  private asKnown(tone: ToneNow | null): ToneNow | null {
    const { recognised, playing } = this;
    if (tone === null || tone.sure || playing === null || recognised === null) return tone;
    const { index, band } = recognised.tone;
    const same = index >= 0 && Math.abs(tone.band.frequencyHz / band.frequencyHz - 1) < SAME_BAND;
    return same ? { ...tone, index, band } : tone;
  }

  /** What was recognised last, while its level is being turned. */
  private stillHeld(seconds: number): ToneNow | null {
    const { recognised, playing } = this;
    return playing !== null && recognised !== null && seconds - recognised.seconds < HELD_SECONDS
      ? recognised.tone
      : null;
  }

  /**
   * Of several bands of one frequency the one whose level fits what was heard of other bands, where that tells them
   * apart; otherwise what it was taken for.
   */
  private byLevel(
    taken: { index: number; band: Section },
    levelDbfs: number,
  ): { index: number; band: Section } {
    const { bands } = this.options.tape;
    const alike = bands
      .map((band, index) => ({ band, index }))
      .filter(({ band }) => band.kind === "tone" && band.frequencyHz === taken.band.frequencyHz);
    const others = [...this.heard.values()].filter(
      ({ index, band }) =>
        index >= 0 &&
        band.frequencyHz !== taken.band.frequencyHz &&
        band.frequencyHz < HIGHEST_TOLD_BY_LEVEL_HZ,
    );
    if (alike.length < 2 || others.length === 0) return taken;
    const gain = median(others.map(({ band, pair }) => pair.channels[0].levelDbfs - band.levelDb));
    const off = ({ band }: { band: Section }) => Math.abs(levelDbfs - gain - band.levelDb);
    const [best] = alike.toSorted((a, b) => off(a) - off(b));
    return off(taken) - off(best) > CLEARLY_DB ? best : taken;
  }

  /** What was taken for another band before there was anything to compare its level with. */
  private reconsider(): void {
    for (const tone of [...this.heard.values()]) {
      if (tone.index < 0 || tone.index === this.playing?.index) continue;
      const { index, band } = this.byLevel(tone, tone.pair.channels[0].levelDbfs);
      if (index === tone.index || this.heard.has(index)) continue;
      this.heard.delete(tone.index);
      this.heard.set(index, { ...tone, index, band });
    }
  }

  private measure(seconds: number, heard: ToneNow, recent: Float32Array[]) {
    const { startSeconds } = heard;
    let { index, band } = heard;
    const { sampleRateHz, speedFactor } = this.options;
    const from = Math.max(startSeconds, this.turnedAt, seconds - MOST_SECONDS) + EDGE_SECONDS;
    const hz = certifiedFrequencyHz(band) * speedFactor;
    const frames = Math.min(recent[0].length, Math.round((seconds - from) * sampleRateHz));
    if (frames < SHORTEST_SECONDS * sampleRateHz || hz > 0.44 * sampleRateHz)
      // it may have been told for another band of its frequency since
      return this.playing && Math.abs(this.playing.frequencyHz / band.frequencyHz - 1) < SAME_BAND
        ? { ...this.playing, settled: false }
        : null;
    const meter = new TonePairMeter(sampleRateHz, recent.length, hz);
    meter.push(recent.map((x) => x.subarray(x.length - frames)));
    const all = meter.result();
    if (all === null || hasEnded(all)) return null;
    ({ index, band } = this.byLevel(heard, all.channels[0].levelDbfs));
    const followed = this.cycles.follow(
      index,
      all,
      Math.ceil((seconds - this.lastUpdate) / FRAME_SECONDS) + 1,
    );
    // turned, whether or not anybody says so: what stood before it would count its cycles wrong
    if (followed === "turned") this.wasAnotherSetting();
    // and so fast that which way round it went cannot be told: the ladder is of before
    else if (followed === "lost") this.tonesAreOld();
    const steady = steadyFrames(all);
    // a channel that will not hold still is taken as it is, once it had its time
    if (steady >= SETTLED_FRAMES || this.playing?.index !== index) this.steadyAt = seconds;
    const restless = seconds - Math.max(this.steadyAt, this.turnedAt) > RESTLESS_SECONDS;
    const settled = steady >= SETTLED_FRAMES || restless;
    if (settled) {
      for (const other of this.heard.values())
        if (Math.abs(other.begunSeconds - startSeconds) < SAME_SECONDS) this.heard.delete(other.index);
      const times = { startSeconds: from, endSeconds: seconds, begunSeconds: startSeconds };
      const pair = meter.result(restless ? Infinity : steady - UNSURE_FRAMES, UNSURE_FRAMES)!;
      this.heard.set(index, { index, band, ...times, pair, fresh: true });
      this.reconsider();
    }
    const now = meter.result(NOW_FRAMES)!;
    this.hold.add(levelTogether(all));
    const levelsDbfs = now.channels.map(({ levelDbfs }) => levelDbfs);
    const phaseDegrees = this.cycles.of(index) ?? now.pair?.phaseDegrees ?? null;
    if (settled) this.stand({ levelsDbfs, phaseDegrees });
    return {
      index,
      frequencyHz: band.frequencyHz,
      levelsDbfs,
      heldDbfs: this.hold.level,
      peakSeen: this.hold.hasMoved,
      wanderDb: Math.max(...now.channels.map(({ spreadDb }) => spreadDb)),
      phaseDegrees,
      phaseTrack: now.pair?.track ?? new Float64Array(),
      settled,
      before: this.stands.length > 1 ? this.stands[0] : null,
    };
  }

  /** Remembers where the tone stood first and where it stands now. */
  private stand(now: Stand): void {
    const last = this.stands.at(-1);
    const cycles = last && Math.round(((now.phaseDegrees ?? 0) - (last.phaseDegrees ?? 0)) / 360);
    const moved =
      last === undefined ||
      Math.abs((now.phaseDegrees ?? 0) - (last.phaseDegrees ?? 0) - 360 * cycles!) > MOVED_DEGREES ||
      now.levelsDbfs.some((level, c) => Math.abs(level - last.levelsDbfs[c]) > MOVED_DB);
    if (moved) this.stands = [...this.stands.slice(0, 1), now];
    // it has not moved: its cycles were counted meanwhile
    else if (cycles) this.stands = [...this.stands.slice(0, -1), now];
  }

  private result(): PlaybackNow {
    const { tape, tracks, speedCmPerS, equalisation } = this.options;
    const tones = [...this.heard.values()].sort((a, b) => a.index - b.index);
    const fresh = tones.filter((tone) => tone.fresh);
    const ladder = fresh.length > 0 ? fresh : tones;
    const azimuth = ladder.length === 0 ? null : azimuthView(ladder, tracks, speedCmPerS);
    if (azimuth?.resolved && fresh.length > 0) this.cycles.learn(azimuth, this.playing?.index ?? null);
    const phase = this.phaseOf(azimuth);
    return {
      tones,
      playing: this.playing,
      azimuth:
        azimuth && phase?.counted && (!azimuth.resolved || fresh.length === 0)
          ? withKnownPhase(azimuth, phase, tracks, speedCmPerS)
          : azimuth,
      phase,
      responses: responseRuns(
        tones.filter(({ index }) => index >= 0),
        [...this.wide.values()],
        tape,
        equalisation,
      ),
    };
  }

  private phaseOf(azimuth: AzimuthView | null): PhaseAt10kHz | null {
    if (azimuth === null || azimuth.tones.length === 0) return null;
    const judged = judgedTone(azimuth.tones);
    if (!heardInBoth(judged)) return null;
    const { playing } = this;
    // the tone that plays tells what a turn does at once; the mean over seconds follows
    const isPlaying = playing?.index === judged.index && playing.phaseDegrees !== null && !playing.settled;
    const known = this.cycles.of(judged.index);
    const phase = isPlaying ? playing.phaseDegrees! : judged.phaseDegrees;
    const degrees = known === undefined ? phase : nearestAngle(phase, known);
    const at10 = TEN_KHZ / judged.frequencyHz;
    const uncertainty = Math.max(LEAST_UNCERTAINTY_DEGREES, judged.uncertaintyDegrees);
    return {
      degrees: at10 * degrees,
      uncertaintyDegrees: at10 * uncertainty + (known === undefined ? NOT_COUNTED_DEGREES : 0),
      spreadDegrees: at10 * judged.spreadDegrees,
      counted: known !== undefined,
      settled: !isPlaying && azimuth.tones.every(({ index }) => this.heard.get(index)?.fresh),
    };
  }
}

const hasEnded = (tone: TonePair): boolean => tonePresent(tone).slice(-ENDED_FRAMES).includes(false);
