import type { TransportParameters } from "./transport-parameters";

/** Amplitude falls this fast once it stops swinging, dB per second. */
const FALLS_DB_PER_S = 120;
/** Nothing of it is left below this. */
const DEAD_DB = -60;
/** It cools twice as fast as it warms up. */
const COOLS = 2;
/** An erase head answers to its current more than in proportion: it no longer saturates the tape. */
const ERASE_DB_PER_DB = 2.5;
/** By how much worse each type of tape is erased: the stronger its coating, the more field it takes. */
const HARDER_DB = { I: 0, II: 3, III: 2, IV: 9, "open reel": 0 } as const;

/**
 * The oscillator that gives bias and feeds the erase head. One that dies warm stops after so many seconds of recording,
 * and swings again once it is cold.
 */
export class Oscillator {
  private warm = 0;
  private isDead = false;
  private fallenDb = 0;

  constructor(private readonly parameters: TransportParameters) {}

  /** Lets time pass, with the record key down or not. */
  pass(seconds: number, records: boolean): void {
    const diesAfter = this.parameters["oscillator.diesAfterSeconds"];
    this.warm = Math.max(0, this.warm + (records ? seconds : -COOLS * seconds));
    if (this.warm === 0) this.isDead = false;
    if (diesAfter > 0 && this.warm >= diesAfter) this.isDead = true;
    if (diesAfter === 0) this.isDead = false;
    this.fallenDb = this.isDead ? Math.max(DEAD_DB, this.fallenDb - FALLS_DB_PER_S * seconds) : 0;
  }

  /** Seconds of recording that it is warm by. */
  get warmSeconds(): number {
    return this.warm;
  }

  set warmSeconds(seconds: number) {
    this.warm = seconds;
  }

  /** Its amplitude re a sound one, dB. */
  get amplitudeDb(): number {
    return Math.max(DEAD_DB, this.parameters["oscillator.amplitudeDb"] + this.fallenDb);
  }

  /** How far down it takes what was on a tape of a type, in one direction, dB; 0 leaves it as it was. */
  eraseDepthDb(type: keyof typeof HARDER_DB, reverse = false): number {
    const { amplitudeDb, parameters } = this;
    if (amplitudeDb <= DEAD_DB) return 0;
    const head = parameters["erase.depthDb"] - (reverse ? parameters["erase.reverseWeakerDb"] : 0);
    return Math.max(0, head - HARDER_DB[type] + ERASE_DB_PER_DB * amplitudeDb);
  }
}
