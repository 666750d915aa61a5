import { reverses, type DeckKey } from "./deck-status";
import type { Tape } from "./tape";
import type { TransportParameters } from "./transport-parameters";

/** Winding passes so many times the tape of playing. */
const WIND_SPEED = 40;

/** The tape that is in a machine: which side faces the heads, and how far along it stands. */
export class LoadedTape {
  side: 0 | 1 = 0;
  /** Seconds of tape on the left of the heads, as side A counts. */
  private place = 0;
  private counterZero = 0;

  constructor(
    readonly tape: Tape,
    private readonly parameters: TransportParameters,
  ) {}

  /** Seconds from the start of the side that faces the heads. */
  get positionSeconds(): number {
    return this.along(this.place);
  }

  set positionSeconds(seconds: number) {
    this.place = this.along(seconds);
  }

  /** Length of it that has passed the heads on this side, m. */
  get passedMetres(): number {
    return (this.positionSeconds * this.tape.speedCmPerS) / 100;
  }

  /** Turns of the take-up reel since the counter was last set to nought. */
  get counter(): number {
    return this.turns - this.counterZero;
  }

  resetCounter(): void {
    this.counterZero = this.turns;
  }

  /** Puts it in with the other side to the heads. */
  turn(): void {
    this.side = this.side === 0 ? 1 : 0;
  }

  /** The side that a key plays or records. */
  playedSide(key: DeckKey): 0 | 1 {
    return reverses(key) ? (this.side === 0 ? 1 : 0) : this.side;
  }

  /**
   * Moves it past the heads sample by sample.
   * @param speeds how fast it goes at each sample, re its nominal speed in the machine; turned into the places on the side that is played
   * @returns whether there is tape left
   */
  move(key: DeckKey, speeds: Float64Array, sampleRateHz: number): boolean {
    // the tape's own seconds pass faster on a machine that runs it at a higher speed
    const step = this.parameters.speedCmPerS / this.tape.speedCmPerS / sampleRateHz;
    // whether side A's own order runs forwards past the heads
    const forwards = (this.side === 0) !== reverses(key);
    const way = forwards ? 1 : -1;
    const { seconds } = this.tape;
    let { place } = this;
    for (let i = 0; i < speeds.length; i++) {
      place += way * step * speeds[i];
      speeds[i] = forwards ? place : seconds - place;
    }
    this.place = place;
    return place >= 0 && place <= seconds;
  }

  /** Winds it on, or back. @returns whether there is tape left */
  wind(onwards: boolean, seconds: number): boolean {
    const wound = this.place + (onwards === (this.side === 0) ? 1 : -1) * WIND_SPEED * seconds;
    this.place = Math.max(0, Math.min(this.tape.seconds, wound));
    return this.place === wound;
  }

  private along(place: number): number {
    return this.side === 0 ? place : this.tape.seconds - place;
  }

  /** Turns that the take-up reel has made since the start of this side. */
  private get turns(): number {
    const p = this.parameters;
    const hub = p["reel.hubRadiusMm"];
    const thickness = p["tape.thicknessMicrometres"] / 1000;
    const area = (thickness * 1000 * this.passedMetres) / Math.PI;
    return (Math.sqrt(hub * hub + area) - hub) / thickness;
  }
}
