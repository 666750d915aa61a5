import type { ListeningResult } from "@/core/live/listening-result";
import { LiveListening } from "@/core/live/live-listening";
import { equalisationOf } from "@/core/practice/comes-back";
import { blankTape, practiceTape, sequenceInput } from "@/core/practice/practice-tape";
import type { BlankTape } from "@/core/records/blank-tape";
import type { ReferenceTape } from "@/core/reference/reference-tape";
import type { Sequence } from "@/core/signals/sequence";
import { PracticeDeck } from "@/core/simulator/practice-deck";
import {
  records,
  type DeckKey,
  type DeckStatus,
  type DeckSwitches,
  type Way,
} from "@/core/simulator/deck-status";
import type { TransportParameters } from "@/core/simulator/transport-parameters";
import type { TapeType } from "@/core/standards/tape-types";
import type { Tape } from "@/core/simulator/tape";
import { keepTape, restoreTape } from "@/storage/practice-tapes";
import {
  NOTHING_WANTED,
  type GoesOn,
  type ListenFor,
  type PracticeStart,
  type PracticeState,
  type Wanted,
} from "./listener-api";
import { resultOf, RESULTS_PER_SECOND, type LiveSource } from "./live-source";

const RATE_HZ = 48000;
/** Practice sound owed after the page slept is let go, not caught up with. */
const LONGEST_CATCH_UP_SECONDS = 0.5;
/** What is recorded is kept so often, so that no more is lost when the page goes away without a word. */
const KEEP_EVERY_MS = 1000;

/** The practice machine with a tape in it, playing in real time or at a multiple of it. */
export class PracticeSource implements LiveSource {
  readonly live: LiveListening;
  wanted: Wanted = NOTHING_WANTED;
  private sequence: Sequence | null = null;
  private readonly timer: ReturnType<typeof setInterval>;
  private readonly keeper: ReturnType<typeof setInterval>;
  /** One thing after the other with the tape: kept, taken out, put in. */
  private tapeWork: Promise<unknown> = Promise.resolve();

  private constructor(
    private readonly deck: PracticeDeck,
    private tape: Tape,
    private readonly parameters: TransportParameters,
    pace: number,
    listenFor: ListenFor,
    onResult: (result: ListeningResult, deck: DeckStatus) => void,
  ) {
    this.live = new LiveListening({ ...listenFor, sampleRateHz: RATE_HZ, channelCount: 2, pace });
    let last = performance.now();
    this.timer = setInterval(() => {
      const now = performance.now();
      const seconds = Math.min(LONGEST_CATCH_UP_SECONDS, (now - last) / 1000);
      last = now;
      this.live.push(deck.render(Math.round(pace * seconds * RATE_HZ)));
      onResult(resultOf(this), deck.status);
    }, 1000 / RESULTS_PER_SECOND);
    this.keeper = setInterval(() => void this.withTape(() => keepTape(this.tape)), KEEP_EVERY_MS);
  }

  /** Puts the tape of `listenFor` in, as it was left, and presses play. */
  static async start(
    { parameters, seed, turnedTo, done, switches, pace, goesOn }: PracticeStart,
    listenFor: ListenFor,
    onResult: (result: ListeningResult, deck: DeckStatus) => void,
  ): Promise<PracticeSource> {
    const tape = practiceTape(listenFor.tape);
    await restoreTape(tape);
    const deck = new PracticeDeck({ parameters, seed, sampleRateHz: RATE_HZ, tape });
    for (const work of done) deck.repair(work);
    deck.trimmers.forEach((trimmer, i) => trimmer.turn(turnedTo[i] ?? 0));
    deck.switches = switches;
    const source = new PracticeSource(deck, tape, parameters, pace, listenFor, onResult);
    if (goesOn) await source.goOn(goesOn);
    else deck.press("play");
    return source;
  }

  /** Takes a recording up where it was left. */
  private async goOn(left: GoesOn): Promise<void> {
    await this.loadBlank(left.blank);
    if (left.side === 1) this.deck.turnSide();
    this.deck.standAt(left.positionSeconds, left.warmSeconds);
    this.deck.monitor = left.monitor;
    this.sequence = left.sequence;
    this.deck.setInput(left.sequence && sequenceInput(left.sequence, RATE_HZ, left.recordingSeconds));
    this.deck.press(left.key);
  }

  get state(): PracticeState {
    const trimmers = this.deck.trimmers.map(({ slotTurns, atStop }) => ({ slotTurns, atStop }));
    return { trimmers, deck: this.deck.status };
  }

  turn(trimmer: number, turns: number): void {
    this.deck.trimmers[trimmer].turn(turns);
  }

  repair(work: string): void {
    this.deck.repair(work);
  }

  /** A key is pressed once the tape that was asked for is in. */
  press(key: DeckKey): Promise<void> {
    return this.withTape(async () => {
      if (records(key)) this.deck.setInput(this.sequence && sequenceInput(this.sequence, RATE_HZ));
      this.deck.press(key);
      this.live.interrupt();
      // with two heads, what is heard after a key is not what was heard before: the source, or the tape
      if (this.parameters["deck.heads"] < 3) this.live.againBlanking();
    });
  }

  /** A tape of the library of blank tapes to record on; null is an ordinary one. */
  loadBlank(blank: BlankTape | null): Promise<void> {
    const { speedCmPerS } = this.tape;
    return this.put(blankTape(speedCmPerS, { blank, equalisation: equalisationOf(this.parameters) }));
  }

  load(reference: ReferenceTape): Promise<void> {
    return this.put(practiceTape(reference));
  }

  private async put(tape: Tape): Promise<void> {
    await this.withTape(async () => {
      await keepTape(this.tape);
      await restoreTape(tape);
      // a tape that is in already keeps the side that faces the heads
      const turned = tape.id === this.tape.id && this.deck.status.side === 1;
      this.tape = tape;
      this.deck.load(tape);
      if (!turned) return;
      this.deck.turnSide();
      this.windTo("forwards");
    });
  }

  monitor(what: "source" | "tape"): void {
    this.deck.monitor = what;
  }

  setSwitches(wanted: DeckSwitches): void {
    this.deck.switches = wanted;
    this.live.interrupt();
  }

  setTapeSwitch(type: TapeType | null): void {
    this.deck.tapeSwitch = type;
  }

  windToStart(way: Way): Promise<void> {
    return this.withTape(async () => {
      this.windTo(way);
      this.live.interrupt();
    });
  }

  private windTo(way: Way): void {
    this.deck.press(way === "forwards" ? "rewind" : "wind");
    while (this.deck.status.key !== "stop") this.deck.render(RATE_HZ / 10);
  }

  turnSide(): void {
    this.deck.turnSide();
  }

  resetCounter(): void {
    this.deck.resetCounter();
  }

  chooseInput(sequence: Sequence | null): void {
    this.sequence = sequence;
  }

  async finish(): Promise<void> {
    clearInterval(this.timer);
    clearInterval(this.keeper);
    await this.withTape(() => keepTape(this.tape));
  }

  private withTape<T>(work: () => Promise<T>): Promise<T> {
    const done = this.tapeWork.then(work);
    this.tapeWork = done.catch(() => undefined);
    return done;
  }
}
