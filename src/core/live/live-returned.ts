import { louder } from "@/core/measure/louder";
import { timingWander } from "@/core/measure/tone-wander";
import { hearsInTone } from "@/core/playback/source-and-tape";
import type { Programme } from "@/core/programme/programme";
import type { HeardGo } from "@/core/programme/recognise-by-marks";
import type { PassNow, ReturnedNow } from "@/core/returned/heard-pass";
import { returnedPass, type MeasuredSection } from "@/core/returned/returned-pass";
import { SectionMeter } from "@/core/returned/section-meter";
import { placedSection } from "@/core/returned/section-places";
import { programmeOfSequence } from "@/core/signals/programme-of-sequence";
import type { Sequence } from "@/core/signals/sequence";
import type { RecentSound } from "./recent-sound";

/** By then the mark that follows a sound has told how fast the tape ran. */
const AFTER_SECONDS = 2.2;
/** What is kept around a sound, in which its hum is learned. */
const AROUND_SECONDS = 5;
const MOST_PASSES = 60;
/** Lower tones waver too little to tell. */
const LOWEST_WAVERING_HZ = 250;

interface Go {
  pass: number;
  startSeconds: number;
  sections: Map<number, MeasuredSection>;
  votes: { source: number; tape: number };
}

/** Measures a marked sequence while it is heard, sound by sound, every time it is gone through. */
export class LiveReturned {
  private sequence: Sequence | null = null;
  private programme: Programme | null = null;
  private goes = new Map<number, Go>();
  /** When turns were told, on the clock of the source. */
  private readonly turns: number[] = [];
  /** What began earlier does not count. */
  private since = 0;

  constructor(
    private readonly sampleRateHz: number,
    private readonly channelCount: number,
  ) {}

  /** Which sequence is listened for; null for none. What was heard of another is forgotten. */
  want(sequence: Sequence | null): void {
    if (sequence?.id === this.sequence?.id) return;
    this.sequence = sequence;
    this.programme = sequence && programmeOfSequence(sequence);
    this.goes.clear();
  }

  get wanted(): Programme | null {
    return this.programme;
  }

  /** How often a turn was told. */
  get told(): number {
    return this.turns.length;
  }

  /** Something was turned. */
  mark(seconds: number): void {
    this.turns.push(seconds);
  }

  /** Another tape, head or direction: what was heard does not belong to it. */
  clear(seconds: number): void {
    this.goes.clear();
    this.since = seconds;
  }

  /**
   * @param seconds now, on the clock that the goes are told by
   * @param heard every go at the sequence so far
   * @returns null while no sequence is wanted
   */
  update(seconds: number, heard: readonly HeardGo[], recent: RecentSound): ReturnedNow | null {
    const { sequence, programme } = this;
    if (!sequence || !programme) return null;
    const all = heard.flatMap(({ sections }) => sections);
    const counts = heard.filter(({ atSeconds }) => atSeconds >= this.since);
    for (const { pass, atSeconds, sections, speedRatio } of counts) {
      const go: Go = this.goes.get(atSeconds) ?? {
        pass,
        startSeconds: atSeconds,
        sections: new Map(),
        votes: { source: 0, tape: 0 },
      };
      this.goes.set(atSeconds, go);
      for (const one of sections) {
        const kept = seconds - recent.seconds;
        if (go.sections.has(one.index) || one.endSeconds + AFTER_SECONDS > seconds || one.startSeconds < kept)
          continue;
        const section = programme.sections[one.index];
        const { segment, kind, sentDbfs, place } = placedSection(sequence, programme, one, speedRatio, all);
        const meter = new SectionMeter(this.sampleRateHz, this.channelCount, section, place);
        const chunk = recent.contents(seconds - one.startSeconds + AROUND_SECONDS);
        const from = Math.round(seconds * this.sampleRateHz) - chunk[0].length;
        meter.push(chunk, from);
        const { startSeconds, endSeconds } = one;
        const channels = meter.result();
        go.sections.set(one.index, { segment, kind, sentDbfs, startSeconds, endSeconds, channels });
        if (section.kind !== "tone" || one.frequencyHz < LOWEST_WAVERING_HZ) continue;
        const inside = chunk.map((x) =>
          x.subarray(
            Math.round(startSeconds * this.sampleRateHz) - from,
            Math.round(endSeconds * this.sampleRateHz) - from,
          ),
        );
        const hears = hearsInTone(
          timingWander(louder(inside), this.sampleRateHz, section.frequencyHz * place.speedRatio),
        );
        if (hears !== "unclear") go.votes[hears]++;
      }
    }
    const begun = [...this.goes.keys()].toSorted((a, b) => a - b);
    const oldest = begun.slice(0, -MOST_PASSES);
    for (const key of oldest) this.goes.delete(key);
    // what was forgotten is not measured again from what is left of its sound
    if (oldest.length > 0) this.since = Math.max(this.since, begun[oldest.length]);
    const passes = [...this.goes.values()]
      .filter(({ sections }) => sections.size > 0)
      .map((go) => this.passOf(go, sequence.id, programme));
    return { sequenceId: sequence.id, passes, told: this.turns.length, nowSeconds: seconds };
  }

  private passOf(
    { pass, startSeconds, sections, votes }: Go,
    sequenceId: string,
    programme: Programme,
  ): PassNow {
    const measured = [...sections].toSorted(([a], [b]) => a - b).map(([, one]) => one);
    const endSeconds = measured.at(-1)!.endSeconds;
    const toldBy = (seconds: number) => this.turns.filter((at) => at <= seconds).length;
    return {
      ...returnedPass(pass, measured, this.channelCount),
      sequenceId,
      startSeconds,
      endSeconds,
      whole: sections.size === programme.sections.length,
      hears: votes.source === votes.tape ? "unclear" : votes.source > votes.tape ? "source" : "tape",
      told: toldBy(startSeconds) === toldBy(endSeconds) ? toldBy(startSeconds) : null,
    };
  }
}
